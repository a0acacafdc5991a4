// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/stages/send/reader_choice.h"

#include "letter/school_year.h"
#include "review/record/read_by.h"
#include "ui/kit/form_dialog.h"
#include "ui/kit/theme.h"

#include <QComboBox>

#include <cmath>

namespace jg::ui {

Message readerInWords(const ReviewSession& session, const LetterModel& letter) {
    const Athlete& athlete = session.athlete();
    const Audience reader = readBy(session.review(), athlete).reader;
    const double year = schoolYearOf(letter, session.readersWords());
    return msg(year > mostSchoolYear(reader) ? "send-bench.reader-hard" : "send-bench.reader",
               {{"reader", nameOf(reader)},
                {"language", nameOf(athlete.language)},
                {"year", std::max(1L, std::lround(year))},
                {"jargon", jargonOf(letter, session.readersWords())}});
}

void askReader(QWidget* parent, const ReviewSession& session,
               const std::function<Status(Audience, Language)>& keep) {
    auto* form =
        new FormDialog(parent, "reader-choice", say("reader-choice.title"), say("reader-choice.hint"));
    QStringList readers, languages;
    for (const Audience r : allAudiences()) readers << say(nameOf(r));
    for (const Language l : allLanguages()) languages << say(nameOf(l));
    const Athlete& athlete = session.athlete();
    auto* reader = form->choice("reader", say("reader-choice.reader"), readers,
                                static_cast<int>(readBy(session.review(), athlete).reader));
    auto* language = form->choice("language", say("reader-choice.language", {{"name", athlete.firstName}}),
                                  languages, static_cast<int>(athlete.language));
    form->openWith([=]() -> std::optional<QString> {
        const Status kept = keep(allAudiences().at(static_cast<std::size_t>(reader->currentIndex())),
                                 allLanguages().at(static_cast<std::size_t>(language->currentIndex())));
        return kept ? std::nullopt : std::optional(say(kept.error().text));
    });
}

} // namespace jg::ui
