// SPDX-License-Identifier: GPL-3.0-or-later
#include "tests/bodies/scenario.h"

#include "tests/bodies/pinhole.h"

#include <array>
#include <cmath>
#include <set>

namespace jg {

namespace {

constexpr double kTurnSdDeg = 3;      // how well a coach knows the camera's turn
constexpr double kSquareSdDeg = 2;    // how square a camera is of which somebody says that it is
constexpr double kPickedSdS = 0.008;  // how far the frame lies from the moment
constexpr double kScatterPx = 2;      // of clicks
constexpr double kLeanPart = 0.01;    // of the height
constexpr double kExercisePx = 2.001; // what the exercise found: known, not the usual error
constexpr double kSideAimM = 0.72, kFrontAimM = 0.55; // where cameras look, before the rubber

class Clicks {
public:
    Clicks(const Scenario& scenario, const MadeBody& body, View view, std::mt19937_64& engine)
        : scenario_(scenario)
        , body_(body)
        , engine_(engine)
        , startS_(body.times.at(Moment::Set) - 0.2 - uniform(0, 1) / scenario.fps) {
        camera_.view = view;
        camera_.hand = uniform(0, 1) < 0.3 ? Hand::Left : Hand::Right;
        camera_.yawDeg = scenario.said == TurnSaid::Square
                             ? kSquareSdDeg * normal_(engine_)
                             : uniform(-scenario.mostTurnDeg, scenario.mostTurnDeg);
        camera_.rollDeg = uniform(-4, 4);
        camera_.distanceM = uniform(5, 9);
        camera_.lensM = (0.6 + 0.15 * normal_(engine_)) * body.heightM;
        camera_.aimHeightM = 0.5 * body.heightM;
        camera_.aimAheadM = isSideView(view) ? kSideAimM : kFrontAimM;
        camera_.focalPx = camera_.width * camera_.distanceM / (1.2 + 1.9 * body.heightM);
        const auto joints = body.at(body.times.at(Moment::Set));
        const ImagePoint crown = camera_.project(joints.at(Landmark::Crown)),
                         ground = camera_.project(joints.at(Landmark::Ground));
        heightPx_ = std::hypot(crown.x - ground.x, crown.y - ground.y);
    }

    PointsDocument document(const Playbook& playbook, double& afterFrameS) {
        PointsDocument d;
        d.hand = camera_.hand;
        Clip clip;
        clip.id.value = "view-1";
        clip.view = camera_.view;
        clip.captureFps = scenario_.fps;
        clip.width = camera_.width;
        clip.height = camera_.height;
        clip.frames = std::numeric_limits<std::int32_t>::max();
        d.clips = {clip};
        DeliveryMarks marks;
        marks.number = 1;
        marks.clip = clip.id;
        if (scenario_.said == TurnSaid::Square) marks.turn = kSquareTurn;
        if (scenario_.said == TurnSaid::Degrees)
            marks.turn = CameraTurn{camera_.yawDeg + kTurnSdDeg * normal_(engine_), kTurnSdDeg};
        for (const auto& [moment, time] : body_.times) marks.moments[moment] = {frameOf(moment, time), ""};
        afterFrameS = body_.times.at(Moment::Release) - timeOf(*marks.moments.at(Moment::Release).frame);
        click(marks, {"", Landmark::Crown, Moment::Set});
        click(marks, {"", Landmark::Ground, Moment::Set});
        for (const MeasureDefinition& m : playbook.measures)
            if (m.seenFrom(camera_.view))
                for (const Slot& slot : m.slots) click(marks, slot);
        drawPost(marks);
        d.review.deliveries = {std::move(marks)};
        for (const MeasureDefinition& m : playbook.measures) d.review.extras.push_back(m.id);
        return d;
    }

private:
    double uniform(double low, double high) { return std::uniform_real_distribution<>(low, high)(engine_); }
    double timeOf(std::int64_t frame) const { return startS_ + static_cast<double>(frame) / scenario_.fps; }

    std::int64_t frameOf(Moment moment, double time) {
        const double exact = (time - startS_) * scenario_.fps;
        if (moment == Moment::Release) return std::llround(std::floor(exact));
        return std::llround(exact + kPickedSdS * normal_(engine_) * scenario_.fps);
    }

    void click(DeliveryMarks& marks, const Slot& slot) {
        const auto frame = marks.frameOf(slot);
        if (!frame || marks.points.contains({*frame, slot.landmark})) return;
        const ImagePoint p = camera_.project(body_.at(timeOf(*frame)).at(slot.landmark));
        const ImagePoint lean = leanOf(slot.landmark);
        const double lines = camera_.height / 720.0;
        const ImagePoint at{p.x + lean.x + kScatterPx * lines * normal_(engine_),
                            p.y + lean.y + kScatterPx * lines * normal_(engine_)};
        marks.points[{*frame, slot.landmark}] = {
            {at, scenario_.leans ? kDefaultClickSigmaPx : kExercisePx * lines}, ""};
    }

    /// Where this coach clicks a joint, against where it is.
    ImagePoint leanOf(Landmark landmark) {
        if (!scenario_.leans) return {0, 0};
        const auto [it, fresh] = leans_.try_emplace(landmark);
        if (fresh)
            it->second = {kLeanPart * heightPx_ * normal_(engine_), kLeanPart * heightPx_ * normal_(engine_)};
        return it->second;
    }

    /// A plumb line along a post up to 1.5 m beside where the camera looks.
    void drawPost(DeliveryMarks& marks) {
        const double aside = uniform(-1.5, 1.5);
        const auto seen = [&](double height) {
            const ImagePoint p = camera_.project(isSideView(camera_.view)
                                                     ? Eigen::Vector3d(camera_.aimAheadM + aside, height, 0)
                                                     : Eigen::Vector3d(camera_.aimAheadM, height, aside));
            return ImagePoint{p.x + kScatterPx * normal_(engine_), p.y + kScatterPx * normal_(engine_)};
        };
        FreeMark line;
        line.id = "line-1";
        line.kind = MarkKind::Plumb;
        line.frame = *marks.moments.at(Moment::Set).frame;
        line.points = {seen(0.1), seen(2.0)};
        marks.marks[line.id] = std::move(line);
    }

    const Scenario& scenario_;
    const MadeBody& body_;
    std::mt19937_64& engine_;
    std::normal_distribution<> normal_;
    double startS_;
    Pinhole camera_;
    double heightPx_ = 0;
    std::map<Landmark, ImagePoint> leans_;
};

} // namespace

std::span<const Scenario> scenarios() {
    static constexpr std::array<Scenario, 6> all = {
        {{"square, said so, exercise done, 240", 0, TurnSaid::Square, false, 240},
         {"square, nothing said, 240", 0, TurnSaid::Nothing, true, 240},
         {"square, nothing said, 60", 0, TurnSaid::Nothing, true, 60},
         {"to 25 degrees, said to 3, 240", 25, TurnSaid::Degrees, true, 240},
         {"to 25 degrees, said to 3, exercise done, 60", 25, TurnSaid::Degrees, false, 60},
         {"to 25 degrees, nothing said, 240", 25, TurnSaid::Nothing, true, 240}}};
    return all;
}

PointsDocument clickedBy(const Scenario& scenario, const MadeBody& body, View view, const Playbook& playbook,
                         std::mt19937_64& engine, double& afterFrameS) {
    return Clicks(scenario, body, view, engine).document(playbook, afterFrameS);
}

} // namespace jg
