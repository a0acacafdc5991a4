// SPDX-License-Identifier: GPL-3.0-or-later
// How far the parts of a body lie before or behind the plane it throws in: what a single picture can't show.
#pragma once

#include "base/result.h"
#include "kinematics/measure.h"

#include <array>
#include <map>
#include <string_view>

namespace jg {

/// Depths of a right-hander's landmarks by moment, in standing heights: toward a camera that stands square at
/// the open side, and toward one at the plate; and how fast they move. From generated bodies (own choice);
/// data/playbook/depths.json.
class BodyDepths {
public:
    /// Errors: BadInput naming the row.
    static Result<BodyDepths> parse(std::string_view json);

    /// Toward a square camera of this view. Nothing when the table does not know the pair.
    std::optional<Depth> toward(View view, Moment moment, Landmark landmark) const;
    /// Fills depths of all a measure's points, and of the body at Set, where its height is taken. On frames
    /// after a moment a joint has moved on, at the speed the table knows.
    void fill(const MeasureDefinition& measure, MeasureInput& input) const;
    /// Fills how fast each of a measure's points moves at its moment. Not where several frames in a row tell
    /// the moment itself.
    void fillMotions(const MeasureDefinition& measure, MeasureInput& input) const;

private:
    using Key = std::pair<Moment, Landmark>;
    struct Row {
        Depth open, front;
    };
    struct Speed {
        Estimate open, front; ///< standing heights a second
    };
    Depth later(Depth depth, View view, const Key& joint, double seconds) const;

    std::map<Key, Row> rows_;
    std::map<Key, Speed> speeds_;
    /// Of a right-hander: toward the target, up, toward third base.
    std::map<Key, std::array<Estimate, 3>> velocities_;
};

} // namespace jg
