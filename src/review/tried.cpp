#include "review/tried.h"

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

} // namespace

Message inSpaceInWords(const Trial& t) {
    if (t.inSpace == 0) return {};
    return msg(t.inSpace < 0 ? "trial.space-smaller" : "trial.space-larger", {{"by", by(t.inSpace, t.unit)}});
}

namespace {

/// "It read 1.3 % low.", "It read 0.7 to 2.1\u00b0 high.", or how far to either side.
Message leanInWords(const Trial& t) {
    if (!t.leans()) return {};
    const double least = t.leastLean, most = t.mostLean;
    if (least < 0 && most > 0)
        return msg("trial.either", {{"low", by(least, t.unit)}, {"high", by(most, t.unit)}});
    const bool low = most <= 0;
    const double far = low ? least : most;
    const double near = std::abs(low ? most : least);
    if (std::lround(10 * near) == std::lround(10 * std::abs(far)))
        return msg(low ? "trial.low" : "trial.high", {{"lean", by(far, t.unit)}});
    return msg(low ? "trial.low-between" : "trial.high-between",
               {{"from", Decimal{near, 1}}, {"to", by(far, t.unit)}});
}

} // namespace

Message trialInWords(const Trial& t) {
    return joined(ListStyle::Sentences, {msg(t.keepsItsPromise() ? "trial.held" : "trial.held-less",
                                             {{"held", std::lround(t.heldPercent)}}),
                                         leanInWords(t), inSpaceInWords(t)});
}

Message triedInWords(const Playbook& playbook, const MeasureDefinition& measure,
                     const DeliveryMarks& delivery, double captureFps) {
    if (const Trial* trial = trialOf(playbook, measure.id, delivery, captureFps))
        return trial->keepsItsPromise() ? trialInWords(*trial) : Message{};
    const bool toBeTried = measure.hasPoints() && delivery.turn && captureFps > 0;
    return toBeTried ? msg("trial.untried") : Message{};
}

} // namespace jg
