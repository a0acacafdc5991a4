#include "review/tried.h"

#include "kinematics/unit_words.h"

#include <cmath>

namespace jg {

const Trial* trialOf(const Playbook& playbook, const std::string& measure, const DeliveryMarks& delivery,
                     const Clip& clip) {
    if (!delivery.turn || clip.captureFps <= 0) return nullptr;
    return playbook.trials.of({delivery.turn->deg != 0, clip.captureFps >= kFastFps}, measure);
}

Message trialInWords(const Trial& trial) {
    constexpr double kTold = 0.5; // of a unit: less is not shown anywhere
    const Message held = msg(trial.keepsItsPromise() ? "trial.held" : "trial.held-less",
                             {{"held", std::lround(trial.heldPercent)}});
    const auto by = [&](double much) { return withUnit(Decimal{std::abs(much), 1}, trial.unit); };
    std::vector<Message> all = {held};
    if (std::abs(trial.lean) >= kTold)
        all.push_back(msg(trial.lean < 0 ? "trial.low" : "trial.high", {{"lean", by(trial.lean)}}));
    if (trial.inSpace != 0)
        all.push_back(msg(trial.inSpace < 0 ? "trial.space-smaller" : "trial.space-larger",
                          {{"by", by(trial.inSpace)}}));
    return joined(ListStyle::Sentences, std::move(all));
}

} // namespace jg
