#include "kinematics/measure.h"

#include "kinematics/foreshortening.h"
#include "kinematics/formula.h"
#include "kinematics/geometry.h"
#include "kinematics/place.h"
#include "kinematics/timing.h"
#include "kinematics/turn.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace jg {

std::string_view idOf(MeasureState state) {
    switch (state) {
    case MeasureState::NotLookedAt:
        return "notLookedAt";
    case MeasureState::Measured:
        return "measured";
    case MeasureState::NotVisible:
        return "notVisible";
    case MeasureState::NotApplicable:
        break;
    }
    return "notApplicable";
}

Estimate rollFromLine(ClickedPoint from, ClickedPoint to) {
    const ImagePoint v = to.at - from.at;
    const double run = length(v);
    if (run == 0) return {0, 0};
    const bool plumb = std::abs(v.y) > std::abs(v.x);
    // Fold the line's direction to the nearer axis, so that its sense does not matter.
    const double angle = plumb ? -std::atan2(v.x, v.y) * kDegPerRad : std::atan2(v.y, v.x) * kDegPerRad;
    const double folded = std::remainder(angle, 180.0);
    const double sd = std::hypot(from.sigmaPx, to.sigmaPx) / run * kDegPerRad;
    return {folded, sd};
}

MeasureValue withoutValue(const MeasureDefinition& m, MeasureState state, std::string reason) {
    MeasureValue result;
    result.id = m.id;
    result.unit = m.unit;
    result.state = state;
    result.reason = std::move(reason);
    return result;
}

double covariance(const Depth& a, const Depth& b) {
    const std::size_t ways = std::min(a.shared.size(), b.shared.size());
    return std::inner_product(a.shared.begin(), a.shared.begin() + static_cast<std::ptrdiff_t>(ways),
                              b.shared.begin(), 0.0);
}

namespace {

/// A turn whose 95 % interval is wider is no number: own choice.
constexpr double kCoarseTurnDeg = 40;
/// An angle that could be anything within this on either side, or a ratio within this part of itself, is no
/// number: own choice.
constexpr double kRoughAngleDeg = 30;
constexpr double kRoughRatioPart = 0.5;

std::string viewsInWords(const MeasureDefinition& m) {
    std::string text;
    for (const View v : m.views) text += (text.empty() ? "" : " or ") + std::string(nameOf(v));
    return text;
}

/// The uncertain numbers behind a measure: x, y of each slot, then what follows, then the depth of each slot.
struct Parameters {
    Eigen::VectorXd mean;
    Eigen::MatrixXd covariance;
};
enum After : Eigen::Index { kRoll, kYaw, kUnit, kDistance, kPitch, kHeightDepth, kAfterPoints };

/// The depth of a slot; known exactly as nought when there is none.
const Depth& depthOf(const MeasureInput& in, const Slot& slot) {
    static const Depth none;
    const auto depth = in.depths.find(slot.name);
    return depth == in.depths.end() ? none : depth->second;
}

/// What the points of a measure err in together: a landmark clicked once and used in two slots errs the same
/// way in both, and the parts of one body lie nearer or farther together.
void putShared(const MeasureDefinition& m, const MeasureInput& in, Eigen::MatrixXd& covariances) {
    const auto n = static_cast<Eigen::Index>(m.slots.size()), depths = 2 * n + kAfterPoints;
    const auto put = [&](Eigen::Index one, Eigen::Index two, double c) {
        covariances(one, two) = covariances(two, one) = c;
    };
    for (Eigen::Index i = 0; i < n; ++i) {
        const Slot& a = m.slots[static_cast<std::size_t>(i)];
        put(depths + i, 2 * n + kHeightDepth, covariance(depthOf(in, a), in.heightDepth));
        for (Eigen::Index j = 0; j < i; ++j) {
            const Slot& b = m.slots[static_cast<std::size_t>(j)];
            const bool oneJoint = a.landmark == b.landmark && a.at == b.at;
            put(depths + i, depths + j,
                oneJoint ? covariances(depths + i, depths + i) : covariance(depthOf(in, a), depthOf(in, b)));
            if (!oneJoint || a.frames != b.frames) continue;
            put(2 * i, 2 * j, covariances(2 * i, 2 * i));
            put(2 * i + 1, 2 * j + 1, covariances(2 * i + 1, 2 * i + 1));
        }
    }
}

Parameters parametersOf(const MeasureDefinition& m, const MeasureInput& in, Estimate unitPx) {
    const auto n = static_cast<Eigen::Index>(m.slots.size());
    const Eigen::Index depths = 2 * n + kAfterPoints, all = depths + n;
    Parameters p{Eigen::VectorXd::Zero(all), Eigen::MatrixXd::Zero(all, all)};
    const auto put = [&](Eigen::Index at, Estimate e) {
        p.mean(at) = e.value;
        p.covariance(at, at) = e.sd * e.sd;
    };
    for (Eigen::Index i = 0; i < n; ++i) {
        const Slot& a = m.slots[static_cast<std::size_t>(i)];
        const ClickedPoint& c = in.points.at(a.name);
        put(2 * i, {c.at.x, c.sigmaPx});
        put(2 * i + 1, {c.at.y, c.sigmaPx});
        put(depths + i, {depthOf(in, a).value, depthOf(in, a).sd});
    }
    put(2 * n + kRoll, in.rollDeg);
    put(2 * n + kYaw, in.yawDeg);
    put(2 * n + kUnit, unitPx);
    put(2 * n + kHeightDepth, {in.heightDepth.value, in.heightDepth.sd});
    if (in.camera) {
        put(2 * n + kDistance, in.camera->distance);
        put(2 * n + kPitch, in.camera->pitchDeg);
    }
    putShared(m, in, p.covariance);
    return p;
}

/// True when the number changes with the camera's roll.
bool needsLevel(MeasureKind kind) {
    switch (kind) {
    case MeasureKind::Tilt:
    case MeasureKind::TiltAcross:
    case MeasureKind::AboveLevel:
    case MeasureKind::Direction:
    case MeasureKind::Fall:
    case MeasureKind::Above:
    case MeasureKind::Ahead:
    case MeasureKind::Across:
    case MeasureKind::AcrossOf:
    case MeasureKind::ForwardDown:
        return true;
    default:
        return false;
    }
}

/// "a, b or c".
std::string listed(const std::vector<std::string>& words) {
    std::string text;
    for (std::size_t i = 0; i < words.size(); ++i)
        text += (i == 0 ? "" : i + 1 == words.size() ? " or " : ", ") + words[i];
    return text;
}

void warnAbout(const MeasureDefinition& m, const MeasureInput& in, MeasureValue& result) {
    if (std::abs(in.yawDeg.value) > 0 || in.yawDeg.sd > 0)
        result.warnings.push_back("Corrected for a camera turned from square.");
    if (needsLevel(m.kind) && in.rollDeg.value == 0 && in.rollDeg.sd == 0)
        result.warnings.push_back("No plumb or level line yet: the picture is taken as level.");
    if (needsLevel(m.kind) && !in.levelBy.empty())
        result.warnings.push_back("Level by " + in.levelBy + "; a plumb line is surer.");
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

/// A number of points, levelled and squared, with its first-order error.
using OfPoints = std::function<double(const std::vector<ImagePoint>&, double unitPx)>;

/// The number from the parameters of a measure.
Formula formulaFrom(const MeasureDefinition& m, const MeasureInput& in, const OfPoints& number) {
    const auto n = static_cast<Eigen::Index>(m.slots.size());
    // Depths are told in heights: without a height in pixels perspective stays out.
    const bool inDepth = in.camera && in.heightPx.value > 0;
    const int toTarget = targetDirectionX(in.hand, in.view);
    const int along = toTarget != 0 ? toTarget : gloveDirectionX(in.hand, in.view);
    return [=, &m, &in](const Eigen::VectorXd& v) {
        const auto after = [&](After what) { return v(2 * n + what); };
        const double height = in.heightPx.value;
        const Placing how{
            in.camera ? in.camera->centre : ImagePoint{}, after(kRoll), after(kYaw), after(kPitch),
            inDepth ? after(kDistance) * height : 0,      along};
        std::vector<ImagePoint> points;
        points.reserve(m.slots.size());
        for (Eigen::Index i = 0; i < n; ++i)
            points.push_back(placed({v(2 * i), v(2 * i + 1)}, v(2 * n + kAfterPoints + i) * height, how));
        return number(points,
                      after(kUnit) *
                          (inDepth ? scaleAt(in.camera->standing, after(kHeightDepth) * height, how) : 1));
    };
}

Estimate estimate(const MeasureDefinition& m, const MeasureInput& in, Estimate unitPx, bool isAngle,
                  const OfPoints& number) {
    const Parameters p = parametersOf(m, in, unitPx);
    return propagate(formulaFrom(m, in, number), p.mean, p.covariance, isAngle);
}

/// A pure number freed of what the bend of its formula adds to its mean.
Estimate centred(const MeasureDefinition& m, const MeasureInput& in, const OfPoints& number) {
    const Parameters p = parametersOf(m, in, {1, 0});
    const Formula formula = formulaFrom(m, in, number);
    const Estimate e = propagate(formula, p.mean, p.covariance, false);
    const double shift = secondOrderShift(formula, p.mean, p.covariance, false);
    return {std::isfinite(shift) ? e.value - shift : e.value, e.sd};
}

/// True for a line's slope that bends so much within its error that first order does not hold.
bool bendsTooMuch(const MeasureDefinition& m, const MeasureInput& in, Estimate unitPx, double sd,
                  const OfPoints& number) {
    constexpr double kMostShift = 0.25; // in sds; own choice
    constexpr double kSureDeg = 5;      // of half an interval; what is known so well can't bend; own choice
    if (m.kind != MeasureKind::AboveLevel || kSdsOf95 * sd < kSureDeg) return false;
    const Parameters p = parametersOf(m, in, unitPx);
    return std::abs(secondOrderShift(formulaFrom(m, in, number), p.mean, p.covariance, true)) >
           kMostShift * sd;
}

std::string later(int frames) {
    return frames == 0 ? "" : " + " + std::to_string(frames) + (frames == 1 ? " frame" : " frames");
}

MeasureValue onOneSpot(const MeasureDefinition& m) {
    return withoutValue(m, MeasureState::NotLookedAt,
                        "Two of its points lie on the same spot. Move one of them.");
}

MeasureValue withValue(const MeasureDefinition& m, Estimate e, std::string unit) {
    MeasureValue result;
    result.id = m.id;
    result.unit = std::move(unit);
    result.state = MeasureState::Measured;
    result.value = e.value;
    result.sd = e.sd;
    result.low95 = e.value - e.half95();
    result.high95 = e.value + e.half95();
    return result;
}

/// The turn of one line whose four points begin at `first`.
Turn turnOf(const MeasureDefinition& m, const MeasureInput& in, std::size_t first, TurnSeen seen) {
    const Estimate ratio = estimate(m, in, {1, 0}, false, [&](const auto& p, double) {
        return ratioOfLengths(p[first], p[first + 1], p[first + 2], p[first + 3]);
    });
    return turnFromRatio(ratio, seen);
}

MeasureValue oneTurn(const MeasureDefinition& m, const MeasureInput& in) {
    const Turn turn =
        turnOf(m, in, 0, m.kind == MeasureKind::TurnSide ? TurnSeen::FromSide : TurnSeen::FromFront);
    if (!std::isfinite(turn.deg)) return onOneSpot(m);
    MeasureValue result = withValue(m, {turn.deg, turn.sd()}, m.unit);
    result.low95 = turn.low95;
    result.high95 = turn.high95;
    if (turn.high95 - turn.low95 > kCoarseTurnDeg)
        result.warnings.push_back("A turn read from a width is rough here: only a coarse class is sure.");
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
    MeasureValue result = withoutValue(m, MeasureState::NotVisible, "");
    result.words = std::abs(difference) < 1.96 * sd ? "no order that is sure"
                   : difference < 0                 ? "the shoulders are ahead of the hips"
                   : difference < 30                ? "the hips are ahead, by a little"
                                                    : "the hips are clearly ahead";
    result.reason = "The widths are too rough for a number (give or take " +
                    std::to_string(std::lround(1.96 * sd)) + " degrees): " + result.words +
                    ". A film from the front shows it better.";
    return result;
}

MeasureValue seen(const MeasureDefinition& m, const MeasureInput& in) {
    const auto it = std::find(m.options.begin(), m.options.end(), in.seen);
    if (it == m.options.end())
        return withoutValue(m, MeasureState::NotLookedAt, "Say what is seen: " + listed(m.options) + ".");
    MeasureValue result = withoutValue(m, MeasureState::Measured, "");
    result.words = *it;
    return result;
}

bool isTooRough(const MeasureDefinition& m, const MeasureValue& v) {
    if (m.isAngle()) return v.half95() > kRoughAngleDeg;
    return m.kind == MeasureKind::Ratio && v.half95() > kRoughRatioPart * std::abs(*v.value);
}

/// A line that points at the camera tells nothing, however well it is clicked.
MeasureValue endOn(const MeasureDefinition& m, const MeasureInput& in, const MeasureValue& v) {
    std::vector<std::string> others;
    for (const View view : m.views)
        if (view != in.view) others.push_back(std::string(nameOf(view)));
    const std::string off = m.isAngle()
                                ? std::to_string(std::lround(v.half95())) + " degrees"
                                : std::to_string(std::lround(100 * v.half95() / std::abs(*v.value))) + " %";
    return withoutValue(m, MeasureState::NotVisible,
                        "Too much end-on here: it could be off by " + off + ", which is no number. " +
                            (others.empty() ? "Look for the points on a frame that shows the line longer."
                                            : "A film from the " + listed(others) + " may show it."));
}

/// Between the last frame with the ball in the hand and the next: the bracket is the widest it can be.
MeasureValue releaseInstant(const MeasureDefinition& m, const MeasureInput& in) {
    if (!(in.captureFps > 0))
        return withoutValue(
            m, MeasureState::NotVisible,
            "The capture rate is unknown, so frames can't be turned into time. Enter the rate.");
    // Own choice, in frames, after generated deliveries: over a longer frame the wrist's way is less a
    // parabola.
    const double modelSd = 0.02 + 0.08 * std::pow(60 / in.captureFps, 2);
    const Estimate parted = centred(m, in, [&](const auto& p, double) { return formulaOn(m, p, {1, 1, 1}); });
    if (!std::isfinite(parted.value))
        return withoutValue(
            m, MeasureState::NotLookedAt,
            "The ball does not leave the wrist on these frames. Move release to the last frame "
            "with the ball in the hand.");
    const double frameMs = 1000 / in.captureFps, sd = std::hypot(parted.sd, modelSd);
    if (parted.value < -kSdsOf95 * sd || parted.value > 1 + kSdsOf95 * sd)
        return withoutValue(m, MeasureState::NotLookedAt,
                            std::string("By the ball's first frames it left the hand ") +
                                (parted.value < 0 ? "before" : "after") +
                                " this bracket. Move release to the last frame with the ball in the hand.");
    MeasureValue result = withValue(m, {std::clamp(parted.value, 0.0, 1.0) * frameMs, sd * frameMs}, m.unit);
    if (parted.value < 0.05 || parted.value > 0.95)
        result.warnings.push_back(
            "At the very edge of the bracket: look whether the ball is in the hand on the frame " +
            std::string(parted.value < 0.5 ? "of release." : "after release."));
    result.low95 = std::max(0.0, result.low95);
    result.high95 = std::min(frameMs, result.high95);
    if (result.high95 - result.low95 > 0.8 * frameMs)
        result.warnings.push_back(
            "The ball tells no more than the two frames: click it where it is sharp, or film "
            "faster.");
    return result;
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
    result.warnings.push_back(
        "The line points out of the picture here: its slope is its rise over the length it "
        "shows at " +
        std::string(info(limb.longestAt).name) + ".");
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
        if (unitPx.value <= 0)
            return withoutValue(
                m, MeasureState::NotLookedAt,
                "A length needs a size: place the top of the head and the ground at Set, or give a scale.");
    }
    if (m.kind == MeasureKind::AboveLevel)
        if (const LimbTurn* limb = turnedLimb(in, m.slots[0], m.slots[1])) return slopeInSpace(m, in, *limb);
    const int targetX = targetDirectionX(in.hand, in.view), gloveX = gloveDirectionX(in.hand, in.view);
    const OfPoints number = [&](const auto& points, double px) {
        return formulaOn(m, points, {targetX, gloveX, px});
    };
    const Estimate e = estimate(m, in, unitPx, m.isAngle(), number);
    if (!std::isfinite(e.value) || !std::isfinite(e.sd)) return onOneSpot(m);
    MeasureValue result = withValue(m, m.kind == MeasureKind::AboveLevel ? shortOfUpright(e) : e, unit);
    if (m.unit == "in" && unit == "%")
        result.warnings.push_back("No scale yet: percent of the standing height instead of a length.");
    widenForTurnedLimbs(m, in, result);
    return isTooRough(m, result) || bendsTooMuch(m, in, unitPx, e.sd, number) ? endOn(m, in, result) : result;
}

} // namespace

MeasureValue evaluate(const MeasureDefinition& m, const MeasureInput& in) {
    if (!m.seenFrom(in.view))
        return withoutValue(m, MeasureState::NotVisible,
                            "Not visible from the " + std::string(nameOf(in.view)) +
                                ": ask for a film from the " + viewsInWords(m) + ".");
    if (m.kind == MeasureKind::Seen) return seen(m, in);
    if (!m.hasPoints()) return evaluateTiming(m, in);
    for (const Slot& slot : m.slots)
        if (!in.points.contains(slot.name))
            return withoutValue(m, MeasureState::NotLookedAt,
                                "Place the " + std::string(info(slot.landmark).name) + " at " +
                                    std::string(info(slot.at).name) + later(slot.frames) + " first.");
    MeasureValue result = m.kind == MeasureKind::TurnBetween      ? turnBetween(m, in)
                          : m.kind == MeasureKind::ReleaseInstant ? releaseInstant(m, in)
                          : m.kind == MeasureKind::TurnSide || m.kind == MeasureKind::TurnFront
                              ? oneTurn(m, in)
                              : ofPoints(m, in);
    if (result.value) warnAbout(m, in, result);
    return result;
}

} // namespace jg
