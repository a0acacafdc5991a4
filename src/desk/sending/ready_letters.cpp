// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/sending/ready_letters.h"

#include "base/caught.h"
#include "base/clock.h"
#include "review/tell/send_check.h"

#include <algorithm>

namespace jg {

namespace {

double secondsSaid(const Review& review) {
    double seconds = 0;
    for (const auto& [stop, take] : review.takes) seconds += take.seconds();
    return seconds;
}

void fillFrom(const ReviewSession& session, ReadyLetter& letter) {
    letter.athlete = session.athlete().fullName();
    letter.corrections = session.review().plan.corrections.size();
    letter.saidSeconds = secondsSaid(session.review());
    for (const SendProblem& p : problemsOf(session)) {
        if (!p.stop)
            letter.think.push_back(p.text);
        else if (letter.notYet.empty())
            letter.notYet = p.text;
    }
    const auto to = recipientFor(session.athlete(), session.clock().today());
    if (!to) {
        if (letter.notYet.empty()) letter.notYet = to.error().text;
        return;
    }
    letter.toName = to->name;
    letter.toAddress = to->email;
    letter.toGuardian = to->guardian;
}

} // namespace

Result<std::vector<ReadyLetter>> readyLetters(Library& library, const Playbook& playbook,
                                              const Clock& clock) {
    auto reviews = library.reviews();
    if (!reviews) return reviews.error();
    std::erase_if(*reviews, [](const ReviewSummary& r) { return r.sent || r.stage != Stage::Send; });
    std::stable_sort(reviews->begin(), reviews->end(),
                     [](const ReviewSummary& a, const ReviewSummary& b) { return a.date < b.date; });
    std::vector<ReadyLetter> all;
    IdSource ids;
    for (const ReviewSummary& r : *reviews) {
        ReadyLetter letter;
        letter.review = r.id;
        letter.submission = r.submission;
        letter.date = r.date;
        auto session = ReviewSession::open(library, playbook, clock, ids, r.id);
        if (session)
            fillFrom(**session, letter);
        else
            letter.notYet = session.error().text;
        if (auto may = library.mayHandOver(r.id, clock.nowUnix(), Repeat::Never);
            !may && letter.notYet.empty())
            letter.notYet = may.error().text;
        all.push_back(std::move(letter));
    }
    return all;
}

std::vector<SentLetter> sendAll(Library& library, const Playbook& playbook,
                                const std::vector<ReadyLetter>& letters, SendOrder order, const Clock& clock,
                                IdSource& ids, std::stop_token stop, const SendAllProgress& progress) {
    std::vector<SentLetter> all;
    for (std::size_t i = 0; i < letters.size() && !stop.stop_requested(); ++i) {
        const ReadyLetter& letter = letters[i];
        const auto send = [&]() -> Status {
            auto session = ReviewSession::open(library, playbook, clock, ids, letter.review);
            if (!session) return session.error();
            auto recipe = dispatchRecipe(**session);
            if (!recipe) return recipe.error();
            // What was looked at is what goes out.
            if (recipe->toAddress != letter.toAddress)
                return fail(ErrorCode::Refused, msg("ready.other-address", {{"address", recipe->toAddress}}));
            auto sent =
                sendLetter(library, *recipe, order, clock, ids, stop, [&](SendStep step, double part) {
                    if (progress) progress(i, step, part);
                });
            return sent ? Status(Done{}) : Status(sent.error());
        };
        all.push_back({letter.review, letter.athlete, caught(send)});
        order.takeBackS = 0;
    }
    return all;
}

} // namespace jg
