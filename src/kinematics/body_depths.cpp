#include "kinematics/body_depths.h"

#include <nlohmann/json.hpp>

#include <stdexcept>

namespace jg {

using nlohmann::json;

Result<BodyDepths> BodyDepths::parse(std::string_view text) {
    BodyDepths depths;
    std::string at = "the file";
    try {
        const json document = json::parse(text);
        for (const auto& [momentId, landmarks] : document.at("depths").items()) {
            for (const auto& [landmarkId, row] : landmarks.items()) {
                at = momentId + ", " + landmarkId;
                const auto moment = momentFromId(momentId);
                const auto landmark = landmarkFromId(landmarkId);
                if (!moment || !landmark || row.size() != 6)
                    throw std::invalid_argument("it is not understood");
                depths.rows_[{*moment, *landmark}] = {{row[0], row[1], row[2]}, {row[3], row[4], row[5]}};
            }
        }
    } catch (const std::exception& e) {
        return fail(ErrorCode::BadInput, "The body's depths can't be read, at " + at + ": " + e.what() + ".");
    }
    return depths;
}

std::optional<Depth> BodyDepths::toward(View view, Moment moment, Landmark landmark) const {
    const auto it = rows_.find({moment, landmark});
    if (it == rows_.end()) return std::nullopt;
    const Depth& e = isSideView(view) ? it->second.open : it->second.front;
    const double sign = view == View::Closed || view == View::Rear ? -1 : 1;
    return Depth{sign * e.value, e.sd, sign * e.together};
}

void BodyDepths::fill(const MeasureDefinition& m, MeasureInput& in) const {
    for (const Slot& slot : m.slots)
        if (const auto depth = toward(in.view, slot.at, slot.landmark)) in.depths[slot.name] = *depth;
    if (const auto set = toward(in.view, Moment::Set, Landmark::Pelvis))
        in.heightDepth = {set->value, set->sd};
}

} // namespace jg
