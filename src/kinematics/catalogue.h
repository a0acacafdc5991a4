// SPDX-License-Identifier: GPL-3.0-or-later
// The measure catalogue: what each number is, where it is taken and from which points.
#pragma once

#include "base/result.h"
#include "kinematics/anatomy.h"

#include <map>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace jg {

/// The kinds of formula a measure can have.
enum class MeasureKind {
    JointAngle,      ///< points a, vertex, b: interior angle, degrees
    LineToLine,      ///< points a, b, c, d: angle between the lines a to b and c to d, 0..180 degrees
    Tilt,            ///< points low, high: from vertical, + toward the target, degrees
    TiltAcross,      ///< points low, high: from vertical, + toward the glove side, degrees
    AboveLine,       ///< points a, vertex, b: b above the line a-vertex drawn on, degrees
    AboveLevel,      ///< points near, far: far end above horizontal, degrees
    Direction,       ///< points before, after: way of a path, 0 = straight to the target, 90 = up, degrees
    ChangeOfAngle,   ///< points a, vertex, b and again: second angle minus first, degrees
    ChangeOfSlope,   ///< points a, b and again: turn of the line, + = its far end rises, degrees
    OffLine,         ///< points line a, line b, then others: the larger distance from the line, % of height
    Fall,            ///< points before, after: how far it went down, % of height
    FallAgainst,     ///< points before, after and of another: fall of the first less that of the other, % of
                     ///< height
    Above,           ///< points from, to: how far `to` is above, % of height
    Ahead,           ///< points from, to: how far `to` is nearer the target, % of height
    ShareAhead,      ///< points from, at, to: way toward the target from `from` to `at` over that to `to`, %
    Across,          ///< points from, to: how far `to` is on the glove side, % of height
    AcrossOf,        ///< points from, to, a, b: how far `to` is on the glove side, % of the length a to b
    Distance,        ///< points a, b: % of height, or inches with a scale
    Ratio,           ///< points a, b, c, d: length a to b over length c to d
    ForwardDown,     ///< points before, after: way to the target over the fall
    TurnSide,        ///< points a, b and again square to the camera: turn seen from the side, degrees
    TurnFront,       ///< the same seen from the front or behind
    TurnFrontSigned, ///< heel, toe and again at set: as TurnFront, + on the side the toe lies on at set
    TurnBetween,     ///< two turns as TurnSide, eight points: first minus second, degrees
    TimeBetween,     ///< two moments: milliseconds from the first to the second
    FrameCount,      ///< two moments: frames from the first up to the second, while something holds
    Seen,            ///< one of `options`, as the coach sees it
    Spin,            ///< two moments and the number "turns": revolutions a minute
    ReleaseInstant,  ///< ball and wrist at release and on the two frames after: ms from release to parting
    LooksLike,       ///< numbers "speed", "distance", "usual": the speed the batter feels
    BallSpeed,       ///< two moments and the number "way" in feet: mean speed of the ball on it, mph
    BallTurns,       ///< three moments and the number "turns": turns between the first and the third
};

/// A part of the catalogue.
struct MeasureGroup {
    std::string_view id; ///< "lower"

    Message name() const { return msg("group." + std::string(id)); } ///< "Lower body"
};
/// All groups in the order of the body, then timing and the coach's own.
std::span<const MeasureGroup> measureGroups();
/// A group's place in that order; behind all for one that is none.
std::size_t placeInBody(std::string_view group);
/// "Lower body"; empty for one that is none.
Message nameOfGroup(std::string_view group);

/// One point a formula needs: a landmark at a moment.
struct Slot {
    std::string name; ///< short name within the measure, "knee"
    Landmark landmark;
    Moment at;
    int frames = 0; ///< so many frames after the moment
};

/// One measure. Immutable after loading.
struct MeasureDefinition {
    std::string id;
    std::string name;
    std::string shortName;
    std::string group; ///< id of one of measureGroups()
    MeasureKind kind = MeasureKind::JointAngle;
    std::string unit; ///< deg | % | in | x | ms | frames | rpm | mph | seen
    std::vector<Slot> slots;
    std::vector<Moment> moments; ///< positions it is taken at; for TimeBetween and FrameCount the two moments
    std::vector<View> views;     ///< views that can see it
    std::string formula;
    std::string hint; ///< sign or meaning of the number, "180 = straight"
    std::string source;
    std::string unreliable; ///< what makes it so, in a sentence
    int sign = 1;           ///< the formula is multiplied by it
    /// A joint's angle is told on the target's side and may pass 180; a slope counts from level behind, away
    /// from the target, and may pass 90.
    bool pastStraight = false;
    std::vector<std::string> options; ///< of Seen
    std::vector<std::string> numbers; ///< that the coach types in
    bool protectsArm = false;
    std::string goalUp, goalDown; ///< what a correction is called: the number is to rise, to fall
    std::string goal;             ///< the same of what is seen
    std::string feelUp,
        feelDown;        ///< how it feels to do that, in a short sentence to the player; may be empty
    std::string feel;    ///< the same of what is seen
    std::string plainly; ///< the number in words for the player; {value} {error} {target} are replaced
    std::string
        plainlyOther; ///< the same for a number below zero, which is told without its sign; may be empty

    /// What is good when it is so and what that does, to the player: by "low", "high" or "within" as the
    /// number is wanted, or by the answer of what is seen.
    std::map<std::string, std::string> praise;

    bool seenFrom(View view) const;
    /// True for a number that is off below or above what is wanted, and is told so; false for what is seen,
    /// and where both ways ask for one thing.
    bool hasSides() const { return kind != MeasureKind::Seen && goalUp != goalDown; }
    /// The moment at which it is read. Set only lends others a width.
    Moment shownAt() const;
    bool needsHeight() const; ///< its number is a part of the height
    bool needsLevel() const;  ///< its number changes with the camera's roll
    bool isAngle() const;
    /// False for times, what is seen, and what is typed in.
    bool hasPoints() const;
};

/// Reads the measures of a playbook file. Errors: BadInput naming the row and field.
Result<std::vector<MeasureDefinition>> parseMeasures(std::string_view json);

const MeasureDefinition* findMeasure(const std::vector<MeasureDefinition>& all, std::string_view id);

} // namespace jg
