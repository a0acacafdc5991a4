// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/places/athletes/outings_told.h"

#include "coaching/throwing_guidance.h"
#include "post/pain_words.h"
#include "review/record/people_check.h"
#include "review/record/pitch_count.h"
#include "ui/kit/form_dialog.h"
#include "ui/kit/theme.h"

#include <QLineEdit>
#include <QVBoxLayout>

namespace jg::ui {

namespace {

using Edited = std::function<std::optional<QString>(const Athlete&)>;

/// The form outlives the page, which is made anew when it is kept.
void askOuting(QWidget* parent, const Athlete& athlete, Date today, const Edited& edited) {
    auto* form = new FormDialog(parent, "outing", say("outing-form.title", {{"name", athlete.firstName}}),
                                say("outing-form.hint"));
    auto* on = form->line("day", say("outing-form.day"), text(isoDate(today)));
    auto* pitches = form->line("pitches", say("outing-form.pitches"), {});
    auto* felt = form->line("felt", say("outing-form.felt"), {}, say("outing-form.felt-hint"));
    form->remark(say(guidanceInWords(athlete.ageOn(today))));
    pitches->setFocus();
    form->openWith([=]() -> std::optional<QString> {
        const auto typed = [](const QLineEdit* field) { return field->text().trimmed().toStdString(); };
        auto outing = pitchCountFromWords(typed(on), typed(pitches), typed(felt), today);
        if (!outing) return say(outing.error().text);
        Athlete changed = athlete;
        addOuting(changed, std::move(*outing));
        return edited(changed);
    });
}

/// One outing in words, with the door that takes it out.
QWidget* outingLine(const Athlete& athlete, std::size_t which, Date today, const Edited& edited) {
    const PitchCount& o = athlete.outings[which];
    const bool newest = which + 1 == athlete.outings.size();
    auto* line = new QWidget;
    auto* row = new QHBoxLayout(line);
    row->setContentsMargins(0, 2, 0, 2);
    row->addWidget(plain(say(newest ? joined(ListStyle::Sentences,
                                             {inWords(o), restInWords(o, athlete.ageOn(today), today)})
                                    : inWords(o)),
                         13),
                   1);
    auto* out = plainButton(say("athletes-place.take-out"));
    out->setObjectName("link");
    QObject::connect(out, &QPushButton::clicked, line, [athlete, which, edited] {
        Athlete changed = athlete;
        changed.outings.erase(changed.outings.begin() + static_cast<std::ptrdiff_t>(which));
        edited(changed);
    });
    row->addWidget(out, 0, Qt::AlignTop);
    return line;
}

/// What may speak of pain in how the newest one felt; null when nothing does.
QWidget* painNote(const PitchCount& outing) {
    const std::string pain = painIn(outing.felt);
    if (pain.empty()) return nullptr;
    auto* note = new QFrame;
    note->setObjectName("pain");
    auto* box = new QHBoxLayout(note);
    box->setContentsMargins(12, 6, 10, 6);
    box->addWidget(plain(say("athletes-place.sounds-like-pain", {{"words", pain}}), 12.5));
    return note;
}

} // namespace

QWidget* outingsTold(const Athlete& athlete, Date today, const Edited& edited) {
    constexpr std::size_t kMost = 8; // the page of a season has them all
    auto* box = new QWidget;
    auto* column = new QVBoxLayout(box);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(6);
    column->addWidget(heading(say("athletes-place.outings-told"), 18));
    column->addWidget(rule());
    if (athlete.outings.empty()) column->addWidget(quiet(say("athletes-place.no-outing"), 13));
    const std::size_t count = athlete.outings.size();
    for (std::size_t shown = 0; shown < std::min(kMost, count); ++shown)
        column->addWidget(outingLine(athlete, count - 1 - shown, today, edited));
    if (count > 0)
        if (QWidget* note = painNote(athlete.outings.back())) column->addWidget(note);
    auto* enter = plainButton(say("athletes-place.enter-outing"));
    enter->setObjectName("outing-enter");
    QObject::connect(enter, &QPushButton::clicked, box,
                     [box, athlete, today, edited] { askOuting(box->window(), athlete, today, edited); });
    column->addWidget(enter, 0, Qt::AlignLeft);
    return box;
}

} // namespace jg::ui
