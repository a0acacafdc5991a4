// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/record/conditions.h"

#include "base/number.h"
#include "kinematics/unit_words.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace jg {

namespace {

template <typename E>
struct Named {
    E value;
    std::string_view id;
};

constexpr std::array kStarts = {Named<Start>{Start::Unknown, ""}, Named<Start>{Start::WindUp, "wind-up"},
                                Named<Start>{Start::Stretch, "stretch"}};
constexpr std::array kSurfaces = {Named<Surface>{Surface::Unknown, ""},
                                  Named<Surface>{Surface::Mound, "mound"},
                                  Named<Surface>{Surface::FlatGround, "flat ground"}};
constexpr std::array kPitches = {
    Named<PitchType>{PitchType::Unknown, ""},          Named<PitchType>{PitchType::Fastball, "fastball"},
    Named<PitchType>{PitchType::Changeup, "changeup"}, Named<PitchType>{PitchType::Curveball, "curveball"},
    Named<PitchType>{PitchType::Slider, "slider"},     Named<PitchType>{PitchType::Other, "other"}};
constexpr std::array kWents = {Named<Went>{Went::Unknown, ""},
                               Named<Went>{Went::Target, "target"},
                               Named<Went>{Went::High, "high"},
                               Named<Went>{Went::Low, "low"},
                               Named<Went>{Went::ArmSide, "arm-side"},
                               Named<Went>{Went::GloveSide, "glove-side"},
                               Named<Went>{Went::HighArmSide, "high-arm-side"},
                               Named<Went>{Went::HighGloveSide, "high-glove-side"},
                               Named<Went>{Went::LowArmSide, "low-arm-side"},
                               Named<Went>{Went::LowGloveSide, "low-glove-side"}};

template <typename Table, typename E>
const auto& rowOf(const Table& table, E value) {
    return table.at(static_cast<std::size_t>(value));
}

template <typename E, std::size_t N>
std::optional<E> fromId(const std::array<Named<E>, N>& table, std::string_view id) {
    const auto it = std::find_if(table.begin(), table.end(), [&](const auto& row) { return row.id == id; });
    return it == table.end() ? std::nullopt : std::optional(it->value);
}

template <typename E, std::size_t N>
std::vector<E> valuesOf(const std::array<Named<E>, N>& table) {
    std::vector<E> all;
    for (const auto& row : table) all.push_back(row.value);
    return all;
}

Message nameIn(const char* kind, std::string_view id) {
    if (id.empty()) return msg("condition.unknown");
    std::string key(id);
    std::replace(key.begin(), key.end(), ' ', '-');
    return msg(std::string("condition.") + kind + "." + key);
}

template <typename E>
bool sameWhereKnown(E a, E b) {
    return a == b || a == E::Unknown || b == E::Unknown;
}

} // namespace

std::string_view idOf(Start v) {
    return rowOf(kStarts, v).id;
}
std::string_view idOf(Surface v) {
    return rowOf(kSurfaces, v).id;
}
std::string_view idOf(PitchType v) {
    return rowOf(kPitches, v).id;
}
std::string_view idOf(Went v) {
    return rowOf(kWents, v).id;
}
std::optional<Start> startFromId(std::string_view id) {
    return fromId(kStarts, id);
}
std::optional<Surface> surfaceFromId(std::string_view id) {
    return fromId(kSurfaces, id);
}
std::optional<PitchType> pitchTypeFromId(std::string_view id) {
    return fromId(kPitches, id);
}
std::optional<Went> wentFromId(std::string_view id) {
    return fromId(kWents, id);
}
Message nameOf(Start v) {
    return nameIn("start", idOf(v));
}
Message nameOf(Surface v) {
    return nameIn("surface", idOf(v));
}
Message nameOf(PitchType v) {
    return nameIn("pitch", idOf(v));
}
Message nameOf(Went v) {
    return nameIn("went", idOf(v));
}

const std::vector<Start>& allStarts() {
    static const auto all = valuesOf(kStarts);
    return all;
}
const std::vector<Surface>& allSurfaces() {
    static const auto all = valuesOf(kSurfaces);
    return all;
}
const std::vector<PitchType>& allPitchTypes() {
    static const auto all = valuesOf(kPitches);
    return all;
}
const std::vector<Went>& allWents() {
    static const auto all = valuesOf(kWents);
    return all;
}

bool alike(const Conditions& a, const Conditions& b) {
    return sameWhereKnown(a.start, b.start) && sameWhereKnown(a.surface, b.surface) &&
           sameWhereKnown(a.pitch, b.pitch);
}

namespace {
constexpr double kMpsOfMph = 0.44704, kMpsOfKmh = 1 / 3.6;
constexpr double kFastestMps = 60; ///< own choice: no arm throws faster
} // namespace

std::optional<double> speedFromWords(std::string_view words) {
    static const std::pair<std::string_view, double> units[] = {
        {"mph", kMpsOfMph}, {"km/h", kMpsOfKmh}, {"kmh", kMpsOfKmh}, {"kph", kMpsOfKmh}, {"m/s", 1.0}};
    const auto end = words.find_last_not_of(" \t");
    words = words.substr(0, end == std::string_view::npos ? 0 : end + 1);
    for (const auto& [unit, mps] : units) {
        if (!words.ends_with(unit)) continue;
        const auto value = typedNumber(words.substr(0, words.size() - unit.size()));
        if (value && *value > 0 && *value * mps <= kFastestMps) return *value * mps;
        return std::nullopt;
    }
    return std::nullopt;
}

Message speedInWords(double mps) {
    return withUnit(trimmed(std::round(mps / kMpsOfMph * 10) / 10), "mph");
}

} // namespace jg
