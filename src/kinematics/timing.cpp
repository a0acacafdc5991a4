// SPDX-License-Identifier: GPL-3.0-or-later
#include "kinematics/timing.h"

#include <cmath>

namespace jg {

namespace {

constexpr double kFastestRpm = 3500; ///< of thrown balls, published, from memory

MeasureValue within(const MeasureDefinition& m, double value, double low, double high) {
    MeasureValue result = withoutValue(m, MeasureState::Measured, {});
    result.value = value;
    result.low95 = low;
    result.high95 = high;
    return result;
}

/// Why nothing can be computed yet, or nothing.
std::optional<MeasureValue> missing(const MeasureDefinition& m, const MeasureInput& in) {
    for (const Moment moment : m.moments)
        if (m.kind != MeasureKind::LooksLike && !in.frames.contains(moment))
            return withoutValue(m, MeasureState::NotLookedAt,
                                msg("timing.set-first", {{"position", info(moment).name()}}));
    for (const std::string& name : m.numbers)
        if (!in.numbers.contains(name) || !(in.numbers.at(name) > 0))
            return withoutValue(m, MeasureState::NotLookedAt,
                                msg("timing.enter-first", {{"what", msg("number." + name)}}));
    if (m.kind != MeasureKind::LooksLike && m.kind != MeasureKind::FrameCount && !(in.captureFps > 0))
        return withoutValue(m, MeasureState::NotVisible, msg("timing.no-rate"));
    return std::nullopt;
}

double framesBetween(const MeasureDefinition& m, const MeasureInput& in) {
    return static_cast<double>(in.frames.at(m.moments[1]) - in.frames.at(m.moments[0]));
}

MeasureValue timeBetween(const MeasureDefinition& m, const MeasureInput& in) {
    const double n = m.sign * framesBetween(m, in);
    const double frame = 1000.0 / in.captureFps;
    MeasureValue result = within(m, n * frame, (n - 1) * frame, (n + 1) * frame);
    result.sd = frame / std::sqrt(6.0); // of the sum of two whole-frame roundings
    if (std::abs(n) < 3)
        result.warnings.push_back(msg("timing.too-close", {{"frames", std::lround(std::abs(n))},
                                                           {"rate", in.captureFps < 110 ? 120 : 240}}));
    return result;
}

/// A frame at either end may belong to it or not.
MeasureValue frameCount(const MeasureDefinition& m, const MeasureInput& in) {
    const double n = framesBetween(m, in);
    MeasureValue result = within(m, n, n - 1, n + 1);
    result.sd = 1 / std::sqrt(6.0);
    result.warnings.push_back(msg("timing.one-rate"));
    return result;
}

MeasureValue spin(const MeasureDefinition& m, const MeasureInput& in) {
    const double n = framesBetween(m, in), turns = in.numbers.at("turns");
    if (n < 2) return withoutValue(m, MeasureState::NotLookedAt, msg("timing.two-frames"));
    const double minute = 60 * in.captureFps * turns;
    MeasureValue result = within(m, minute / n, minute / (n + 1), minute / (n - 1));
    result.sd = minute / (n * n) / std::sqrt(6.0);
    // Half a turn a frame looks like half a turn back: whatever was counted, a quicker ball looks slower.
    const double mostTurns = std::max(kFastestRpm / 60, in.captureFps * turns / n);
    if (in.captureFps <= 2 * mostTurns)
        result.warnings.push_back(
            msg("timing.alias", {{"rate", std::lround(std::ceil(2.2 * mostTurns - 1e-9))}}));
    return result;
}

MeasureValue looksLike(const MeasureDefinition& m, const MeasureInput& in) {
    const double speed = in.numbers.at("speed"), distance = in.numbers.at("distance");
    const double value = speed * in.numbers.at("usual") / distance;
    // Own choice: a radar reads to 1 mph and a distance of release to half a foot.
    const double sd = value * std::hypot(0.5 / speed, 0.25 / distance);
    MeasureValue result = within(m, value, value - 1.96 * sd, value + 1.96 * sd);
    result.sd = sd;
    return result;
}

/// The mean over the whole way; a ball leaves the hand quicker and arrives slower.
MeasureValue ballSpeed(const MeasureDefinition& m, const MeasureInput& in) {
    constexpr double kMphOfFeetASecond = 3600.0 / 5280;
    const double n = framesBetween(m, in), way = in.numbers.at("way");
    if (n < 2) return withoutValue(m, MeasureState::NotLookedAt, msg("timing.two-frames"));
    const double perFrame = kMphOfFeetASecond * way * in.captureFps;
    // Own choice: the way from hand to plate is known to half a foot.
    const double ofWay = 0.25 / way, ofTime = 1 / n / std::sqrt(6.0);
    const double value = perFrame / n;
    MeasureValue result =
        within(m, value, perFrame / (n + 1) * (1 - 2 * ofWay), perFrame / (n - 1) * (1 + 2 * ofWay));
    result.sd = value * std::hypot(ofWay, ofTime);
    return result;
}

/// Turns counted between the first two moments, carried on at that rate to the third.
MeasureValue ballTurns(const MeasureDefinition& m, const MeasureInput& in) {
    const double n = framesBetween(m, in);
    const auto whole = static_cast<double>(in.frames.at(m.moments[2]) - in.frames.at(m.moments[0]));
    if (n < 2 || whole < n) return withoutValue(m, MeasureState::NotLookedAt, msg("timing.two-frames"));
    const double turns = in.numbers.at("turns");
    const double value = turns * whole / n;
    MeasureValue result = within(m, value, turns * (whole - 1) / (n + 1), turns * (whole + 1) / (n - 1));
    result.sd = value * std::hypot(1 / n, 1 / whole) / std::sqrt(6.0);
    return result;
}

} // namespace

MeasureValue evaluateTiming(const MeasureDefinition& m, const MeasureInput& in) {
    if (auto why = missing(m, in)) return *why;
    if (m.kind == MeasureKind::FrameCount) return frameCount(m, in);
    if (m.kind == MeasureKind::Spin) return spin(m, in);
    if (m.kind == MeasureKind::LooksLike) return looksLike(m, in);
    if (m.kind == MeasureKind::BallSpeed) return ballSpeed(m, in);
    if (m.kind == MeasureKind::BallTurns) return ballTurns(m, in);
    return timeBetween(m, in);
}

} // namespace jg
