// SPDX-License-Identifier: GPL-3.0-or-later
#include "kinematics/release_instant.h"

#include "kinematics/geometry.h"
#include "kinematics/propagation.h"
#include "kinematics/uncertain_number.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <vector>

namespace jg {

namespace {

using Eigen::Vector3d;

/// How far the ball is ahead of where the hand would hold it, t frames after the last frame that holds it, as
/// the coefficients of 1, t and t^2. Points: ball and wrist on three frames in a row. The free ball goes on
/// evenly along its flight, the wrist by the parabola through its three places, and in the hand the ball is
/// as far ahead of it as on the first frame. NaN when the ball stands still.
std::array<double, 3> gainOfBall(const std::vector<ImagePoint>& p) {
    const ImagePoint flight = p[4] - p[2];
    const double run = length(flight), none = std::nan("");
    if (run == 0) return {none, none, none};
    const auto along = [&](ImagePoint q) { return (q.x * flight.x + q.y * flight.y) / run; };
    const double wrist0 = along(p[1]), wrist1 = along(p[3]), wrist2 = along(p[5]);
    const double slowing = wrist2 - 2 * wrist1 + wrist0;
    return {along(p[2]) - run - along(p[0]), run - (wrist1 - wrist0) + slowing / 2, -slowing / 2};
}

/// The gain of the ball over the hand as c + b t + a t^2, with the covariance of the three.
struct Gain {
    Vector3d mean;
    Eigen::Matrix3d covariance;
    double at(double t) const { return mean.dot(Vector3d(1, t, t * t)); }
    double slope(double t) const { return mean(1) + 2 * mean(2) * t; }
    double variance(double t) const {
        const Vector3d w(1, t, t * t);
        return w.dot(covariance * w);
    }
};

/// A coefficient, or the sum of two: from these follows how they err together.
Estimate coefficients(const MeasureDefinition& m, const MeasureInput& in, std::size_t i, std::size_t j) {
    return UncertainNumber(m, in, {1, 0}, false,
                           [i, j](const std::vector<ImagePoint>& p, double) {
                               const auto gain = gainOfBall(p);
                               return i == j ? gain[i] : gain[i] + gain[j];
                           })
        .estimate();
}

Gain gainOf(const MeasureDefinition& m, const MeasureInput& in) {
    Gain gain;
    for (Eigen::Index i = 0; i < 3; ++i) {
        const auto k = static_cast<std::size_t>(i);
        const Estimate e = coefficients(m, in, k, k);
        gain.mean(i) = e.value;
        gain.covariance(i, i) = e.sd * e.sd;
        for (Eigen::Index j = 0; j < i; ++j) {
            const double sum = coefficients(m, in, k, static_cast<std::size_t>(j)).sd;
            gain.covariance(i, j) = gain.covariance(j, i) =
                (sum * sum - gain.covariance(i, i) - gain.covariance(j, j)) / 2;
        }
    }
    return gain;
}

/// The instants of a bracket one frame long, each with its weight.
class Instants {
public:
    Instants(const Gain& gain, double modelSd) {
        double most = -INFINITY;
        for (std::size_t i = 0; i < kSteps; ++i) {
            const double t = timeOf(i), off = gain.at(t), model = modelSd * gain.slope(t);
            const double variance = gain.variance(t) + model * model;
            if (off * off / variance < nearest_) best_ = t, nearest_ = off * off / variance;
            weights_[i] = -off * off / variance / 2;
            most = std::max(most, weights_[i]);
        }
        for (std::size_t i = 0; i < kSteps; ++i) {
            sum_ += weights_[i] = std::exp(weights_[i] - most);
            mean_ += weights_[i] * timeOf(i);
        }
        mean_ /= sum_;
    }
    /// The one the clicks agree with best, and how badly in sds.
    double best() const { return best_; }
    double misfit() const { return std::sqrt(nearest_); }
    double mean() const { return mean_; }
    double sd() const {
        double sum = 0;
        for (std::size_t i = 0; i < kSteps; ++i) sum += weights_[i] * std::pow(timeOf(i) - mean_, 2);
        constexpr double kStep = 1.0 / kSteps; // no finer than the steps it is weighed by
        return std::sqrt(sum / sum_ + kStep * kStep / 12);
    }
    /// The instant with `part` of the weight before it.
    double quantile(double part) const {
        double before = 0;
        for (std::size_t i = 0; i < kSteps; ++i) {
            if (before + weights_[i] >= part * sum_)
                return timeOf(i) + ((part * sum_ - before) / weights_[i] - 0.5) / kSteps;
            before += weights_[i];
        }
        return 1;
    }

private:
    static constexpr std::size_t kSteps = 400;
    static double timeOf(std::size_t i) { return (static_cast<double>(i) + 0.5) / kSteps; }

    std::array<double, kSteps> weights_{};
    double sum_ = 0, mean_ = 0, best_ = 0, nearest_ = INFINITY;
};

void warnOf(MeasureValue& value, double best, double frameMs) {
    if (best < 0.05 || best > 0.95)
        value.warnings.push_back(best < 0.5 ? msg("release-instant.edge-first")
                                            : msg("release-instant.edge-second"));
    if (value.high95 - value.low95 > 0.8 * frameMs) value.warnings.push_back(msg("release-instant.no-finer"));
}

} // namespace

MeasureValue releaseInstantOf(const MeasureDefinition& m, const MeasureInput& in) {
    if (!(in.captureFps > 0)) return withoutValue(m, MeasureState::NotVisible, msg("timing.no-rate"));
    // Own choice, in frames, after generated deliveries: over a longer frame the wrist's way is less a
    // parabola.
    const double modelSd = 0.02 + 0.08 * std::pow(60 / in.captureFps, 2);
    const Gain gain = gainOf(m, in);
    if (!(gain.at(1) > gain.at(0)))
        return withoutValue(m, MeasureState::NotLookedAt, msg("release-instant.not-leaving"));
    const Instants instants(gain, modelSd);
    if (instants.misfit() > kSdsOf95)
        return withoutValue(m, MeasureState::NotLookedAt,
                            gain.at(0.5) > 0 ? msg("release-instant.earlier") : msg("release-instant.later"));
    const double frameMs = 1000 / in.captureFps;
    MeasureValue result = withValue(m, {instants.mean() * frameMs, instants.sd() * frameMs}, m.unit);
    result.low95 = instants.quantile(0.025) * frameMs;
    result.high95 = instants.quantile(0.975) * frameMs;
    warnOf(result, instants.best(), frameMs);
    return result;
}

} // namespace jg
