#include "kinematics/body_depths.h"

#include <nlohmann/json.hpp>

#include <stdexcept>

namespace jg {

using nlohmann::json;

namespace {

Depth depthFrom(const json& row) {
    if (row.size() < 2) throw std::invalid_argument("it is not understood");
    return {row[0], row[1], {row.begin() + 2, row.end()}};
}

Depth fromBehind(Depth depth) {
    depth.value = -depth.value;
    for (double& part : depth.shared) part = -part;
    return depth;
}

} // namespace

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
                if (!moment || !landmark || row.size() != 2)
                    throw std::invalid_argument("it is not understood");
                depths.rows_[{*moment, *landmark}] = {depthFrom(row[0]), depthFrom(row[1])};
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
    return view == View::Closed || view == View::Rear ? fromBehind(e) : e;
}

void BodyDepths::fill(const MeasureDefinition& m, MeasureInput& in) const {
    for (const Slot& slot : m.slots)
        if (const auto depth = toward(in.view, slot.at, slot.landmark)) in.depths[slot.name] = *depth;
    if (const auto set = toward(in.view, Moment::Set, Landmark::Pelvis)) in.heightDepth = *set;
}

} // namespace jg
