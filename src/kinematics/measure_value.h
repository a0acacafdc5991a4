// SPDX-License-Identifier: GPL-3.0-or-later
// What a measure is computed from, and the number with its error or the reason why there is none.
#pragma once

#include "kinematics/catalogue.h"
#include "kinematics/estimate.h"
#include "kinematics/point.h"
#include "kinematics/scale.h"

#include <cstdint>
#include <map>
#include <optional>
#include <string>
#include <vector>

namespace jg {

/// Why a measure has a number, or has none. All distinct; none is silent.
enum class MeasureState { NotLookedAt, Measured, NotVisible, NotApplicable };

std::string_view idOf(MeasureState state);

/// A limb that looks shorter than it is: its length in this picture over the longest it shows in the clip.
struct LimbTurn {
    Landmark from, to;
    Moment at;
    Estimate ratio;
    Moment longestAt = Moment::Set; ///< where it shows its length
};

/// Where the camera stood, as far as it is known.
struct CameraPlace {
    ImagePoint centre;        ///< of the picture
    Estimate distance;        ///< from the athlete, in standing heights
    Estimate pitchDeg;        ///< how far it looks down
    ImagePoint standing = {}; ///< middle of the body where its height was taken, at Set
};

/// How far a point lies toward a square camera, in standing heights. Bodies differ in a few ways that move
/// many points at once: `shared` is the part of `sd` by each of these ways, its sign the direction; the rest
/// is the point's own. `drift` is what a joint's unknown speed adds on frames after its moment.
struct Depth {
    double value = 0, sd = 0;
    std::vector<double> shared = {};
    double drift = 0;
};

/// How fast a joint moves in the plane of the picture, in standing heights a second, with how bodies differ.
struct Motion {
    Estimate along, up; ///< along: toward the target (side views) or the glove side
};

/// Covariance of two different points' depths: how far they lie nearer or farther together.
double covariance(const Depth& a, const Depth& b);

/// Everything a formula may need. Points are keyed by slot name; frames by moment.
struct MeasureInput {
    std::map<std::string, ClickedPoint> points;
    std::map<Moment, std::int64_t> frames;
    double captureFps = 0; ///< captured frames a second; 0 = unknown
    Hand hand = Hand::Right;
    View view = View::Open;
    Estimate rollDeg;    ///< how far the picture's level is turned clockwise; {0, 0} = taken as level
    Message levelBy;     ///< what the level is taken from, when it is no plumb or level line
    Estimate yawDeg;     ///< turned from square toward the target (side views) or the glove side
    bool yawSaid = true; ///< false: nobody said how the camera stood
    Estimate heightPx;   ///< standing height in the picture; value 0 = unknown
    Estimate pxPerM;     ///< scale; value 0 = unknown
    LengthUnit lengths = LengthUnit::Inches; ///< what lengths are told in where a scale is known
    std::optional<CameraPlace> camera;       ///< nothing = perspective and depth are left out
    std::map<std::string, Depth> depths;     ///< by slot
    Depth heightDepth;                       ///< of the body where its height was taken
    std::map<std::string, Motion> motions;   ///< by slot: what a moment taken too early or late does
    std::vector<LimbTurn> limbs;             ///< those known to lie out of the picture's plane
    std::map<std::string, double> numbers;   ///< typed in by the coach
    std::string seen;                        ///< one of the measure's options; empty = not looked at
};

/// The answer. `value` is set only when state is Measured.
struct MeasureValue {
    std::string id;
    std::optional<double> value;
    std::string unit;
    double sd = 0;
    double low95 = 0;
    double high95 = 0;
    MeasureState state = MeasureState::NotLookedAt;
    std::string seen; ///< the option that was seen
    Message words;    ///< the same, or what can be said without a number
    Message reason;   ///< for a state without a value: why, and what to do
    std::vector<Message> warnings;

    double half95() const { return (high95 - low95) / 2; }
};

/// The warning of a number about whose camera's turn nobody said anything.
inline constexpr const char* kTurnUnsaid = "measure.turn-unsaid";

/// An answer without a number: its state, and why.
MeasureValue withoutValue(const MeasureDefinition& measure, MeasureState state, Message reason);

/// An answer with a number and its first-order interval.
MeasureValue withValue(const MeasureDefinition& measure, Estimate value, std::string unit);

} // namespace jg
