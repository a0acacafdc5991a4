// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/sending/promises.h"

namespace jg {

std::vector<Promise> promisesOfLetter(const Review& review, const Athlete& athlete, Date sentOn) {
    std::vector<Promise> made;
    if (!review.plan.nextLook) return made;
    const auto add = [&](const char* id, Owes owes) {
        Promise p{athlete.id, msg(id, {{"firstName", athlete.firstName}}), review.plan.nextLook, owes};
        p.made = sentOn;
        p.review = review.id;
        made.push_back(std::move(p));
    };
    add("dispatch.next-look-at-first-name", Owes::House);
    if (!review.plan.drills.empty()) add("promise.drills", Owes::Athlete);
    if (!review.plan.ask.empty()) add("promise.film", Owes::Athlete);
    return made;
}

Status closePromise(Store& store, std::int64_t row, Kept how, const std::string& words, Date on) {
    const auto closed = store.change(row, [&](Promise& p) -> Status {
        if (!p.open()) return Done{}; // another window was quicker
        p.kept = how;
        p.closed = on;
        p.words = words;
        return Done{};
    });
    return closed ? Status(Done{}) : Status(closed.error());
}

Message whoOwes(const Promise& promise) {
    return msg(promise.owes == Owes::House ? "promise.house" : "promise.athlete");
}

Message dueInWords(const Promise& promise, Date today) {
    if (!promise.due) return {};
    const int days = daysBetween(today, *promise.due);
    if (days == 0) return msg("promise.due-today");
    if (days < 0) return msg("promise.late", {{"days", -days}});
    return msg("promise.due", {{"date", *promise.due}});
}

Message endInWords(const Promise& promise) {
    if (promise.open()) return {};
    const bool kept = promise.kept == Kept::Kept;
    if (!promise.closed) return msg(kept ? "promise.kept" : "promise.broken");
    const Message when = msg(kept ? "promise.kept-on" : "promise.broken-on", {{"date", *promise.closed}});
    return promise.words.empty() ? when
                                 : msg("promise.with-words", {{"end", when}, {"words", promise.words}});
}

} // namespace jg
