// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/accuracy/depth_table.h"

#include "bench/accuracy/wide_body.h"
#include "demo/films/random_orders.h"

#include <Eigen/Eigenvalues>

#include <array>
#include <cmath>
#include <cstdio>
#include <iostream>
#include <map>
#include <optional>
#include <random>

namespace jg {

namespace {

constexpr double kFps = 240;        // over whose frames a ball's speed is taken
constexpr double kFrontAimM = 0.55; // where a camera at the plate looks, before the rubber

constexpr int kBodies = 2000; // generated for the table of depths
constexpr int kWays = 10;     // in which bodies differ that the table keeps; own choice, see what it prints

/// Depths of every landmark at every moment toward one camera, in standing heights: a column a body.
class DepthTable {
public:
    void add(int body, Moment moment, Landmark landmark, double depth) {
        const auto [it, isNew] =
            rows_.try_emplace({moment, landmark}, static_cast<Eigen::Index>(rows_.size()));
        if (isNew) all_.conservativeResizeLike(Eigen::MatrixXd::Zero(it->second + 1, kBodies));
        all_(it->second, body) = depth;
    }
    /// Mean, sd, and its parts by the main ways in which the bodies differ (principal components).
    void solve() {
        mean_ = all_.rowwise().mean();
        const Eigen::MatrixXd off = all_.colwise() - mean_;
        covariance_ = off * off.transpose() / kBodies;
        const Eigen::SelfAdjointEigenSolver<Eigen::MatrixXd> solver(covariance_); // smallest first
        ways_ = (solver.eigenvectors() * solver.eigenvalues().cwiseMax(0).cwiseSqrt().asDiagonal())
                    .rightCols(kWays)
                    .rowwise()
                    .reverse();
        std::cerr << "the ways kept hold " << 100 * ways_.squaredNorm() / covariance_.trace() << " %\n";
    }
    /// Nothing is known exactly: the rubber's edge is clicked somewhere along its length.
    void print(Moment moment, Landmark landmark) const {
        constexpr double kLeastSd = 0.01;
        const Eigen::Index row = rows_.at({moment, landmark});
        std::printf("[%.4f, %.4f", mean_(row),
                    std::sqrt(std::max(kLeastSd * kLeastSd, covariance_(row, row))));
        for (Eigen::Index way = 0; way < kWays; ++way) std::printf(", %.4f", ways_(row, way));
        std::printf("]");
    }
    const auto& rows() const { return rows_; }

private:
    std::map<std::pair<Moment, Landmark>, Eigen::Index> rows_;
    Eigen::MatrixXd all_, covariance_, ways_;
    Eigen::VectorXd mean_;
};

/// How fast a joint may be wherever the bodies at hand happen to rest, standing heights a second: own choice.
double leastSpeedSd(Moment moment, Landmark landmark) {
    constexpr double kStanding = 0.08;
    using L = Landmark;
    const bool leadFoot = landmark == L::LeadAnkle || landmark == L::LeadHeel || landmark == L::LeadToe;
    const bool backFoot = landmark == L::BackAnkle || landmark == L::BackHeel || landmark == L::BackToe;
    const bool planted = moment >= Moment::Plant && moment <= Moment::Finish;
    if (landmark == L::Rubber || (leadFoot && planted) || (backFoot && moment <= Moment::Load))
        return kStanding;
    switch (moment) {
    case Moment::Set:
        return 0.05;
    case Moment::LiftTop:
        return 0.15;
    case Moment::HandBreak:
    case Moment::Load:
        return 0.3;
    default:
        return 0.5;
    }
}

/// Mean and variance of numbers as they come.
class Spread {
public:
    void add(double value) {
        ++count_;
        sum_ += value;
        squares_ += value * value;
    }
    double mean() const { return sum_ / count_; }
    double variance() const { return squares_ / count_ - mean() * mean(); }

private:
    int count_ = 0;
    double sum_ = 0, squares_ = 0;
};

/// How fast a joint moves at a moment, in standing heights a second.
class VelocityTable {
public:
    void add(const Eigen::Vector3d& v) {
        for (std::size_t i = 0; i < 3; ++i) axes_[i].add(v(static_cast<Eigen::Index>(i)));
    }
    /// With how bodies differ in tempo and way, own choice: a third of the speed in any direction, and at
    /// least `leastSd`. The generator swings down what is `thrown`, while a ball leaves about level: taken
    /// halfway between, own choice, and that much less sure.
    void print(double leastSd, bool thrown) const {
        constexpr double kWay = 0.35;
        constexpr std::size_t kUp = 1;
        const double speed = Eigen::Vector3d(axes_[0].mean(), axes_[1].mean(), axes_[2].mean()).norm();
        std::printf("[");
        for (std::size_t i = 0; i < 3; ++i) {
            const double half = thrown && i == kUp ? axes_[i].mean() / 2 : 0;
            const double variance =
                std::max(0.0, axes_[i].variance()) + std::pow(kWay * speed, 2) + half * half;
            std::printf("%s[%.2f, %.2f]", i == 0 ? "" : ", ", axes_[i].mean() - half,
                        std::sqrt(std::max(leastSd * leastSd, variance)));
        }
        std::printf("]");
    }

private:
    std::array<Spread, 3> axes_;
};

/// Speed toward one camera in the first frames after a moment, in standing heights a second.
void printSpeed(const Spread& speed) {
    constexpr double kLeastSd = 0.25; // own choice: a ball leaves within a degree of its line, or so
    std::printf("[%.3f, %.3f]", speed.mean(), std::sqrt(std::max(kLeastSd * kLeastSd, speed.variance())));
}

/// Joints that measures ask for on the frames after release.
constexpr Landmark kAfterRelease[] = {Landmark::BackWrist, Landmark::Ball};

/// What is gathered of all bodies.
struct Gathered {
    DepthTable open, front;
    std::map<Landmark, std::pair<Spread, Spread>> speeds; ///< after release, toward either camera
    std::map<Moment, std::map<Landmark, VelocityTable>> velocities;
};

void gather(int n, Gathered& all) {
    constexpr double kSoonS = 2 / kFps, kAroundS = 0.004;
    const FilmOrder order = randomOrder(11, n);
    const Delivery delivery(order.knobs);
    std::mt19937_64 engine(static_cast<std::uint64_t>(n) * 104729 + 3);
    const WideHabits habits(engine);
    const double height = order.knobs.heightM;
    const auto pose = [&](double timeS, Moment moment) {
        return habits.applied(delivery.poseAt(timeS).joints, moment, height);
    };
    for (const auto& [moment, timeS] : delivery.events()) {
        // The ball flies on after it has left; a moment taken too early shows it in the hand. Halfway through
        // this time lies the mean speed of the way from a frame at 60 a second to the release after it.
        constexpr double kLastS = 0.011;
        const bool release = moment == Moment::Release;
        const double beforeS = release ? kLastS : kAroundS, afterS = release ? 0 : kAroundS;
        const auto before = pose(timeS - beforeS, moment), after = pose(timeS + afterS, moment);
        for (const auto& [landmark, p] : pose(timeS, moment)) {
            all.open.add(n, moment, landmark, p(2) / height);
            all.front.add(n, moment, landmark, (p(0) - kFrontAimM) / height);
            all.velocities[moment][landmark].add((after.at(landmark) - before.at(landmark)) /
                                                 ((beforeS + afterS) * height));
        }
    }
    const double released = delivery.events().at(Moment::Release);
    const auto held = pose(released, Moment::Release), soon = pose(released + kSoonS, Moment::Release);
    for (const Landmark l : kAfterRelease) {
        const Eigen::Vector3d speed = (soon.at(l) - held.at(l)) / (kSoonS * height);
        all.speeds[l].first.add(speed(2));
        all.speeds[l].second.add(speed(0));
    }
}

/// Prints the rows of a table by moment and landmark, each by `print`.
template <typename Rows, typename Print>
void printRows(const Rows& rows, Print print) {
    std::optional<Moment> last;
    for (const auto& [moment, landmark] : rows) {
        if (last != moment)
            std::printf("%s    \"%s\": {", last ? "\n    },\n" : "\n", std::string(info(moment).id).c_str());
        std::printf("%s      \"%s\": ", last == moment ? ",\n" : "\n",
                    std::string(info(landmark).id).c_str());
        print(moment, landmark);
        last = moment;
    }
    std::printf("\n    }");
}

} // namespace

void writeDepths() {
    Gathered all;
    for (int n = 0; n < kBodies; ++n) gather(n, all);
    all.open.solve();
    all.front.solve();
    std::printf(
        "{\n  \"format\": \"juxtagraph-depths-5\",\n  \"about\": \"Depth of each landmark of a right-hander "
        "toward a camera square at the open side, then toward one at the plate, in standing heights: mean, "
        "sd, "
        "and the parts of the sd by the main ways in which bodies differ, the same order in all rows. Speeds "
        "toward these cameras after a moment, and velocities at it toward the target, up and toward third "
        "base: "
        "mean and sd in standing heights a second. Own choice, from %d generated deliveries made wide in "
        "stride, "
        "turn, lean, arm slot and build: accuracy --depths.\",\n  \"depths\": {",
        kBodies);
    std::vector<std::pair<Moment, Landmark>> rows;
    for (const auto& [row, index] : all.open.rows()) rows.push_back(row);
    printRows(rows, [&](Moment moment, Landmark landmark) {
        std::printf("[");
        all.open.print(moment, landmark);
        std::printf(", ");
        all.front.print(moment, landmark);
        std::printf("]");
    });
    std::printf("\n  },\n  \"velocities\": {");
    printRows(rows, [&](Moment moment, Landmark landmark) {
        all.velocities.at(moment).at(landmark).print(
            leastSpeedSd(moment, landmark),
            moment == Moment::Release && (landmark == Landmark::Ball || landmark == Landmark::BackWrist));
    });
    std::printf("\n  },\n  \"speeds\": {\n    \"release\": {");
    for (const Landmark l : kAfterRelease) {
        std::printf("%s\n      \"%s\": [", l == kAfterRelease[0] ? "" : ",", std::string(info(l).id).c_str());
        printSpeed(all.speeds.at(l).first);
        std::printf(", ");
        printSpeed(all.speeds.at(l).second);
        std::printf("]");
    }
    std::printf("\n    }\n  }\n}\n");
}

} // namespace jg
