// How often each measure's 95 % interval holds the truth, on random generated deliveries: accuracy COUNT
// writes the table of docs/accuracy.md; accuracy --depths writes data/playbook/depths.json from other
// deliveries.
#include "coaching/playbook.h"
#include "demo/random_orders.h"
#include "desk/places.h"
#include "kinematics/foreshortening.h"
#include "kinematics/formula.h"
#include "kinematics/geometry.h"
#include "kinematics/measure.h"
#include "kinematics/place.h"
#include "kinematics/roll.h"
#include "kinematics/turn.h"
#include "words/words.h"

#include <Eigen/Eigenvalues>
#include <QCoreApplication>

#include <array>
#include <cmath>
#include <cstdio>
#include <cstdlib>
#include <iostream>
#include <map>
#include <optional>
#include <random>
#include <vector>

namespace {

using namespace jg;

constexpr double kFps = 240;          // where a measure is of several frames in a row
constexpr double kYawSdDeg = 3;       // how well a coach knows the camera's turn
constexpr double kDistancePart = 0.1; // and its distance
constexpr double kLensHeights = 0.6,
                 kLensSd = 0.15; // lenses stand between belt and chest, in standing heights
constexpr double kSideAimM = 0.72, kFrontAimM = 0.55; // where the cameras look, before the rubber

/// The generator turns all cameras the same way round; the measures count toward target or glove side.
double yawOf(const CameraSettings& camera) {
    return camera.view == View::Open || camera.view == View::Front ? camera.yawDeg : -camera.yawDeg;
}

/// What one measure did over all deliveries.
struct Tally {
    int asked = 0, within = 0, refusedRightly = 0, shownWrongly = 0;
    double sumScaled = 0; ///< of (value - truth) / sd
    double sumHalf95 = 0;
    std::string unit;
};

/// Seen square, level and without perspective: what the measures are defined on. A right-hander's world.
ImagePoint ideal(const Eigen::Vector3d& p, View view) {
    switch (view) {
    case View::Open:
        return {p(0), -p(1)};
    case View::Closed:
        return {-p(0), -p(1)};
    case View::Front:
        return {-p(2), -p(1)};
    case View::Rear:
        break;
    }
    return {p(2), -p(1)};
}

class Deliveries {
public:
    explicit Deliveries(const Playbook& playbook)
        : playbook_(playbook) {}

    void add(int n) {
        FilmOrder order = randomOrder(2026, n);
        order.camera.yawDeg = uniform(-25, 25);
        order.camera.rollDeg = uniform(-4, 4);
        order.camera.distanceM = uniform(5, 9);
        order.camera.heightM = (kLensHeights + kLensSd * normal_(engine_)) * order.knobs.heightM;
        order.camera.fieldM = 1.2 + 1.7 * order.knobs.heightM;
        const Delivery delivery(order.knobs);
        const double sigma = uniform(1.2, 3.5);
        const MeasureInput scene = sceneOf(order, delivery, sigma);
        for (const MeasureDefinition& m : playbook_.measures)
            if (m.hasPoints()) addMeasure(m, order, delivery, scene, sigma);
    }

    std::map<std::string, Tally> tallies;

private:
    double uniform(double low, double high) { return std::uniform_real_distribution<>(low, high)(engine_); }
    ImagePoint clicked(ImagePoint p, double sigma) {
        return {p.x + sigma * normal_(engine_), p.y + sigma * normal_(engine_)};
    }

    /// Level, turn of the camera and standing height, each as uncertain as a coach knows it.
    MeasureInput sceneOf(const FilmOrder& order, const Delivery& delivery, double sigma) {
        MeasureInput in;
        in.hand = order.hand;
        in.view = order.camera.view;
        in.camera = CameraPlace{{order.camera.width / 2.0, order.camera.height / 2.0}, {}, {}, {}};
        const double heights = order.camera.distanceM / order.knobs.heightM, sd = kDistancePart * heights;
        in.camera->distance = {heights + sd * normal_(engine_), sd};
        in.yawDeg = {yawOf(order.camera) + kYawSdDeg * normal_(engine_), kYawSdDeg};
        const auto set = projectJoints(order, delivery.poseAt(delivery.events().at(Moment::Set)));
        const ImagePoint top = clicked(set.at(Landmark::Crown), sigma),
                         foot = clicked(set.at(Landmark::Ground), sigma), v = top - foot;
        in.camera->standing = {(top.x + foot.x) / 2, (top.y + foot.y) / 2};
        in.heightPx = {length(v), std::sqrt(2.0) * sigma};
        in.camera->pitchDeg = pitchFromGround((foot.y - in.camera->centre.y) / length(v),
                                              {kLensHeights, kLensSd}, in.camera->distance);
        const auto [low, high] = postSeen(order, sigma);
        in.rollDeg = rollFromPlumb(low, high, *in.camera, in.camera->distance.value * in.heightPx.value);
        return in;
    }

    /// A post of the shed, anywhere beside the athlete.
    std::array<ClickedPoint, 2> postSeen(const FilmOrder& order, double sigma) {
        constexpr double kAsideM = 1.5;
        const bool fromSide = isSideView(order.camera.view);
        const double aside = uniform(-kAsideM, kAsideM);
        const Camera camera(order.camera);
        const auto seen = [&](double height) {
            ImagePoint p = camera.project(fromSide ? Eigen::Vector3d{kSideAimM + aside, height, 0}
                                                   : Eigen::Vector3d{kFrontAimM, height, aside});
            if (order.hand == Hand::Left) p.x = order.camera.width - p.x;
            return ClickedPoint{clicked(p, sigma), sigma};
        };
        return {seen(0.1), seen(2.0)};
    }

    void addMeasure(const MeasureDefinition& m, const FilmOrder& order, const Delivery& delivery,
                    MeasureInput in, double sigma) {
        Tally& t = tallies[m.id];
        t.unit = m.unit == "in" ? "%" : m.unit;
        std::vector<ImagePoint> truth;
        // The moment falls anywhere between two frames; only what is clicked on several frames minds.
        const bool manyFrames = m.kind == MeasureKind::ReleaseInstant;
        const double beforeS = manyFrames ? uniform(0, 1) / kFps : 0;
        in.captureFps = kFps;
        for (const Slot& slot : m.slots) {
            const auto event = delivery.events().find(slot.at);
            if (event == delivery.events().end()) return; // the generator does not know this moment
            const Pose pose = delivery.poseAt(event->second - beforeS + slot.frames / kFps);
            truth.push_back(ideal(pose.joints.at(slot.landmark), order.camera.view));
            if (!in.points.contains(slot.name))
                in.points[slot.name] = {clicked(projectJoints(order, pose).at(slot.landmark), sigma), sigma};
        }
        playbook_.depths.fill(m, in);
        if (m.id == "lift-height") in.limbs = thighTurned(order, delivery, in, sigma);
        const MeasureValue v = evaluate(m, in);
        if (!m.seenFrom(order.camera.view)) {
            ++(v.state == MeasureState::NotVisible ? t.refusedRightly : t.shownWrongly);
            return;
        }
        if (!v.value) return;
        const double right = m.id == "lift-height" ? thighRise(delivery)
                             : manyFrames          ? 1000 * beforeS
                                                   : truthOf(m, truth, order, delivery);
        if (!std::isfinite(right)) return;
        ++t.asked;
        t.within += v.low95 <= right && right <= v.high95;
        if (v.sd > 0) t.sumScaled += (*v.value - right) / v.sd;
        t.sumHalf95 += v.half95();
    }

    /// The lead thigh at the top of the lift, held against itself at plant.
    std::vector<LimbTurn> thighTurned(const FilmOrder& order, const Delivery& delivery,
                                      const MeasureInput& in, double sigma) {
        const auto plant = projectJoints(order, delivery.poseAt(delivery.events().at(Moment::Plant)));
        const Estimate there{length(clicked(plant.at(Landmark::LeadHip), sigma) -
                                    clicked(plant.at(Landmark::LeadKnee), sigma)),
                             std::sqrt(2.0) * sigma},
            here{length(in.points.at("lead-hip").at - in.points.at("lead-knee").at), std::sqrt(2.0) * sigma};
        const SeenLimb seen[] = {{Landmark::LeadHip, Landmark::LeadKnee, Moment::LiftTop, here},
                                 {Landmark::LeadHip, Landmark::LeadKnee, Moment::Plant, there}};
        return turnedLimbs(seen);
    }

    /// Degrees of the lead thigh above level, in space.
    static double thighRise(const Delivery& delivery) {
        const Joints j = delivery.poseAt(delivery.events().at(Moment::LiftTop)).joints;
        const Eigen::Vector3d v = j.at(Landmark::LeadKnee) - j.at(Landmark::LeadHip);
        return std::asin(v(1) / v.norm()) * kDegPerRad;
    }

    static double truthOf(const MeasureDefinition& m, const std::vector<ImagePoint>& points,
                          const FilmOrder& order, const Delivery& delivery) {
        const Pose set = delivery.poseAt(delivery.events().at(Moment::Set));
        const double height = length(ideal(set.joints.at(Landmark::Crown), order.camera.view) -
                                     ideal(set.joints.at(Landmark::Ground), order.camera.view));
        const View view = order.camera.view;
        const double value = formulaOn(
            m, points,
            {targetDirectionX(Hand::Right, view), gloveDirectionX(Hand::Right, view), height / 100});
        if (m.kind == MeasureKind::TurnSide) return turnFromRatio({value, 0}, TurnSeen::FromSide).deg;
        if (m.kind == MeasureKind::TurnFrontSigned) return signedTurnFromRatio({value, 0}).deg;
        if (m.kind == MeasureKind::TurnFront) return turnFromRatio({value, 0}, TurnSeen::FromFront).deg;
        return value;
    }

    const Playbook& playbook_;
    std::mt19937_64 engine_{7};
    std::normal_distribution<> normal_;
};

constexpr int kBodies = 4000; // generated for the table of depths
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
    void print(Moment moment, Landmark landmark) const {
        const Eigen::Index row = rows_.at({moment, landmark});
        std::printf("[%.4f, %.4f", mean_(row), std::sqrt(covariance_(row, row)));
        for (Eigen::Index way = 0; way < kWays; ++way) std::printf(", %.4f", ways_(row, way));
        std::printf("]");
    }
    const auto& rows() const { return rows_; }

private:
    std::map<std::pair<Moment, Landmark>, Eigen::Index> rows_;
    Eigen::MatrixXd all_, covariance_, ways_;
    Eigen::VectorXd mean_;
};

/// Speed toward one camera in the first frames after a moment, in standing heights a second.
class SpeedTable {
public:
    void add(double speed) {
        ++count_;
        sum_ += speed;
        squares_ += speed * speed;
    }
    void print() const {
        constexpr double kLeastSd = 0.25; // own choice: a ball leaves within a degree of its line, or so
        const double mean = sum_ / count_, variance = squares_ / count_ - mean * mean;
        std::printf("[%.3f, %.3f]", mean, std::sqrt(std::max(kLeastSd * kLeastSd, variance)));
    }

private:
    int count_ = 0;
    double sum_ = 0, squares_ = 0;
};

/// Joints that measures ask for on the frames after release.
constexpr Landmark kAfterRelease[] = {Landmark::BackWrist, Landmark::Ball};

void writeDepths() {
    DepthTable open, front;
    std::map<Landmark, std::pair<SpeedTable, SpeedTable>> speeds;
    for (int n = 0; n < kBodies; ++n) {
        const FilmOrder order = randomOrder(11, n);
        const Delivery delivery(order.knobs);
        for (const auto& [moment, timeS] : delivery.events())
            for (const auto& [landmark, p] : delivery.poseAt(timeS).joints) {
                open.add(n, moment, landmark, p(2) / order.knobs.heightM);
                front.add(n, moment, landmark, (p(0) - kFrontAimM) / order.knobs.heightM);
            }
        constexpr double kSoonS = 2 / kFps;
        const double released = delivery.events().at(Moment::Release);
        const Pose held = delivery.poseAt(released), soon = delivery.poseAt(released + kSoonS);
        for (const Landmark l : kAfterRelease) {
            const Eigen::Vector3d speed =
                (soon.joints.at(l) - held.joints.at(l)) / (kSoonS * order.knobs.heightM);
            speeds[l].first.add(speed(2));
            speeds[l].second.add(speed(0));
        }
    }
    open.solve();
    front.solve();
    std::printf(
        "{\n  \"format\": \"juxtagraph-depths-4\",\n  \"about\": \"Depth of each landmark of a right-hander "
        "toward a camera square at the open side, then toward one at the plate, in standing heights: mean, "
        "sd, and "
        "the parts of the sd by the main ways in which bodies differ, the same order in all rows. Speeds "
        "toward these cameras after a moment: mean and sd in standing heights a second. Own choice, from "
        "%d generated deliveries: accuracy --depths.\",\n  \"depths\": {",
        kBodies);
    std::optional<Moment> last;
    for (const auto& [row, index] : open.rows()) {
        const auto& [moment, landmark] = row;
        if (last != moment)
            std::printf("%s    \"%s\": {", last ? "\n    },\n" : "\n", std::string(info(moment).id).c_str());
        std::printf("%s      \"%s\": [", last == moment ? ",\n" : "\n",
                    std::string(info(landmark).id).c_str());
        open.print(moment, landmark);
        std::printf(", ");
        front.print(moment, landmark);
        std::printf("]");
        last = moment;
    }
    std::printf("\n    }\n  },\n  \"speeds\": {\n    \"release\": {");
    for (const Landmark l : kAfterRelease) {
        std::printf("%s\n      \"%s\": [", l == kAfterRelease[0] ? "" : ",", std::string(info(l).id).c_str());
        speeds.at(l).first.print();
        std::printf(", ");
        speeds.at(l).second.print();
        std::printf("]");
    }
    std::printf("\n    }\n  }\n}\n");
}

} // namespace

int main(int argc, char** argv) {
    const QCoreApplication app(argc, argv); // finds the playbook beside the program
    if (argc > 1 && std::string(argv[1]) == "--depths") {
        writeDepths();
        return 0;
    }
    const int count = argc > 1 ? std::atoi(argv[1]) : 1000;
    const auto playbook = loadPlaybook(dataFolder() / "playbook");
    if (!playbook || count <= 0) {
        std::cerr << (playbook ? "accuracy COUNT" : english()(playbook.error().text)) << "\n";
        return 1;
    }
    Deliveries all(*playbook);
    for (int n = 0; n < count; ++n) all.add(n);
    std::printf("| measure | asked | within 95 %% | bias / sd | mean +- | wrong view refused "
                "|\n|---|---|---|---|---|---|\n");
    for (const auto& [id, t] : all.tallies) {
        if (t.asked == 0) continue;
        std::printf("| %s | %d | %.1f %% | %+.2f | %.1f %s | %d of %d |\n", id.c_str(), t.asked,
                    100.0 * t.within / t.asked, t.sumScaled / t.asked, t.sumHalf95 / t.asked, t.unit.c_str(),
                    t.refusedRightly, t.refusedRightly + t.shownWrongly);
    }
    return 0;
}
