// SPDX-License-Identifier: GPL-3.0-or-later
// Under which conditions one delivery was thrown, and what became of it.
#pragma once

#include "base/message.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace jg {

enum class Start { Unknown, WindUp, Stretch };
enum class Surface { Unknown, Mound, FlatGround };
enum class PitchType { Unknown, Fastball, Changeup, Curveball, Slider, Other };
/// Where the ball went, told from the thrower: the arm side is that of the throwing hand.
enum class Went {
    Unknown,
    Target,
    High,
    Low,
    ArmSide,
    GloveSide,
    HighArmSide,
    HighGloveSide,
    LowArmSide,
    LowGloveSide
};

/// One delivery's conditions. Everything may be unknown.
struct Conditions {
    Start start = Start::Unknown;
    Surface surface = Surface::Unknown;
    PitchType pitch = PitchType::Unknown;
    std::optional<int> numberInOuting; ///< 1 = the first pitch of the outing
    std::optional<double> speedMps;    ///< entered from a radar, metres a second
    Went went = Went::Unknown;
    std::string tried; ///< what the athlete tried, in the coach's words
    bool operator==(const Conditions&) const = default;
};

/// Ids as they are stored; never shown.
std::string_view idOf(Start start);
std::string_view idOf(Surface surface);
std::string_view idOf(PitchType pitch);
std::string_view idOf(Went went);
std::optional<Start> startFromId(std::string_view id);
std::optional<Surface> surfaceFromId(std::string_view id);
std::optional<PitchType> pitchTypeFromId(std::string_view id);
std::optional<Went> wentFromId(std::string_view id);

/// Names for the coach, as they stand in a list: "wind-up", "flat ground", "fastball", "high, arm side".
Message nameOf(Start start);
Message nameOf(Surface surface);
Message nameOf(PitchType pitch);
Message nameOf(Went went);

/// Every value, in the order of the enum; for choices.
const std::vector<Start>& allStarts();
const std::vector<Surface>& allSurfaces();
const std::vector<PitchType>& allPitchTypes();
const std::vector<Went>& allWents();

/// Whether two deliveries were thrown alike: start, surface and pitch are the same where both are known.
/// Like is compared with like (common practice, no source).
bool alike(const Conditions& a, const Conditions& b);

/// A radar's speed as a person types it: "84 mph", "135 km/h", "37.5 m/s". Metres a second; nothing when it
/// is none, or has no unit.
std::optional<double> speedFromWords(std::string_view words);
/// "84 mph", to a tenth.
Message speedInWords(double mps);

} // namespace jg
