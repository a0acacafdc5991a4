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

Message trialInWords(const Trial& t) {
    constexpr double kTold = 0.5; // of a unit: less is not shown anywhere
    const Message lean = std::abs(t.lean) < kTold
                             ? Message{}
                             : msg(t.lean < 0 ? "trial.low" : "trial.high", {{"lean", by(t.lean, t.unit)}});
    return joined(ListStyle::Sentences, {msg(t.keepsItsPromise() ? "trial.held" : "trial.held-less",
                                             {{"held", std::lround(t.heldPercent)}}),
                                         lean, inSpaceInWords(t)});
}

Message triedInWords(const Playbook& playbook, const MeasureDefinition& measure,
                     const DeliveryMarks& delivery, double captureFps) {
    if (const Trial* trial = trialOf(playbook, measure.id, delivery, captureFps))
        return trial->keepsItsPromise() ? trialInWords(*trial) : Message{};
    const bool toBeTried = measure.hasPoints() && delivery.turn && captureFps > 0;
    return toBeTried ? msg("trial.untried") : Message{};
}

} // namespace jg
