#include "kinematics/measure.h"

#include "kinematics/geometry.h"

#include <algorithm>
#include <cmath>

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

namespace {

constexpr double kInchesPerM = 39.37007874015748;

MeasureValue withoutValue(const MeasureDefinition& m, MeasureState state, std::string reason) {
    MeasureValue result;
    result.id = m.id;
    result.unit = m.unit;
    result.state = state;
    result.reason = std::move(reason);
    return result;
}

std::string viewsInWords(const MeasureDefinition& m) {
    std::string text;
    for (const View v : m.views) text += (text.empty() ? "" : " or ") + std::string(nameOf(v));
    return text;
}

/// The parameter vector: x, y of each slot, then roll, yaw, and the length that turns pixels into the unit.
struct Parameters {
    Eigen::VectorXd mean;
    Eigen::MatrixXd covariance;
};

Parameters parametersOf(const MeasureDefinition& m, const MeasureInput& in, Estimate unitPx) {
    const auto n = static_cast<Eigen::Index>(m.slots.size());
    Parameters p{Eigen::VectorXd::Zero(2 * n + 3), Eigen::MatrixXd::Zero(2 * n + 3, 2 * n + 3)};
    for (Eigen::Index i = 0; i < n; ++i) {
        const ClickedPoint& c = in.points.at(m.slots[static_cast<std::size_t>(i)].name);
        p.mean(2 * i) = c.at.x;
        p.mean(2 * i + 1) = c.at.y;
        p.covariance(2 * i, 2 * i) = p.covariance(2 * i + 1, 2 * i + 1) = c.sigmaPx * c.sigmaPx;
        // A landmark clicked once and used in two slots errs the same way in both.
        for (Eigen::Index j = 0; j < i; ++j) {
            const Slot& a = m.slots[static_cast<std::size_t>(i)];
            const Slot& b = m.slots[static_cast<std::size_t>(j)];
            if (a.landmark != b.landmark || a.at != b.at) continue;
            for (Eigen::Index k = 0; k < 2; ++k)
                p.covariance(2 * i + k, 2 * j + k) = p.covariance(2 * j + k, 2 * i + k) =
                    c.sigmaPx * c.sigmaPx;
        }
    }
    const auto put = [&](Eigen::Index at, Estimate e) {
        p.mean(at) = e.value;
        p.covariance(at, at) = e.sd * e.sd;
    };
    put(2 * n, in.rollDeg);
    put(2 * n + 1, in.yawDeg);
    put(2 * n + 2, unitPx);
    return p;
}

/// Formula on points already levelled and squared; `unitPx` pixels are one unit of length.
double formulaOn(const MeasureDefinition& m, const std::vector<ImagePoint>& p, int targetX, double unitPx) {
    switch (m.kind) {
    case MeasureKind::JointAngle:
        return jointAngleDeg(p[0], p[1], p[2]);
    case MeasureKind::Tilt:
        return tiltDeg(p[0], p[1], targetX);
    case MeasureKind::AboveLine:
        return aboveLineDeg(p[0], p[1], p[2]);
    case MeasureKind::AboveLevel:
        return std::atan2(p[0].y - p[1].y, std::abs(p[1].x - p[0].x)) * kDegPerRad;
    case MeasureKind::OffLine: {
        double largest = 0;
        for (std::size_t i = 2; i < p.size(); ++i)
            largest = std::max(largest, distanceFromLine(p[i], p[0], p[1]));
        return largest / unitPx;
    }
    case MeasureKind::Fall:
        return (p[1].y - p[0].y) / unitPx;
    case MeasureKind::Distance:
        return length(p[1] - p[0]) / unitPx;
    case MeasureKind::ChangeOfAngle:
        return jointAngleDeg(p[3], p[4], p[5]) - jointAngleDeg(p[0], p[1], p[2]);
    case MeasureKind::TimeBetween:
        break;
    }
    return std::nan("");
}

MeasureValue timeBetween(const MeasureDefinition& m, const MeasureInput& in) {
    for (const Moment moment : m.moments)
        if (!in.frames.contains(moment))
            return withoutValue(m, MeasureState::NotLookedAt,
                                "Set \"" + std::string(info(moment).name) + "\" first.");
    if (!(in.captureFps > 0))
        return withoutValue(
            m, MeasureState::NotVisible,
            "The capture rate is unknown, so frames can't be turned into time. Enter the rate.");
    const double n = static_cast<double>(in.frames.at(m.moments[1]) - in.frames.at(m.moments[0]));
    MeasureValue result;
    result.id = m.id;
    result.unit = m.unit;
    result.state = MeasureState::Measured;
    result.value = 1000.0 * n / in.captureFps;
    result.low95 = 1000.0 * (n - 1) / in.captureFps;
    result.high95 = 1000.0 * (n + 1) / in.captureFps;
    result.sd = 1000.0 / in.captureFps / std::sqrt(6.0);
    if (std::abs(n) < 3)
        result.warnings.push_back("Only " + std::to_string(static_cast<int>(std::abs(n))) +
                                  " frames apart: film at " + (in.captureFps < 110 ? "120" : "240") +
                                  " a second or more for this.");
    return result;
}

void warnAbout(const MeasureDefinition& m, const MeasureInput& in, MeasureValue& result) {
    if (std::abs(in.yawDeg.value) > 0 || in.yawDeg.sd > 0)
        result.warnings.push_back("Corrected for a camera turned from square.");
    const bool needsLevel =
        m.kind == MeasureKind::Tilt || m.kind == MeasureKind::AboveLevel || m.kind == MeasureKind::Fall;
    if (needsLevel && in.rollDeg.value == 0 && in.rollDeg.sd == 0)
        result.warnings.push_back("No plumb or level line yet: the picture is taken as level.");
}

/// Pixels that make one unit of a length measure, and the unit; value 0 when nothing gives it.
std::pair<Estimate, std::string> unitOfLength(const MeasureInput& in) {
    if (in.heightPx.value > 0) return {{in.heightPx.value / 100, in.heightPx.sd / 100}, "%"};
    if (in.pxPerM.value > 0) return {{in.pxPerM.value / kInchesPerM, in.pxPerM.sd / kInchesPerM}, "in"};
    return {{0, 0}, "%"};
}

} // namespace

MeasureValue evaluate(const MeasureDefinition& m, const MeasureInput& in) {
    if (!m.seenFrom(in.view))
        return withoutValue(m, MeasureState::NotVisible,
                            "Not visible from the " + std::string(nameOf(in.view)) +
                                ": ask for a film from the " + viewsInWords(m) + ".");
    if (m.kind == MeasureKind::TimeBetween) return timeBetween(m, in);
    for (const Slot& slot : m.slots)
        if (!in.points.contains(slot.name))
            return withoutValue(m, MeasureState::NotLookedAt,
                                "Place the " + std::string(info(slot.landmark).name) + " at " +
                                    std::string(info(slot.at).name) + " first.");
    Estimate unitPx{1, 0};
    std::string unit = m.unit;
    if (m.needsHeight()) {
        std::tie(unitPx, unit) = unitOfLength(in);
        if (unitPx.value <= 0)
            return withoutValue(
                m, MeasureState::NotLookedAt,
                "A length needs a size: place the top of the head and the ground at Set, or give a scale.");
    }
    const int targetX = targetDirectionX(in.hand, in.view);
    const auto n = static_cast<Eigen::Index>(m.slots.size());
    const Formula formula = [&](const Eigen::VectorXd& v) {
        std::vector<ImagePoint> points;
        points.reserve(m.slots.size());
        const double squeeze = std::cos(v(2 * n + 1) / kDegPerRad);
        for (Eigen::Index i = 0; i < n; ++i) {
            ImagePoint p = rotated({v(2 * i), v(2 * i + 1)}, -v(2 * n));
            p.x /= squeeze;
            points.push_back(p);
        }
        return formulaOn(m, points, targetX, v(2 * n + 2));
    };
    const Parameters p = parametersOf(m, in, unitPx);
    const Estimate e = propagate(formula, p.mean, p.covariance, m.isAngle());
    if (!std::isfinite(e.value) || !std::isfinite(e.sd))
        return withoutValue(m, MeasureState::NotLookedAt,
                            "Two of its points lie on the same spot. Move one of them.");
    MeasureValue result;
    result.id = m.id;
    result.unit = unit;
    result.state = MeasureState::Measured;
    result.value = e.value;
    result.sd = e.sd;
    result.low95 = e.value - e.half95();
    result.high95 = e.value + e.half95();
    warnAbout(m, in, result);
    return result;
}

} // namespace jg
