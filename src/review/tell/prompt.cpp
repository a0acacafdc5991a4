// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/tell/prompt.h"

#include "review/record/read_by.h"
#include "review/tell/letter_model.h"

#include <algorithm>

namespace jg {

namespace {

/// The recap: what is worked on, and when it is looked at again.
void fillRecap(const Review& review, const Playbook& playbook, const Assessment& a, Prompt& prompt) {
    std::vector<Message> goals;
    for (const std::string& id : review.plan.corrections)
        if (playbook.isFinding(id)) goals.push_back(asIs(goalOf(playbook, a, id)));
    if (!goals.empty())
        prompt.number = msg("prompt.recap", {{"goals", joined(ListStyle::And, std::move(goals))}});
    if (review.plan.nextLook) prompt.feel = msg("letter.next-look", {{"date", *review.plan.nextLook}});
}

Message nextAfter(const Review& review, const Stop& stop) {
    const auto at = std::find_if(review.stops.begin(), review.stops.end(),
                                 [&](const Stop& s) { return s.id == stop.id; });
    return at == review.stops.end() || at + 1 == review.stops.end() ? Message{} : asIs((at + 1)->title);
}

} // namespace

std::vector<Message> Prompt::sentences() const {
    std::vector<Message> all;
    for (const Message* m : {&number, &change, &why, &feel})
        if (!m->empty()) all.push_back(*m);
    return all;
}

Prompt promptFor(const Review& review, const Playbook& playbook, const Assessment& a, const Stop& stop,
                 const ReadBy& by) {
    Prompt prompt;
    prompt.what = asIs(stop.title);
    prompt.next = nextAfter(review, stop);
    if (stop.kind == StopKind::Recap) {
        fillRecap(review, playbook, a, prompt);
    } else if (!playbook.isFinding(stop.finding)) {
        return prompt; // a stop of the coach's own has their words alone
    } else if (stop.kind == StopKind::Strength) {
        prompt.number = keepLine(a, playbook, stop.finding, by);
    } else {
        const LetterCorrection c = correctionOf(review, playbook, a, stop.finding, by);
        prompt.number = c.number;
        prompt.why = c.why;
        prompt.feel = c.feel;
    }
    return prompt;
}

} // namespace jg
