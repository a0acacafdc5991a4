// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/record/paths.h"

#include "kinematics/geometry.h"

#include <algorithm>
#include <cmath>

namespace jg {

namespace {

using L = Landmark;

/// What stands on the field does not move with the body.
bool moves(Landmark landmark) {
    return landmark != L::Rubber && landmark != L::Ground;
}

PathPlace placeOf(const PointKey& key, const PointMark& mark) {
    return {key.frame, mark.point.at, mark.point.sigmaPx};
}

/// Paths between two moments of a delivery.
class Reading {
public:
    Reading(const DeliveryMarks& delivery, const Clip& clip, Hand hand)
        : delivery_(delivery)
        , fps_(clip.captureFps)
        , target_{static_cast<double>(targetDirectionX(hand, clip.view)), 0} {}

    Path part(Landmark landmark, Moment from, Moment to) const {
        return partOf(delivery_, landmark, from, to);
    }

    std::optional<PathEvent> forward(Landmark landmark) const {
        if (target_.x == 0) return std::nullopt;
        return startOfMotion(speedsAlong(part(landmark, Moment::Plant, Moment::Release), target_, fps_));
    }

    std::optional<PathEvent> handAboveShoulder() const {
        const Path hand = part(L::BackWrist, Moment::HandBreak, Moment::Plant),
                   shoulder = part(L::BackShoulder, Moment::HandBreak, Moment::Plant);
        std::optional<std::int64_t> first, sure;
        for (const PathPlace& h : hand)
            for (const PathPlace& s : between(shoulder, h.frame, h.frame)) {
                const double above = s.at.y - h.at.y;
                if (above > 0 && !first) first = h.frame;
                if (above > std::hypot(s.sdPx, h.sdPx) && !sure) sure = h.frame;
            }
        if (!first || *first == delivery_.frameOf(Moment::HandBreak)) return std::nullopt;
        return PathEvent{*first, std::max<std::int64_t>(1, sure.value_or(*first) - *first)};
    }

    /// The front knee is most bent, then begins to straighten.
    std::optional<PathEvent> frontKneeExtends() const {
        const Path hip = part(L::LeadHip, Moment::Plant, Moment::Release),
                   knee = part(L::LeadKnee, Moment::Plant, Moment::Release),
                   ankle = part(L::LeadAnkle, Moment::Plant, Moment::Release);
        if (hip.size() != knee.size() || knee.size() != ankle.size()) return std::nullopt;
        Path bend; // the angle as a height: the least is the lowest
        for (std::size_t i = 0; i < knee.size(); ++i) {
            const double angle = jointAngleDeg(hip[i].at, knee[i].at, ankle[i].at);
            const double sd =
                knee[i].sdPx * std::sqrt(2.0) * kDegPerRad /
                std::max(1.0, std::min(length(hip[i].at - knee[i].at), length(ankle[i].at - knee[i].at)));
            bend.push_back({knee[i].frame, {0, -angle}, sd});
        }
        return lowest(bend);
    }

    /// A line begins to turn when its shown width begins to change.
    std::optional<PathEvent> turns(Landmark lead, Landmark back) const {
        Path width;
        eachOfTwo(part(lead, Moment::Load, Moment::Release), part(back, Moment::Load, Moment::Release),
                  [&](const PathPlace& a, const PathPlace& b) {
                      width.push_back({a.frame, {std::abs(a.at.x - b.at.x), 0}, std::hypot(a.sdPx, b.sdPx)});
                  });
        return startOfMotion(speeds(width, fps_));
    }

    std::optional<PathEvent> trunkTilts() const {
        Path tilt; // in degrees
        eachOfTwo(
            part(L::Neck, Moment::Plant, Moment::Release), part(L::Pelvis, Moment::Plant, Moment::Release),
            [&](const PathPlace& neck, const PathPlace& pelvis) {
                const ImagePoint v = neck.at - pelvis.at;
                tilt.push_back({neck.frame, {std::atan2(v.x, -v.y) * kDegPerRad, 0}, sdOfLine(neck, pelvis)});
            });
        return startOfMotion(speeds(tilt, fps_));
    }

    /// How far the forearm is laid back: degrees from pointing at the target over up to away from it, as a
    /// height.
    Path laidBack() const {
        Path laid;
        if (target_.x == 0) return laid;
        eachOfTwo(part(L::BackWrist, Moment::Plant, Moment::Release),
                  part(L::BackElbow, Moment::Plant, Moment::Release),
                  [&](const PathPlace& wrist, const PathPlace& elbow) {
                      const ImagePoint v = wrist.at - elbow.at;
                      double deg = std::atan2(-v.y, v.x * target_.x) * kDegPerRad;
                      if (deg < -90) deg += 360;
                      laid.push_back({wrist.frame, {0, -deg}, sdOfLine(wrist, elbow)});
                  });
        return laid;
    }

private:
    /// Both places of each frame that has them.
    template <typename Take>
    static void eachOfTwo(const Path& a, const Path& b, const Take& take) {
        for (const PathPlace& p : a)
            for (const PathPlace& q : between(b, p.frame, p.frame)) take(p, q);
    }

    /// Degrees.
    static double sdOfLine(const PathPlace& a, const PathPlace& b) {
        return std::hypot(a.sdPx, b.sdPx) / std::max(1.0, length(a.at - b.at)) * kDegPerRad;
    }

    const DeliveryMarks& delivery_;
    double fps_;
    ImagePoint target_;
};

/// The frames round the furthest on which the forearm is within ten degrees of it (common practice, no
/// source).
std::pair<PathEvent, PathEvent> dwellOf(const Path& laid, const PathEvent& furthest) {
    constexpr double kNear = 10;
    const auto top =
        std::find_if(laid.begin(), laid.end(), [&](const PathPlace& p) { return p.frame == furthest.frame; });
    auto from = top, to = top;
    while (from != laid.begin() && (from - 1)->at.y < top->at.y + kNear) --from;
    while (to + 1 != laid.end() && (to + 1)->at.y < top->at.y + kNear) ++to;
    return {{from->frame, 1}, {to->frame, 1}};
}

/// Slowest of the hand between two faster stretches, in parts of its fastest.
struct Slowest {
    double part = 1;
    std::int64_t frame = 0;
};
Slowest slowestBetween(const std::vector<FrameValue>& speeds) {
    const auto by = [](const auto& a, const auto& b) { return a.value.value < b.value.value; };
    const double fastest = std::max_element(speeds.begin(), speeds.end(), by)->value.value;
    const auto moving = [&](const FrameValue& v) { return v.value.value >= 0.3 * fastest; };
    const auto first = std::find_if(speeds.begin(), speeds.end(), moving);
    const auto last = std::find_if(speeds.rbegin(), speeds.rend(), moving).base();
    const auto slow = std::min_element(first, last, by);
    return {slow->value.value / fastest, slow->frame};
}

std::optional<PathSaying> handStall(const DeliveryMarks& delivery, double fps) {
    const Path hand = partOf(delivery, L::BackWrist, Moment::HandBreak, Moment::Layback);
    const auto v = speeds(hand, fps);
    if (v.size() < 5) return std::nullopt;
    const Slowest slow = slowestBetween(v);
    const auto why = [&](const char* id) {
        return msg(id, {{"percent", std::lround(100 * slow.part)}, {"frame", slow.frame}});
    };
    if (slow.part >= 0.4) return PathSaying{"flows", why("paths.hand-flows")};
    return PathSaying{slow.part < 0.1 ? "stops and turns back" : "slows", why("paths.hand-slows")};
}

std::optional<PathSaying> elbowStop(const DeliveryMarks& delivery, double fps) {
    const Path elbow = partOf(delivery, L::BackElbow, Moment::Layback, Moment::Release);
    const auto v = speeds(elbow, fps);
    if (v.size() < 3) return std::nullopt;
    const double fastest = std::max_element(v.begin(), v.end(), [](const auto& a, const auto& b) {
                               return a.value.value < b.value.value;
                           })->value.value;
    const double part = fastest > 0 ? v.back().value.value / fastest : 1;
    return PathSaying{part < 0.5   ? "clear stop"
                      : part < 0.8 ? "some"
                                   : "none",
                      msg("paths.elbow-has", {{"percent", std::lround(100 * part)}})};
}

} // namespace

Path partOf(const DeliveryMarks& delivery, Landmark landmark, Moment from, Moment to) {
    const auto first = delivery.frameOf(from), last = delivery.frameOf(to);
    if (!first || !last) return {};
    const Path whole = pathOf(delivery, landmark);
    Path steady;
    for (const PathPlace& p : between(whole, *first, *last)) {
        const ClickedPoint at = delivery.steadied(p.frame, {p.at, p.sdPx});
        steady.push_back({p.frame, at.at, at.sigmaPx});
    }
    return steady;
}

std::optional<PathSaying> sayingFromPaths(const DeliveryMarks& delivery, const Clip& clip,
                                          std::string_view measure) {
    if (measure == "hand-stall") return handStall(delivery, clip.captureFps);
    if (measure == "elbow-stop") return elbowStop(delivery, clip.captureFps);
    return std::nullopt;
}

std::vector<PathStretch> stretchesToFollow(const DeliveryMarks& delivery) {
    std::map<Landmark, std::vector<std::pair<std::int64_t, const PointMark*>>> clicked;
    for (const auto& [key, mark] : delivery.points)
        if (moves(key.landmark)) clicked[key.landmark].emplace_back(key.frame, &mark);
    std::vector<PathStretch> all;
    for (const auto& [landmark, points] : clicked)
        for (std::size_t i = 1; i < points.size(); ++i) {
            const auto& [before, a] = points[i - 1];
            const auto& [after, b] = points[i];
            if (!a->hidden.empty() || !b->hidden.empty() || after - before < 2) continue;
            all.push_back({landmark, placeOf({before, landmark}, *a), placeOf({after, landmark}, *b)});
        }
    return all;
}

Path pathOf(const DeliveryMarks& delivery, Landmark landmark) {
    const auto it = delivery.paths.find(landmark);
    if (it == delivery.paths.end()) return {};
    const bool holds =
        std::all_of(it->second.from.begin(), it->second.from.end(), [&](const PathPlace& from) {
            const PointMark* now = delivery.seenPoint(from.frame, landmark);
            return now && now->point.at == from.at;
        });
    return holds ? it->second.places : Path{};
}

std::vector<Landmark> followedLandmarks(const DeliveryMarks& delivery) {
    std::vector<Landmark> all;
    for (const auto& [landmark, path] : delivery.paths)
        if (!pathOf(delivery, landmark).empty()) all.push_back(landmark);
    return all;
}

std::map<Moment, PathEvent> momentsFromPaths(const DeliveryMarks& delivery, const Clip& clip, Hand hand) {
    const Reading read(delivery, clip, hand);
    std::map<Moment, PathEvent> all;
    const auto keep = [&](Moment moment, std::optional<PathEvent> event) {
        if (event) all[moment] = *event;
    };
    keep(Moment::HandForward, read.forward(L::BackWrist));
    keep(Moment::ElbowForward, read.forward(L::BackElbow));
    keep(Moment::HandAboveShoulder, read.handAboveShoulder());
    keep(Moment::FrontKneeExtends, read.frontKneeExtends());
    keep(Moment::ElbowHighest, highest(read.part(L::BackElbow, Moment::HandBreak, Moment::Release)));
    keep(Moment::PelvisTurns, read.turns(L::LeadHip, L::BackHip));
    keep(Moment::TrunkOpens, read.turns(L::LeadShoulder, L::BackShoulder));
    keep(Moment::TrunkTilts, read.trunkTilts());
    if (const Path laid = read.laidBack(); laid.size() > 2) {
        const PathEvent furthest = *highest(laid);
        const auto [from, to] = dwellOf(laid, furthest);
        keep(Moment::Layback, furthest);
        keep(Moment::LaybackFrom, from);
        keep(Moment::LaybackTo, to);
    }
    keep(Moment::HandLowest, lowest(read.part(L::BackWrist, Moment::HandBreak, Moment::Plant)));
    return all;
}

} // namespace jg
