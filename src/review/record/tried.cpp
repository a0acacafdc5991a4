// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/record/tried.h"

#include "kinematics/unit_words.h"

#include <cmath>

namespace jg {

const Trial* trialOf(const Playbook& playbook, const std::string& measure, const DeliveryMarks& delivery,
                     double captureFps) {
    if (!delivery.turn || captureFps <= 0) return nullptr;
    return playbook.trials.of({delivery.turn->deg != 0, captureFps >= kFastFps}, measure);
}

namespace {

Message by(double much, const std::string& unit) {
    return withUnit(Decimal{std::abs(much), 1}, unit);
}

/// "1.3 % low", "0.7 to 2.1\u00b0 high", or how far to either side.
Message farInWords(const Trial& t) {
    if (!t.leans()) return {};
    const double least = t.leastLean, most = t.mostLean;
    if (least < 0 && most > 0)
        return msg("trial.either", {{"low", by(least, t.unit)}, {"high", by(most, t.unit)}});
    const bool low = most <= 0;
    const double far = low ? least : most, near = std::abs(low ? most : least);
    if (std::lround(10 * near) == std::lround(10 * std::abs(far)))
        return msg(low ? "trial.low" : "trial.high", {{"lean", by(far, t.unit)}});
    return msg(low ? "trial.low-between" : "trial.high-between",
               {{"from", Decimal{near, 1}}, {"to", by(far, t.unit)}});
}

/// One of two by its sign; nothing where there is none.
Message spaceInWords(const Trial& t, const char* smaller, const char* larger) {
    return t.inSpace == 0 ? Message{}
                          : msg(t.inSpace < 0 ? smaller : larger, {{"by", by(t.inSpace, t.unit)}});
}

/// A sentence of what there is to say.
Message sentence(const char* how, const Message& what) {
    return what.empty() ? Message{} : msg(how, {{"what", what}});
}

} // namespace

Message leanInShort(const Trial& t) {
    return sentence(
        "trial.on-made",
        joined(ListStyle::Commas, {farInWords(t), spaceInWords(t, "trial.and-smaller", "trial.and-larger")}));
}

Message trialInWords(const Trial& t) {
    return joined(ListStyle::Sentences, {msg(t.keepsItsPromise() ? "trial.held" : "trial.held-less",
                                             {{"held", std::lround(t.heldPercent)}}),
                                         sentence("trial.read", farInWords(t)),
                                         spaceInWords(t, "trial.space-smaller", "trial.space-larger")});
}

Message triedInWords(const Playbook& playbook, const MeasureDefinition& measure,
                     const DeliveryMarks& delivery, double captureFps) {
    if (const Trial* trial = trialOf(playbook, measure.id, delivery, captureFps))
        return trial->keepsItsPromise() ? trialInWords(*trial) : Message{};
    const bool toBeTried = measure.hasPoints() && delivery.turn && captureFps > 0;
    return toBeTried ? msg("trial.untried") : Message{};
}

} // namespace jg
