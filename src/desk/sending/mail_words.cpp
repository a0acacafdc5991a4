// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/sending/mail_words.h"

namespace jg {

std::string mailText(const DispatchRecipe& r, const std::vector<Enclosure>& enclosures) {
    const LetterModel& letter = r.film.letter;
    const auto said = [&](const Message& message) { return r.film.words(message); };
    std::string text = said(msg("mail.hello", {{"name", r.toName}})) + "\n\n";
    for (const Message& caution : letter.cautions) text += said(caution) + "\n\n";
    const bool film = !r.film.review.takes.empty();
    text +=
        said(r.toGuardian ? msg(film ? "mail.letter-and-film" : "mail.letter", {{"name", r.athleteFirstName}})
                          : msg(film ? "mail.own-letter-and-film" : "mail.own-letter"));
    text += "\n\n" + said(msg("mail.enclosed")) + "\n";
    for (const Enclosure& e : enclosures)
        text += said(msg("mail.enclosure", {{"file", e.name}, {"what", e.what}})) + "\n";
    if (!letter.nextLook.empty())
        text += "\n" + said(msg("mail.next-look", {{"what", letter.nextLook}})) + "\n";
    return text + "\n" + said(letter.closing) + "\n\n" + r.house.coach + "\n" + r.house.place + "\n";
}

} // namespace jg
