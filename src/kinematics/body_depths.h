// How far the parts of a body lie before or behind the plane it throws in: what a single picture can't show.
#pragma once

#include "base/result.h"
#include "kinematics/measure.h"

#include <map>
#include <string_view>

namespace jg {

/// Depths of a right-hander's landmarks by moment, in standing heights: toward a camera that stands square at
/// the open side, and toward one at the plate. From generated bodies (own choice); data/playbook/depths.json.
class BodyDepths {
public:
    /// Errors: BadInput naming the row.
    static Result<BodyDepths> parse(std::string_view json);

    /// Toward a square camera of this view. Nothing when the table does not know the pair.
    std::optional<Depth> toward(View view, Moment moment, Landmark landmark) const;
    /// Fills depths of all a measure's points, and of the body at Set, where its height is taken.
    void fill(const MeasureDefinition& measure, MeasureInput& input) const;

private:
    struct Row {
        Depth open, front;
    };
    std::map<std::pair<Moment, Landmark>, Row> rows_;
};

} // namespace jg
