// SPDX-License-Identifier: GPL-3.0-or-later
#include "kinematics/body_depths.h"

#include "base/document.h"
#include "base/unfit.h"

#include <nlohmann/json.hpp>

namespace jg {

using nlohmann::json;

namespace {

Depth depthFrom(const json& row) {
    if (row.size() < 2) throw Unfit(msg("unfit.not-understood"));
    return {row[0], row[1], {row.begin() + 2, row.end()}};
}

Estimate speedFrom(const json& row) {
    return {row.at(0), row.at(1)};
}

Depth fromBehind(Depth depth) {
    depth.value = -depth.value;
    for (double& part : depth.shared) part = -part;
    return depth;
}

} // namespace

Result<BodyDepths> BodyDepths::parse(std::string_view text) {
    BodyDepths depths;
    Message at = msg("playbook.the-file");
    const auto eachRow = [&](const json& table, std::size_t columns, const auto& take) {
        for (const auto& [momentId, landmarks] : table.items())
            for (const auto& [landmarkId, row] : landmarks.items()) {
                at = asIs(momentId + ", " + landmarkId);
                const auto moment = momentFromId(momentId);
                const auto landmark = landmarkFromId(landmarkId);
                if (!moment || !landmark || row.size() != columns) throw Unfit(msg("unfit.not-understood"));
                take(Key{*moment, *landmark}, row);
            }
    };
    try {
        const json document = parseDocument(text);
        eachRow(document.at("depths"), 2, [&](const Key& joint, const json& row) {
            depths.rows_[joint] = {depthFrom(row[0]), depthFrom(row[1])};
        });
        eachRow(document.value("speeds", json::object()), 2, [&](const Key& joint, const json& row) {
            depths.speeds_[joint] = {speedFrom(row[0]), speedFrom(row[1])};
        });
        eachRow(document.value("velocities", json::object()), 3, [&](const Key& joint, const json& row) {
            depths.velocities_[joint] = {speedFrom(row[0]), speedFrom(row[1]), speedFrom(row[2])};
        });
    } catch (const std::exception& e) {
        return fail(ErrorCode::BadInput,
                    msg("playbook.depths-unreadable", {{"place", at}, {"why", whyUnfit(e)}}));
    }
    return depths;
}

std::optional<Depth> BodyDepths::toward(View view, Moment moment, Landmark landmark) const {
    const auto it = rows_.find({moment, landmark});
    if (it == rows_.end()) return std::nullopt;
    const Depth& e = isSideView(view) ? it->second.open : it->second.front;
    return view == View::Closed || view == View::Rear ? fromBehind(e) : e;
}

Depth BodyDepths::later(Depth depth, View view, const Key& joint, double seconds) const {
    const auto it = speeds_.find(joint);
    if (it == speeds_.end()) return depth;
    const Estimate& speed = isSideView(view) ? it->second.open : it->second.front;
    const double way = view == View::Closed || view == View::Rear ? -seconds : seconds;
    depth.value += speed.value * way;
    depth.drift = speed.sd * way;
    return depth;
}

void BodyDepths::fillMotions(const MeasureDefinition& m, MeasureInput& in) const {
    if (m.kind == MeasureKind::ReleaseInstant) return;
    for (const Slot& slot : m.slots) {
        const auto it = velocities_.find({slot.at, slot.landmark});
        if (it == velocities_.end()) continue;
        const auto& [toTarget, up, toThird] = it->second;
        in.motions[slot.name] = {isSideView(in.view) ? toTarget : Estimate{-toThird.value, toThird.sd}, up};
    }
}

void BodyDepths::fill(const MeasureDefinition& m, MeasureInput& in) const {
    for (const Slot& slot : m.slots)
        if (const auto depth = toward(in.view, slot.at, slot.landmark))
            in.depths[slot.name] = later(*depth, in.view, {slot.at, slot.landmark},
                                         in.captureFps > 0 ? slot.frames / in.captureFps : 0);
    if (const auto set = toward(in.view, Moment::Set, Landmark::Pelvis)) in.heightDepth = *set;
}

} // namespace jg
