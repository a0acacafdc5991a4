// The measure catalogue: what each number is, where it is taken and from which points.
#pragma once

#include "base/result.h"
#include "kinematics/anatomy.h"

#include <string>
#include <string_view>
#include <vector>

namespace jg {

/// The kinds of formula a measure can have.
enum class MeasureKind {
    JointAngle,    ///< points a, vertex, b: interior angle, degrees
    Tilt,          ///< points low, high: from vertical, + toward the target, degrees
    AboveLine,     ///< points a, vertex, b: b above the line a-vertex drawn on, degrees
    AboveLevel,    ///< points near, far: far end above horizontal, degrees
    OffLine,       ///< points line a, line b, then others: the larger distance from the line, % of height
    Fall,          ///< points before, after: how far it went down, % of height
    Distance,      ///< points a, b: % of height, or inches with a scale
    ChangeOfAngle, ///< points a, vertex, b at one moment and again at another: second minus first, degrees
    TimeBetween,   ///< two moments: milliseconds from the first to the second
};

/// One point a formula needs: a landmark at a moment.
struct Slot {
    std::string name; ///< short name within the measure, "knee"
    Landmark landmark;
    Moment at;
};

/// One measure. Immutable after loading.
struct MeasureDefinition {
    std::string id;
    std::string name;
    std::string shortName;
    std::string group; ///< lower | trunk | arm | timing
    MeasureKind kind = MeasureKind::JointAngle;
    std::string unit; ///< deg | % | ms
    std::vector<Slot> slots;
    std::vector<Moment> moments; ///< positions it is taken at; for TimeBetween the two moments
    std::vector<View> views;     ///< views that can see it
    std::string formula;
    std::string hint; ///< sign or meaning of the number, "180 = straight"
    std::string source;
    bool protectsArm = false;
    std::string plainly; ///< the number in words for the player; {value} {error} {target} are replaced

    bool seenFrom(View view) const;
    bool needsHeight() const;
    bool isAngle() const;
};

/// Reads the measures of a playbook file. Errors: BadInput naming the row and field.
Result<std::vector<MeasureDefinition>> parseMeasures(std::string_view json);

const MeasureDefinition* findMeasure(const std::vector<MeasureDefinition>& all, std::string_view id);

} // namespace jg
