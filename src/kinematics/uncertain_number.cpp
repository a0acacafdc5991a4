#include "kinematics/uncertain_number.h"

#include "kinematics/place.h"

#include <cmath>

namespace jg {

namespace {

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

/// Of one joint's depths, on frames of one moment.
double sameJoint(const Depth& a, const Depth& b) {
    return a.sd * b.sd + a.drift * b.drift;
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
        put(depths + i, {depthOf(in, a).value, std::hypot(depthOf(in, a).sd, depthOf(in, a).drift)});
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

/// A body as it is seen standing at Set.
struct Standing {
    ImagePoint middle;
    double heightPx, depth; ///< the depth in heights
};

/// Its height in pixels of the plane: a turned camera may stand nearer to where it was seen, or farther.
double heightInPlane(const Standing& seen, double distance, Placing how) {
    double height = seen.heightPx;
    // It changes by some parts in a hundred, and that change by some parts in a hundred of itself.
    for (int again = 0; again < 3; ++again) {
        how.distancePx = distance * height;
        height = seen.heightPx * scaleAt(seen.middle, seen.depth * height, how);
    }
    return height;
}

/// The number from the parameters of a measure.
Formula formulaFrom(const MeasureDefinition& m, const MeasureInput& in, OfPoints number) {
    const auto n = static_cast<Eigen::Index>(m.slots.size());
    // Depths are told in heights: without a height in pixels perspective and depth stay out.
    const bool inDepth = in.camera && in.heightPx.value > 0;
    const int along = alongX(in.hand, in.view);
    return [=, &in](const Eigen::VectorXd& v) {
        const auto after = [&](After what) { return v(2 * n + what); };
        Placing how{
            in.camera ? in.camera->centre : ImagePoint{}, after(kRoll), after(kYaw), after(kPitch), 0, along};
        std::vector<ImagePoint> points;
        points.reserve(static_cast<std::size_t>(n));
        const double seenPx = in.heightPx.value;
        const double height =
            inDepth ? heightInPlane({in.camera->standing, seenPx, after(kHeightDepth)}, after(kDistance), how)
                    : 0;
        how.distancePx = after(kDistance) * height;
        for (Eigen::Index i = 0; i < n; ++i)
            points.push_back(placed({v(2 * i), v(2 * i + 1)}, v(2 * n + kAfterPoints + i) * height, how));
        return number(points, after(kUnit) * (inDepth ? height / seenPx : 1));
    };
}

} // namespace

UncertainNumber::UncertainNumber(const MeasureDefinition& m, const MeasureInput& in, Estimate unitPx,
                                 bool isAngle, OfPoints number)
    : formula_(formulaFrom(m, in, std::move(number)))
    , isAngle_(isAngle) {
    Parameters p = parametersOf(m, in, unitPx);
    mean_ = std::move(p.mean);
    covariance_ = std::move(p.covariance);
}

Estimate UncertainNumber::estimate() const {
    return propagate(formula_, mean_, covariance_, isAngle_);
}

double UncertainNumber::shift() const {
    return secondOrderShift(formula_, mean_, covariance_, isAngle_);
}

} // namespace jg
