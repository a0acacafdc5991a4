// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/places/athletes/consent_dialog.h"

#include "review/record/people_check.h"
#include "ui/kit/form_dialog.h"
#include "ui/kit/theme.h"

#include <QCheckBox>
#include <QLineEdit>

namespace jg::ui {

namespace {

/// A day, or nothing for an empty line. Errors: BadInput.
Result<std::optional<Date>> dayIn(const QLineEdit* line) {
    const std::string words = line->text().trimmed().toStdString();
    if (words.empty()) return std::optional<Date>();
    const auto day = dateFromWords(words);
    if (!day) return fail(ErrorCode::BadInput, msg("consent-dialog.no-day", {{"words", words}}));
    return day;
}

} // namespace

void askConsent(QWidget* parent, const Athlete& athlete, Date today,
                const std::function<std::optional<QString>(const Athlete&)>& keep) {
    const bool minor = athlete.isMinorOn(today);
    const Consent was = athlete.consent.value_or(Consent{
        false, false, false, minor ? athlete.guardianName : athlete.fullName(), minor, today, {}, {}});
    auto* form = new FormDialog(parent, "consent", say("consent-dialog.title", {{"name", athlete.firstName}}),
                                say("consent-dialog.hint"));
    auto* filming = form->tick("consent-filming", say("consent-dialog.filming"), was.filming);
    auto* showing = form->tick("consent-showing", say("consent-dialog.showing"), was.showing);
    auto* model = form->tick("consent-model", say("consent-dialog.model"), was.model);
    auto* by = form->line("consent-by", say("consent-dialog.by"), text(was.by));
    auto* guardian = form->tick("consent-guardian", say("consent-dialog.by-guardian"), was.byGuardian);
    const auto written = [](const std::optional<Date>& date) {
        return date ? text(isoDate(*date)) : QString();
    };
    auto* on = form->line("consent-on", say("consent-dialog.on"), written(was.on));
    auto* until = form->line("consent-until", say("consent-dialog.until"), written(was.until),
                             say("consent-dialog.until-hint"));
    auto* back = form->line("consent-taken-back", say("consent-dialog.taken-back"), written(was.takenBack),
                            say("consent-dialog.taken-back-hint"));
    form->openWith([=, athlete = athlete]() mutable -> std::optional<QString> {
        const auto given = dayIn(on), last = dayIn(until), ended = dayIn(back);
        for (const auto* day : {&given, &last, &ended})
            if (!*day) return say(day->error().text);
        const std::string who = by->text().trimmed().toStdString();
        if (who.empty()) return say("consent-dialog.who");
        if (!*given || **given > today) return say("consent-dialog.given-when");
        athlete.consent = Consent{filming->isChecked(),
                                  showing->isChecked(),
                                  model->isChecked(),
                                  who,
                                  guardian->isChecked(),
                                  **given,
                                  *last,
                                  *ended};
        return keep(athlete);
    });
}

} // namespace jg::ui
