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

} // namespace

MeasureValue evaluateTiming(const MeasureDefinition& m, const MeasureInput& in) {
    if (auto why = missing(m, in)) return *why;
    if (m.kind == MeasureKind::FrameCount) return frameCount(m, in);
    if (m.kind == MeasureKind::Spin) return spin(m, in);
    if (m.kind == MeasureKind::LooksLike) return looksLike(m, in);
    return timeBetween(m, in);
}

} // namespace jg
