// SPDX-License-Identifier: GPL-3.0-or-later
#include "demo/library/demo_review.h"

#include "desk/keeping/places.h"
#include "desk/own/own_error_exercise.h"
#include "desk/session/begin_judging.h"
#include "desk/session/follow_paths.h"
#include "desk/session/suggest.h"
#include "review/assess/guide.h"
#include "review/record/deliveries.h"
#include "review/tell/stops.h"
#include "voice/audio_file.h"
#include "voice/microphone.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <functional>
#include <random>

namespace jg {

namespace {

/// Normal numbers from the engine's bits (Box and Muller 1958): the same on every system.
class Wobble {
public:
    explicit Wobble(std::uint64_t seed)
        : engine_(seed) {}
    double next() {
        const auto unit = [&] { return (static_cast<double>(engine_() >> 11) + 0.5) / 9007199254740992.0; };
        return std::sqrt(-2 * std::log(unit())) * std::cos(2 * M_PI * unit());
    }

private:
    std::mt19937_64 engine_;
};

void setPositions(DeliveryMarks& r, const Clip& clip, const FilmOrder& order, const Delivery& d) {
    for (const auto& [moment, timeS] : d.events()) {
        const double at = (timeS - filmStartS(order, d)) * order.fps;
        // "Last frame that" rounds down, "first frame that" up, turning points to the nearest.
        const bool last = moment == Moment::Set || moment == Moment::Release;
        const bool first = moment == Moment::HandBreak || moment == Moment::FootTouch ||
                           moment == Moment::Plant || moment == Moment::HandAboveShoulder;
        const auto frame = static_cast<std::int64_t>(last    ? std::floor(at)
                                                     : first ? std::ceil(at - 1e-6)
                                                             : std::round(at));
        if (frame >= 0 && frame < clip.frames) r.moments[moment] = {frame, ""};
    }
}

/// Moments beside the events of the generator that the usual approach asks for, read off the moving joints.
void setFurtherMoments(DeliveryMarks& r, const Clip& clip, const FilmOrder& order, const Delivery& d) {
    const auto top = r.frameOf(Moment::LiftTop), plant = r.frameOf(Moment::Plant),
               release = r.frameOf(Moment::Release);
    if (!top || !plant || !release) return;
    const auto put = [&](Moment moment, std::int64_t frame) {
        r.moments[moment] = {std::clamp<std::int64_t>(frame, 0, clip.frames - 1), ""};
    };
    const auto toeHeight = [&](std::int64_t frame) {
        const Joints j = d.poseAt(timeOfPicture(order, d, static_cast<double>(frame))).joints;
        const auto& toe = j.at(Landmark::BackToe);
        return toe(1) - d.groundAt(toe(0));
    };
    constexpr double kOffM = 0.04;
    std::int64_t off = *plant;
    while (off < clip.frames - 1 && toeHeight(off) < kOffM) ++off;
    put(Moment::BackToeOff, off);
    const auto kneeHeight = [&](std::int64_t frame) {
        return d.poseAt(timeOfPicture(order, d, static_cast<double>(frame))).joints.at(Landmark::LeadKnee)(1);
    };
    constexpr double kFallenM = 0.03;
    std::int64_t down = *top;
    while (down < *plant && kneeHeight(down) > kneeHeight(*top) - kFallenM) ++down;
    put(Moment::KneeDown, down);
    put(Moment::BeforeRelease, std::max(*plant + 1, *release - std::max(1, order.fps / 60)));
}

/// What is seen: on target, as the generator moves.
void answerSeen(const Review& review, DeliveryMarks& r, const Playbook& playbook, const Clip& clip) {
    for (const Target& t : review.approach().targets)
        if (const MeasureDefinition* m = playbook.measure(t.measure);
            m->kind == MeasureKind::Seen && m->seenFrom(clip.view) && !t.wanted.empty())
            r.answers[m->id] = {t.wanted.front(), {}};
}

/// Click error of the coach on a landmark, pixels.
using SigmaOf = std::function<double(Landmark)>;

/// What the coach says of how the camera stood. The film maker turns all cameras the same way round.
CameraTurn turnSaid(const CameraSettings& camera) {
    if (camera.yawDeg == 0) return kSquareTurn;
    const bool sameWay = camera.view == View::Open || camera.view == View::Front;
    return {sameWay ? camera.yawDeg : -camera.yawDeg};
}

/// Where the pretended coach clicks a joint on a frame.
ImagePoint clickedAt(const PointKey& joint, const FilmOrder& order, const Delivery& d,
                     const DemoReviewWish& wish, Wobble& wobble) {
    const Pose pose = d.poseAt(timeOfPicture(order, d, static_cast<double>(joint.frame)));
    ImagePoint p = projectJoints(order, pose).at(joint.landmark);
    p.x += wish.clickSigmaPx * wobble.next();
    p.y += wish.clickSigmaPx * wobble.next();
    return p;
}

void clickPoints(const Review& review, DeliveryMarks& r, const Playbook& playbook, const Clip& clip,
                 const FilmOrder& order, const Delivery& d, const DemoReviewWish& wish,
                 const SigmaOf& sigmaOf) {
    Wobble wobble(wish.seed + static_cast<std::uint64_t>(r.number) - 1);
    std::vector<GuideStep> steps = openSteps(review, r, playbook, clip);
    if (steps.size() > wish.measuresOpen) steps.resize(steps.size() - wish.measuresOpen);
    for (const GuideStep& s : steps) {
        const ImagePoint at = clickedAt({s.frame, s.landmark}, order, d, wish, wobble);
        r.points[{s.frame, s.landmark}] = {{at, sigmaOf(s.landmark)}, ""};
    }
    const auto set = r.frameOf(Moment::Set);
    if (set)
        r.marks["plumb-1"] = {
            "plumb-1",
            MarkKind::Plumb,
            *set,
            {{clip.width * 0.305, clip.height * 0.13}, {clip.width * 0.3055, clip.height * 0.62}}};
}

/// Positions and points of one delivery.
void markDelivery(const Review& review, DeliveryMarks& marks, const Playbook& playbook, const Clip& clip,
                  const FilmOrder& order, const DemoReviewWish& wish, const SigmaOf& sigmaOf) {
    const Delivery d(order.knobs);
    marks.turn = turnSaid(order.camera);
    setPositions(marks, clip, order, d);
    setFurtherMoments(marks, clip, order, d);
    answerSeen(review, marks, playbook, clip);
    clickPoints(review, marks, playbook, clip, order, d, wish, sigmaOf);
}

/// Joints followed between their clicks, and clicked where they were lost, as P in Measure asks for.
Status followJoints(const Library& library, DeliveryMarks& marks, const Clip& clip, const FilmOrder& order,
                    const DemoReviewWish& wish, const SigmaOf& sigmaOf, std::stop_token stop) {
    constexpr int kRounds = 4; // a joint lost more often is left
    const Delivery d(order.knobs);
    Wobble wobble(wish.seed + 1000);
    for (int round = 0; round < kRounds; ++round) {
        const auto plan = followPlan(library, clip, marks);
        if (!plan) return Done{}; // nothing was clicked twice
        auto paths = followPaths(*plan, stop);
        if (!paths) return paths.error();
        marks.paths = std::move(*paths);
        if (round + 1 == kRounds) break;
        for (const auto& [landmark, path] : marks.paths)
            for (const std::int64_t frame : path.asks) {
                const ImagePoint at = clickedAt({frame, landmark}, order, d, wish, wobble);
                marks.points[{frame, landmark}] = {{at, sigmaOf(landmark)}, ""};
            }
    }
    return Done{};
}

void gradeItems(Review& r, const Playbook& playbook, const Clip& clip, const DeliveryKnobs& k,
                std::size_t leaveOpen) {
    const std::map<std::string, int> steps = {{"load-shared", k.backKneeLoad < 112 ? 5 : 2},
                                              {"whole-foot-load", 5},
                                              {"sits-behind-heel", k.backKneeLoad < 112 ? 4 : 2},
                                              {"head-over-back-foot", 4},
                                              {"carried-leg", 5},
                                              {"foot-comes-down", 4},
                                              {"whole-foot-landing", 5},
                                              {"knee-holds", k.frontKneeRelease >= k.frontKneePlant ? 5 : 2},
                                              {"elbow-with-shoulder", k.elbowHeight > 4 ? 2 : 5},
                                              {"glove-firm", k.gloveReach > 0.6 ? 5 : 2},
                                              {"back-toes-down", k.backFootLift < 0.03 ? 5 : 2},
                                              {"arm-swings-across", 4}};
    const auto stepOf = [&](const std::string& id) {
        const auto it = steps.find(id);
        return it == steps.end() ? 4 : it->second;
    };
    std::vector<std::string> ids = r.approach().graded;
    if (ids.size() > leaveOpen) ids.resize(ids.size() - leaveOpen);
    for (const std::string& id : ids) {
        const GradedItem* item = playbook.item(id);
        if (item->seenFrom(clip.view))
            r.judging().grades[{r.lead, id}] = {GradeState::Graded, stepOf(id), "", {}};
    }
}

void orderStops(Review& r, const Playbook& playbook, const Assessment& a, IdSource& ids) {
    std::size_t strengths = 0, corrections = 0;
    const auto add = [&](const std::string& finding) {
        if (auto stop = stopFor(r, playbook, a, finding, ids.next<StopTag>("stop")))
            r.stops = withStop(std::move(r.stops), std::move(*stop));
    };
    for (const Judged& j : a.findings)
        if (j.strength && strengths < 2) add(j.finding.id), ++strengths;
    for (const std::string& id : causesOf(playbook, a, r.plan).order)
        if (corrections < 2) add(id), ++corrections;
    r.stops.push_back({ids.next<StopTag>("stop"), StopKind::Recap, "", "Once more, in short",
                       r.first().frameOf(Moment::Plant).value_or(0), r.lead});
}

/// A closer look at a joint with a ring round it.
void lookCloser(Take& take, std::int64_t from, std::int64_t drawn, Landmark joint, ImagePoint at,
                const Clip& clip) {
    constexpr double kPart = 0.3, kRing = 0.035; // of the picture's height, to each side
    const double high = kPart * clip.height, wide = high * clip.width / clip.height;
    take.events.push_back(
        {.sample = from,
         .kind = TakeEventKind::View,
         .at = {std::max(0.0, at.x - wide), std::max(0.0, at.y - high)},
         .to = {std::min<double>(clip.width, at.x + wide), std::min<double>(clip.height, at.y + high)}});
    take.events.push_back(
        {.sample = drawn, .kind = TakeEventKind::StrokeBegin, .at = at, .pen = Pen::Ring, .joint = joint});
    take.events.push_back(
        {.sample = drawn, .kind = TakeEventKind::StrokeTo, .at = {at.x + kRing * clip.height, at.y}});
}

/// A few steps round the stop's frame, a closer look and a pointing finger, spread over the take.
void addEvents(Take& take, const Stop& stop, const Review& r, const Clip& clip) {
    const auto at = [&](double part) {
        return static_cast<std::int64_t>(part * static_cast<double>(take.samples));
    };
    for (int i = 0; i <= 8; ++i) {
        const std::int64_t frame = std::clamp<std::int64_t>(stop.frame - 8 + i, 0, clip.frames - 1);
        take.events.push_back({at(0.05 + 0.02 * i), TakeEventKind::Frame, frame, {}});
    }
    ImagePoint where{clip.width * 0.5, clip.height * 0.6};
    std::optional<Landmark> joint;
    for (const auto& [key, mark] : r.deliveryOr(stop.delivery).points)
        if (key.frame == stop.frame) where = mark.point.at, joint = key.landmark;
    if (joint && stop.kind == StopKind::Correction) lookCloser(take, at(0.30), at(0.34), *joint, where, clip);
    for (int i = 0; i < 24; ++i)
        take.events.push_back({at(0.40 + 0.012 * i),
                               TakeEventKind::Pointer,
                               0,
                               {where.x + 30 * std::cos(0.3 * i), where.y + 16 * std::sin(0.3 * i)}});
    take.events.push_back({at(0.72), TakeEventKind::PointerOff, 0, {}});
    if (joint) take.events.push_back({.sample = at(0.80), .kind = TakeEventKind::View});
}

Status speakStops(Review& r, Library& library, const Clip& clip, std::size_t leaveOpen) {
    const auto voices = demoVoices();
    if (voices.empty()) return fail(ErrorCode::NotFound, msg("demo.no-voice"));
    for (std::size_t i = 0; i + leaveOpen < r.stops.size(); ++i) {
        const Stop& stop = r.stops[i];
        auto sound = readSound(voices[i % voices.size()]);
        if (!sound) return sound.error();
        std::vector<std::int16_t> samples(sound->size());
        std::transform(sound->begin(), sound->end(), samples.begin(),
                       [](float v) { return static_cast<std::int16_t>(std::clamp(v, -1.0f, 1.0f) * 32767); });
        Take take;
        take.file = r.id.value + "-" + stop.id.value + ".wav";
        auto writer = WavWriter::open(library.takePath(take.file));
        if (!writer) return writer.error();
        if (auto written = writer->write(samples); !written) return written;
        if (auto done = writer->finish(); !done) return done;
        take.samples = writer->samples();
        take.sampleRate = kSampleRate;
        take.microphone = "stand-in voice";
        addEvents(take, stop, r, clip);
        r.takes[stop.id] = std::move(take);
    }
    return Done{};
}

} // namespace

ErrorRun demoErrorRun(const std::string& coach, Date day) {
    constexpr std::array<std::array<Landmark, 3>, 3> kAngles = {
        {{Landmark::LeadHip, Landmark::LeadKnee, Landmark::LeadAnkle},
         {Landmark::BackHip, Landmark::BackKnee, Landmark::BackAnkle},
         {Landmark::BackShoulder, Landmark::BackElbow, Landmark::BackWrist}}};
    Wobble wobble(7);
    ErrorRun run{coach, day, {}};
    for (int n = 0; n < 6; ++n) {
        ErrorPicture p;
        p.name = "made-up-" + std::to_string(n + 1);
        p.joints = kAngles.at(static_cast<std::size_t>(n) % kAngles.size());
        p.truth = {{{500.0 + 10 * n, 300}, {560.0, 400.0 + 8 * n}, {540, 500}}};
        for (auto& round : p.clicks)
            for (std::size_t i = 0; i < round.size(); ++i)
                round[i] = {(*p.truth)[i].x + DemoReviewWish{}.clickSigmaPx * wobble.next(),
                            (*p.truth)[i].y + DemoReviewWish{}.clickSigmaPx * wobble.next()};
        run.pictures.push_back(p);
    }
    return run;
}

Result<Review> makeDemoReview(Library& library, const Playbook& playbook, const Athlete& athlete,
                              const Submission& submission, const std::vector<FilmOrder>& orders,
                              const DemoReviewWish& wish, Date date, IdSource& ids, std::stop_token stop) {
    const Clip& clip = submission.clips.front();
    const auto runs = errorRuns(library);
    if (!runs) return runs.error();
    const std::string coach = library.setting("house.coach", "");
    Review r;
    const bool half = wish.until <= Stage::Judge;
    r.id = ids.next<ReviewTag>("rev");
    r.submission = submission.id;
    r.athlete = athlete.id;
    r.date = date;
    auto judging = beginJudging(library, playbook, *approachFor(playbook, athlete), athlete, date);
    if (!judging) return judging.error();
    r.judging() = std::move(*judging);
    r.stage = wish.until;
    r.extras = wish.extras;
    r.first().clip = clip.id;
    r.first().conditions.start = submission.start;
    r.first().conditions.surface = submission.surface;
    for (std::size_t i = 0; i < orders.size(); ++i) {
        if (i > 0)
            r.deliveries.push_back(nextDelivery(r, r.deliveries.back().number, submission.clips.at(i),
                                                std::nullopt, submission.clips));
        r.deliveries.back().conditions.numberInOuting = wish.firstOfOuting + static_cast<int>(i);
        const Clip& film = submission.clips[i];
        const SigmaOf sigmaOf = [&](Landmark l) { return clickSigmaPx(*runs, coach, l, film.height); };
        markDelivery(r, r.deliveries.back(), playbook, film, orders[i], wish, sigmaOf);
        if (!wish.followed) continue;
        auto done = followJoints(library, r.deliveries.back(), film, orders[i], wish, sigmaOf, stop);
        if (!done) return done.error();
    }
    gradeItems(r, playbook, clip, orders.front().knobs, half ? 5 : 0);
    if (half) return r;
    Assessment a = assess(r, playbook, submission.clips, athlete.hand);
    orderStops(r, playbook, a, ids);
    if (auto spoken = speakStops(r, library, clip, 0); !spoken) return spoken.error();
    const Proposal proposal =
        proposePriorities(playbook, r, a, causesOf(playbook, a, r.plan), athlete.ageOn(date));
    std::vector<std::string> corrections;
    for (const Proposed& p : proposal.work) corrections.push_back(p.finding);
    r.plan = proposePlan({playbook, r, a, athlete, submission, clip, date}, corrections);
    for (const Proposed& p : proposal.keep) r.plan.keeps.push_back(p.finding);
    if (wish.until == Stage::Sent) {
        r.sent = SentRecord{date, athlete.isMinorOn(date) ? athlete.guardianEmail : athlete.email};
    }
    return r;
}

} // namespace jg
