// SPDX-License-Identifier: GPL-3.0-or-later
#include "kinematics/uncertain_number.h"

#include "kinematics/place.h"

#include <algorithm>
#include <cmath>
#include <vector>

namespace jg {

namespace {

/// The uncertain numbers behind a measure: x, y of each slot, then what follows, then the depth of each slot,
/// then how much too late each of its moments was taken, seconds.
struct Parameters {
    Eigen::VectorXd mean;
    Eigen::MatrixXd covariance;
};
enum After : Eigen::Index { kRoll, kYaw, kUnit, kDistance, kPitch, kHeightDepth, kAfterPoints };

/// Own choice, until it is measured: how far the frame a person takes for a moment lies from another's.
constexpr double kPickedSdS = 0.008;
/// Taken where nothing tells the capture rate.
constexpr double kUsualFps = 60;

/// Everybody sees on which frame the ball is still in the hand, or nearly: own choice.
constexpr double kReleasePickedSdS = 0.002;

/// How much too late the frame of a moment lies in time: by the frame that was picked and, within a frame, by
/// when it was. The last frame with the ball in the hand lies up to a whole frame before it leaves.
Estimate lateness(Moment moment, double captureFps) {
    const double frame = 1 / (captureFps > 0 ? captureFps : kUsualFps), within = frame / std::sqrt(12.0);
    if (moment == Moment::Release) return {-frame / 2, std::hypot(kReleasePickedSdS, within)};
    return {0, std::hypot(kPickedSdS, within)};
}

/// The moments of a measure, each once.
std::vector<Moment> momentsOf(const MeasureDefinition& m) {
    std::vector<Moment> all;
    for (const Slot& slot : m.slots)
        if (std::find(all.begin(), all.end(), slot.at) == all.end()) all.push_back(slot.at);
    return all;
}

const Motion& motionOf(const MeasureInput& in, const Slot& slot) {
    static const Motion none;
    const auto motion = in.motions.find(slot.name);
    return motion == in.motions.end() ? none : motion->second;
}

/// The depth of a slot; known exactly as nought when there is none.
const Depth& depthOf(const MeasureInput& in, const Slot& slot) {
    static const Depth none;
    const auto depth = in.depths.find(slot.name);
    return depth == in.depths.end() ? none : depth->second;
}

/// Of one joint's depths, on frames of one moment.
double sameJoint(const Depth& a, const Depth& b) {
    return a.sd * b.sd + a.drift * b.drift;
}

/// A joint is leant on alike on neighbouring frames; from one pose to another half of it stays: own choice.
double sharedLean(const MeasureInput& in, const Slot& a, const Slot& b, bool oneMoment) {
    const double both = in.points.at(a.name).leanPx * in.points.at(b.name).leanPx;
    return oneMoment ? both : both / 2;
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
                oneJoint ? sameJoint(depthOf(in, a), depthOf(in, b))
                         : covariance(depthOf(in, a), depthOf(in, b)));
            if (a.landmark != b.landmark) continue;
            const double together =
                oneJoint && a.frames == b.frames ? covariances(2 * i, 2 * i) : sharedLean(in, a, b, oneJoint);
            put(2 * i, 2 * j, together);
            put(2 * i + 1, 2 * j + 1,
                oneJoint && a.frames == b.frames ? covariances(2 * i + 1, 2 * i + 1) : together);
        }
    }
}

Parameters parametersOf(const MeasureDefinition& m, const MeasureInput& in, Estimate unitPx) {
    const auto n = static_cast<Eigen::Index>(m.slots.size());
    const std::vector<Moment> moments = momentsOf(m);
    const Eigen::Index depths = 2 * n + kAfterPoints, times = depths + n,
                       all = times + static_cast<Eigen::Index>(moments.size());
    Parameters p{Eigen::VectorXd::Zero(all), Eigen::MatrixXd::Zero(all, all)};
    const auto put = [&](Eigen::Index at, Estimate e) {
        p.mean(at) = e.value;
        p.covariance(at, at) = e.sd * e.sd;
    };
    for (Eigen::Index i = 0; i < n; ++i) {
        const Slot& a = m.slots[static_cast<std::size_t>(i)];
        const ClickedPoint& c = in.points.at(a.name);
        const double click = std::hypot(c.sigmaPx, c.leanPx);
        // Bodies move faster or slower than the usual one, all the time that the frame is off.
        const Motion& motion = motionOf(in, a);
        const Estimate late = lateness(a.at, in.captureFps);
        const double away = std::hypot(late.value, late.sd) * in.heightPx.value;
        put(2 * i, {c.at.x, std::hypot(click, away * motion.along.sd)});
        put(2 * i + 1, {c.at.y, std::hypot(click, away * motion.up.sd)});
        put(depths + i, {depthOf(in, a).value, std::hypot(depthOf(in, a).sd, depthOf(in, a).drift)});
    }
    for (std::size_t k = 0; k < moments.size(); ++k)
        put(times + static_cast<Eigen::Index>(k), lateness(moments[k], in.captureFps));
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

/// A body as it is seen standing at Set.
struct Standing {
    ImagePoint middle;
    double heightPx, depth; ///< the depth in heights
};

/// Its height in pixels of the plane: a turned camera may stand nearer to where it was seen, or farther.
double heightInPlane(const Standing& seen, double distance, Placer& placer) {
    double height = seen.heightPx;
    // It changes by some parts in a hundred, and that change by some parts in a hundred of itself.
    for (int again = 0; again < 3; ++again) {
        placer.setDistance(distance * height);
        height = seen.heightPx * placer.scaleAt(seen.middle, seen.depth * height);
    }
    return height;
}

/// The number from the parameters of a measure.
Formula formulaFrom(const MeasureDefinition& m, const MeasureInput& in, OfPoints number) {
    const auto n = static_cast<Eigen::Index>(m.slots.size());
    // Depths are told in heights: without a height in pixels perspective and depth stay out.
    const bool inDepth = in.camera && in.heightPx.value > 0;
    const int along = alongX(in.hand, in.view);
    const std::vector<Moment> moments = momentsOf(m);
    std::vector<std::pair<Motion, Eigen::Index>> motions; // of each slot, with its moment's place
    for (const Slot& slot : m.slots)
        motions.emplace_back(motionOf(in, slot),
                             std::find(moments.begin(), moments.end(), slot.at) - moments.begin());
    return [=, &in](const Eigen::VectorXd& v) {
        const auto after = [&](After what) { return v(2 * n + what); };
        Placer placer({in.camera ? in.camera->centre : ImagePoint{}, after(kRoll), after(kYaw), after(kPitch),
                       0, along});
        std::vector<ImagePoint> points;
        points.reserve(static_cast<std::size_t>(n));
        const double seenPx = in.heightPx.value;
        const double height = inDepth ? heightInPlane({in.camera->standing, seenPx, after(kHeightDepth)},
                                                      after(kDistance), placer)
                                      : 0;
        placer.setDistance(after(kDistance) * height);
        const double scalePx = inDepth ? height : in.heightPx.value;
        for (Eigen::Index i = 0; i < n; ++i) {
            const auto& [motion, moment] = motions[static_cast<std::size_t>(i)];
            const ImagePoint p =
                placer.placed({v(2 * i), v(2 * i + 1)}, v(2 * n + kAfterPoints + i) * height);
            const double late = v(3 * n + kAfterPoints + moment) * scalePx;
            points.push_back({p.x - along * motion.along.value * late, p.y + motion.up.value * late});
        }
        return number(points, after(kUnit) * (inDepth ? height / seenPx : 1));
    };
}

} // namespace

UncertainNumber::UncertainNumber(const MeasureDefinition& m, const MeasureInput& in, Estimate unitPx,
                                 bool isAngle, OfPoints number)
    : formula_(formulaFrom(m, in, std::move(number)))
    , slots_(static_cast<Eigen::Index>(m.slots.size()))
    , isAngle_(isAngle) {
    Parameters p = parametersOf(m, in, unitPx);
    mean_ = std::move(p.mean);
    covariance_ = std::move(p.covariance);
}

Estimate UncertainNumber::estimate() const {
    const Eigen::RowVectorXd slopes = slopesOf(formula_, mean_, covariance_, isAngle_, 0, mean_.size());
    const double variance = (slopes * covariance_ * slopes.transpose()).value() +
                            depthUnderTurn(slopes.segment(depthsAt(), slots_));
    return {formula_(mean_), std::sqrt(std::max(0.0, variance))};
}

Eigen::Index UncertainNumber::depthsAt() const {
    return 2 * slots_ + kAfterPoints;
}

double UncertainNumber::depthUnderTurn(const Eigen::RowVectorXd& unturned) const {
    const Eigen::Index yaw = 2 * slots_ + kYaw;
    const double sd = std::sqrt(covariance_(yaw, yaw));
    const auto own = covariance_.block(depthsAt(), depthsAt(), slots_, slots_);
    if (sd == 0 || own.diagonal().sum() == 0) return 0;
    const auto varianceBy = [&](const Eigen::RowVectorXd& slopes) {
        return (slopes * own * slopes.transpose()).value();
    };
    const auto turned = [&](double by) {
        Eigen::VectorXd at = mean_;
        at(yaw) += by;
        return varianceBy(slopesOf(formula_, at, covariance_, isAngle_, depthsAt(), slots_));
    };
    return (turned(sd) + turned(-sd)) / 2 - varianceBy(unturned);
}

double UncertainNumber::shift() const {
    return secondOrderShift(formula_, mean_, covariance_, isAngle_);
}

} // namespace jg
