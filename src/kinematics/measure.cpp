// SPDX-License-Identifier: GPL-3.0-or-later
#include "kinematics/measure.h"

#include "kinematics/answers.h"
#include "kinematics/foreshortening.h"
#include "kinematics/formula.h"
#include "kinematics/geometry.h"
#include "kinematics/propagation.h"
#include "kinematics/release_instant.h"
#include "kinematics/timing.h"
#include "kinematics/turn.h"
#include "kinematics/uncertain_number.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace jg {

namespace {

/// A turn whose 95 % interval is wider is no number: own choice.
constexpr double kCoarseTurnDeg = 40;
/// So near closed a line may as well be turned past it, seen from the side: own choice.
constexpr double kNearClosedDeg = 25;
/// An angle that could be anything within this on either side, or a ratio within this part of itself, is no
/// number: own choice.
constexpr double kRoughAngleDeg = 30;
constexpr double kRoughRatioPart = 0.5;

void warnAbout(const MeasureDefinition& m, const MeasureInput& in, MeasureValue& result) {
    if (!in.yawSaid)
        result.warnings.push_back(msg(kTurnUnsaid, {{"degrees", std::lround(in.yawDeg.sd)}}));
    else if (std::abs(in.yawDeg.value) > 0)
        result.warnings.push_back(msg("measure.turned-camera"));
    if (m.needsLevel() && in.rollDeg.value == 0 && in.rollDeg.sd == 0)
        result.warnings.push_back(msg("measure.no-level"));
    if (m.needsLevel() && !in.levelBy.empty())
        result.warnings.push_back(msg("measure.level-by", {{"what", in.levelBy}}));
}

/// Pixels that make one unit of a length measure, and the unit; value 0 when nothing gives it. Inches or
/// centimetres where the measure is one of inches and a scale is known, else percent of the standing height.
std::pair<Estimate, std::string> unitOfLength(const MeasureDefinition& m, const MeasureInput& in) {
    const double metres = metresOf(in.lengths);
    const Estimate length{in.pxPerM.value * metres, in.pxPerM.sd * metres};
    const std::string unit(idOf(in.lengths));
    if (m.unit == "in" && length.value > 0) return {length, unit};
    if (in.heightPx.value > 0) return {{in.heightPx.value / 100, in.heightPx.sd / 100}, "%"};
    if (length.value > 0) return {length, unit};
    return {{0, 0}, "%"};
}

Estimate estimate(const MeasureDefinition& m, const MeasureInput& in, Estimate unitPx, bool isAngle,
                  const OfPoints& number) {
    return UncertainNumber(m, in, unitPx, isAngle, number).estimate();
}

/// True for a line's slope that bends so much within its error that first order does not hold.
bool bendsTooMuch(const MeasureDefinition& m, const UncertainNumber& number, double sd) {
    constexpr double kMostShift = 0.25; // in sds; own choice
    constexpr double kSureDeg = 5;      // of half an interval; what is known so well can't bend; own choice
    if (m.kind != MeasureKind::AboveLevel || kSdsOf95 * sd < kSureDeg) return false;
    return std::abs(number.shift()) > kMostShift * sd;
}

Message firstPlace(const Slot& slot) {
    if (slot.frames == 0)
        return msg("measure.place-first",
                   {{"landmark", info(slot.landmark).name()}, {"position", info(slot.at).name()}});
    if (slot.frames < 0)
        return msg("measure.place-first-earlier", {{"landmark", info(slot.landmark).name()},
                                                   {"position", info(slot.at).name()},
                                                   {"frames", -slot.frames}});
    return msg("measure.place-first-later", {{"landmark", info(slot.landmark).name()},
                                             {"position", info(slot.at).name()},
                                             {"frames", slot.frames}});
}

MeasureValue onOneSpot(const MeasureDefinition& m) {
    return withoutValue(m, MeasureState::NotLookedAt, msg("measure.same-spot"));
}

/// The turn of one line whose four points begin at `first`.
Turn turnOf(const MeasureDefinition& m, const MeasureInput& in, std::size_t first, TurnSeen seen) {
    const Estimate ratio = estimate(m, in, {1, 0}, false, [&](const auto& p, double) {
        return ratioOfLengths(p[first], p[first + 1], p[first + 2], p[first + 3]);
    });
    return turnFromRatio(ratio, seen);
}

/// The turn of a foot, by the side of its heel on which the toe lies.
Turn signedTurnOf(const MeasureDefinition& m, const MeasureInput& in) {
    return signedTurnFromRatio(estimate(
        m, in, {1, 0}, false, [&](const auto& p, double) { return signedRatio(p[0], p[1], p[2], p[3]); }));
}

/// A turn seen from the front with its side: past closed a line's ends stand the other way round than when it
/// is square to the camera. Where they can't be told apart the interval lies on both sides.
Turn withSide(Turn turn, Estimate signedWidth) {
    const double half = signedWidth.half95();
    if (!std::isfinite(signedWidth.value) || signedWidth.value - half > 0) return turn;
    const Turn other{-turn.deg, -turn.high95, -turn.low95};
    if (signedWidth.value + half < 0) return other;
    return {signedWidth.value < 0 ? other.deg : turn.deg, -turn.high95, turn.high95};
}

Turn frontTurnOf(const MeasureDefinition& m, const MeasureInput& in) {
    return withSide(turnOf(m, in, 0, TurnSeen::FromFront),
                    estimate(m, in, {1, 0}, false,
                             [](const auto& p, double) { return signedRatio(p[0], p[1], p[2], p[3]); }));
}

MeasureValue oneTurn(const MeasureDefinition& m, const MeasureInput& in) {
    const Turn turn = m.kind == MeasureKind::TurnFrontSigned ? signedTurnOf(m, in)
                      : m.kind == MeasureKind::TurnSide      ? turnOf(m, in, 0, TurnSeen::FromSide)
                                                             : frontTurnOf(m, in);
    if (!std::isfinite(turn.deg)) return onOneSpot(m);
    MeasureValue result = withValue(m, {turn.deg, turn.sd()}, m.unit);
    result.low95 = turn.low95;
    result.high95 = turn.high95;
    if (m.kind == MeasureKind::TurnSide && turn.deg < kNearClosedDeg)
        result.warnings.push_back(msg("measure.past-closed-alike"));
    if (turn.high95 - turn.low95 > kCoarseTurnDeg) result.warnings.push_back(msg("measure.rough-turn"));
    return result;
}

/// How far the first turn is ahead of the second; in words only where either is too rough for a number.
MeasureValue turnBetween(const MeasureDefinition& m, const MeasureInput& in) {
    const Turn first = turnOf(m, in, 0, TurnSeen::FromSide), second = turnOf(m, in, 4, TurnSeen::FromSide);
    if (!std::isfinite(first.deg) || !std::isfinite(second.deg)) return onOneSpot(m);
    const double sd = std::hypot(first.sd(), second.sd());
    const double difference = first.deg - second.deg;
    if (std::max(first.high95 - first.low95, second.high95 - second.low95) <= kCoarseTurnDeg)
        return withValue(m, {difference, sd}, m.unit);
    MeasureValue result = withoutValue(m, MeasureState::NotVisible, {});
    result.words = std::abs(difference) < 1.96 * sd ? msg("turn.no-order")
                   : difference < 0                 ? msg("turn.shoulders-ahead")
                   : difference < 30                ? msg("turn.hips-ahead-little")
                                                    : msg("turn.hips-ahead");
    result.reason = msg("turn.too-rough", {{"degrees", std::lround(1.96 * sd)}, {"order", result.words}});
    return result;
}

MeasureValue seen(const MeasureDefinition& m, const MeasureInput& in) {
    if (!isAmong(m.options, in.seen))
        return withoutValue(m, MeasureState::NotLookedAt,
                            msg("measure.say-seen", {{"options", eitherOf(m.options)}}));
    MeasureValue result = withoutValue(m, MeasureState::Measured, {});
    result.seen = in.seen;
    result.words = asIs(in.seen);
    return result;
}

bool isTooRough(const MeasureDefinition& m, const MeasureValue& v) {
    if (m.isAngle()) return v.half95() > kRoughAngleDeg;
    return m.kind == MeasureKind::Ratio && v.half95() > kRoughRatioPart * std::abs(*v.value);
}

/// A line that points at the camera tells nothing, however well it is clicked.
MeasureValue endOn(const MeasureDefinition& m, const MeasureInput& in, const MeasureValue& v) {
    std::vector<View> others = m.views;
    std::erase(others, in.view);
    const Message off = m.isAngle() ? msg("measure.degrees", {{"degrees", std::lround(v.half95())}})
                                    : msg("measure.percent",
                                          {{"percent", std::lround(100 * v.half95() / std::abs(*v.value))}});
    return withoutValue(
        m, MeasureState::NotVisible,
        others.empty() ? msg("measure.end-on", {{"off", off}})
                       : msg("measure.end-on-other-view", {{"off", off}, {"views", viewsInWords(others)}}));
}

/// The slope in space of a limb that is turned out of the picture: its rise over the length it shows
/// elsewhere.
MeasureValue slopeInSpace(const MeasureDefinition& m, const MeasureInput& in, const LimbTurn& limb) {
    constexpr double kNotRigid = 0.03; // of its length; own choice: bodies are not, and nearness changes
    const double seen = length(in.points.at(m.slots[1].name).at - in.points.at(m.slots[0].name).at);
    if (seen == 0 || limb.ratio.value <= 0) return onOneSpot(m);
    const double whole = seen / limb.ratio.value;
    const Estimate wholePx{whole, whole * std::hypot(limb.ratio.sd / limb.ratio.value, kNotRigid)};
    const Estimate e = estimate(m, in, wholePx, true, [&](const auto& p, double px) {
        return m.sign * std::asin(std::clamp((p[0].y - p[1].y) / px, -1.0, 1.0)) * kDegPerRad;
    });
    MeasureValue result = withValue(m, e, m.unit);
    result.warnings.push_back(msg("measure.slope-in-space", {{"position", info(limb.longestAt).name()}}));
    return result;
}

/// A slope above level turns back at upright.
Estimate shortOfUpright(Estimate slope) {
    return {std::copysign(90 - withoutFold(90 - std::abs(slope.value), slope.sd), slope.value), slope.sd};
}

MeasureValue ofPoints(const MeasureDefinition& m, const MeasureInput& in) {
    Estimate unitPx{1, 0};
    std::string unit = m.unit;
    if (m.needsHeight()) {
        std::tie(unitPx, unit) = unitOfLength(m, in);
        if (unitPx.value <= 0) return withoutValue(m, MeasureState::NotLookedAt, msg("measure.needs-size"));
    }
    const bool folds = m.kind == MeasureKind::AboveLevel && !m.pastStraight;
    if (folds)
        if (const LimbTurn* limb = turnedLimb(in, m.slots[0], m.slots[1])) return slopeInSpace(m, in, *limb);
    const int targetX = targetDirectionX(in.hand, in.view), gloveX = gloveDirectionX(in.hand, in.view);
    const UncertainNumber number(m, in, unitPx, m.isAngle(), [&](const auto& points, double px) {
        return formulaOn(m, points, {targetX, gloveX, px});
    });
    const Estimate e = number.estimate();
    if (!std::isfinite(e.value) || !std::isfinite(e.sd)) return onOneSpot(m);
    MeasureValue result = withValue(m, folds ? shortOfUpright(e) : e, unit);
    if (m.unit == "in" && unit == "%") result.warnings.push_back(msg("measure.no-scale"));
    widenForTurnedLimbs(m, in, result);
    return isTooRough(m, result) || bendsTooMuch(m, number, e.sd) ? endOn(m, in, result) : result;
}

} // namespace

MeasureValue evaluate(const MeasureDefinition& m, const MeasureInput& in) {
    if (!m.seenFrom(in.view))
        return withoutValue(
            m, MeasureState::NotVisible,
            msg("measure.not-from-here", {{"view", nameOf(in.view)}, {"views", viewsInWords(m.views)}}));
    if (m.kind == MeasureKind::Seen) return seen(m, in);
    if (!m.hasPoints()) return evaluateTiming(m, in);
    for (const Slot& slot : m.slots)
        if (!in.points.contains(slot.name))
            return withoutValue(m, MeasureState::NotLookedAt, firstPlace(slot));
    MeasureValue result = m.kind == MeasureKind::TurnBetween      ? turnBetween(m, in)
                          : m.kind == MeasureKind::ReleaseInstant ? releaseInstantOf(m, in)
                          : m.kind == MeasureKind::TurnSide || m.kind == MeasureKind::TurnFront ||
                                  m.kind == MeasureKind::TurnFrontSigned
                              ? oneTurn(m, in)
                              : ofPoints(m, in);
    if (result.value) warnAbout(m, in, result);
    return result;
}

} // namespace jg
