#include "review/paths.h"

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

/// Paths between two moments of a review.
class Reading {
public:
    Reading(const Review& review, const Clip& clip, Hand hand)
        : review_(review)
        , fps_(clip.captureFps)
        , target_{static_cast<double>(targetDirectionX(hand, clip.view)), 0} {}

    /// The part of a path between two moments, without the camera's shake; empty without either, or with a
    /// gap in it.
    Path part(Landmark landmark, Moment from, Moment to) const {
        const auto first = review_.frameOf(from), last = review_.frameOf(to);
        if (!first || !last) return {};
        const Path whole = pathOf(review_, landmark);
        Path steady;
        for (const PathPlace& p : between(whole, *first, *last)) {
            const ClickedPoint at = review_.steadied(p.frame, {p.at, p.sdPx});
            steady.push_back({p.frame, at.at, at.sigmaPx});
        }
        return steady;
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
        if (!first || *first == review_.frameOf(Moment::HandBreak)) return std::nullopt;
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

private:
    const Review& review_;
    double fps_;
    ImagePoint target_;
};

} // namespace

std::vector<PathStretch> stretchesToFollow(const Review& review) {
    std::map<Landmark, std::vector<std::pair<std::int64_t, const PointMark*>>> clicked;
    for (const auto& [key, mark] : review.points)
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

Path pathOf(const Review& review, Landmark landmark) {
    const auto it = review.paths.find(landmark);
    if (it == review.paths.end()) return {};
    const bool holds =
        std::all_of(it->second.from.begin(), it->second.from.end(), [&](const PathPlace& from) {
            const PointMark* now = review.point(from.frame, landmark);
            return now && now->hidden.empty() && now->point.at == from.at;
        });
    return holds ? it->second.places : Path{};
}

std::vector<Landmark> followedLandmarks(const Review& review) {
    std::vector<Landmark> all;
    for (const auto& [landmark, path] : review.paths)
        if (!pathOf(review, landmark).empty()) all.push_back(landmark);
    return all;
}

std::map<Moment, PathEvent> momentsFromPaths(const Review& review, const Clip& clip, Hand hand) {
    const Reading read(review, clip, hand);
    std::map<Moment, PathEvent> all;
    const auto keep = [&](Moment moment, std::optional<PathEvent> event) {
        if (event) all[moment] = *event;
    };
    keep(Moment::HandForward, read.forward(L::BackWrist));
    keep(Moment::ElbowForward, read.forward(L::BackElbow));
    keep(Moment::HandAboveShoulder, read.handAboveShoulder());
    keep(Moment::FrontKneeExtends, read.frontKneeExtends());
    keep(Moment::ElbowHighest, highest(read.part(L::BackElbow, Moment::HandBreak, Moment::Release)));
    keep(Moment::HandLowest, lowest(read.part(L::BackWrist, Moment::HandBreak, Moment::Plant)));
    return all;
}

} // namespace jg
