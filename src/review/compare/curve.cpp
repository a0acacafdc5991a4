// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/compare/curve.h"

#include "kinematics/geometry.h"
#include "kinematics/propagation.h"
#include "review/record/camera_place.h"
#include "review/record/paths.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>
#include <set>

namespace jg {

namespace {

constexpr double kMilli = 1000, kPercent = 100;

std::vector<Landmark> landmarksOf(Feature feature) {
    switch (feature) {
    case Feature::FrontKnee:
        return {Landmark::LeadHip, Landmark::LeadKnee, Landmark::LeadAnkle};
    case Feature::Hand:
        return {Landmark::BackWrist};
    case Feature::Hip:
        return {Landmark::Pelvis};
    case Feature::BackKnee:
        return {Landmark::BackHip, Landmark::BackKnee, Landmark::BackAnkle};
    case Feature::Elbow:
        return {Landmark::BackShoulder, Landmark::BackElbow, Landmark::BackWrist};
    case Feature::Trunk:
        return {Landmark::Pelvis, Landmark::Neck};
    case Feature::Ball:
        return {Landmark::Ball, Landmark::Pelvis, Landmark::Neck};
    case Feature::Head:
        break;
    }
    return {Landmark::Head};
}

/// A landmark over the frames: followed, and where it is clicked the click.
struct Track {
    std::map<std::int64_t, PathPlace> places;
    std::set<std::int64_t> clicked;
};

Track trackOf(const JuxtaEntry& e, Landmark landmark) {
    Track track;
    const double height = heightOf(e.marks).value;
    for (const PathPlace& p : pathOf(e.marks, landmark)) {
        const ClickedPoint steady = e.marks.steadied(p.frame, {p.at, p.sdPx});
        track.places[p.frame] = {p.frame, steady.at, steady.sigmaPx};
    }
    for (const auto& [key, mark] : e.marks.points) {
        if (key.landmark != landmark || !mark.hidden.empty()) continue;
        const ClickedPoint p = withLean(e.marks.steadied(key.frame, mark.point), e.clip, height);
        track.places[key.frame] = {key.frame, p.at, std::hypot(p.sigmaPx, p.leanPx)};
        track.clicked.insert(key.frame);
    }
    return track;
}

/// All coordinates in one row, x and y in turn, with their errors.
Estimate propagated(const std::vector<PathPlace>& at, bool isAngle,
                    const std::function<double(const std::vector<ImagePoint>&)>& formula) {
    const auto n = static_cast<Eigen::Index>(2 * at.size());
    Eigen::VectorXd mean(n);
    Eigen::MatrixXd covariance = Eigen::MatrixXd::Zero(n, n);
    for (std::size_t i = 0; i < at.size(); ++i) {
        const auto x = static_cast<Eigen::Index>(2 * i);
        mean(x) = at[i].at.x;
        mean(x + 1) = at[i].at.y;
        covariance(x, x) = covariance(x + 1, x + 1) = at[i].sdPx * at[i].sdPx;
    }
    const auto value = [&](const Eigen::VectorXd& v) {
        std::vector<ImagePoint> points;
        for (Eigen::Index i = 0; i < n; i += 2) points.push_back({v(i), v(i + 1)});
        return formula(points);
    };
    return propagate(value, mean, covariance, isAngle);
}

bool isAngle(Feature feature) {
    return unitOf(feature) == "deg";
}

/// True for what is only told where the picture shows the way to the target.
bool isTowardTarget(Feature feature) {
    return feature == Feature::Hip || feature == Feature::Head || feature == Feature::Trunk;
}

struct Frame {
    double groundY = 0, heightPx = 0, startX = 0;
    int toward = 1;
};

double numberOf(Feature feature, const std::vector<ImagePoint>& p, const Frame& frame) {
    switch (feature) {
    case Feature::FrontKnee:
    case Feature::BackKnee:
    case Feature::Elbow:
        return jointAngleDeg(p[0], p[1], p[2]);
    case Feature::Trunk:
        return kDegPerRad * std::atan2(frame.toward * (p[1].x - p[0].x), p[0].y - p[1].y);
    case Feature::Hand:
        return kPercent * (frame.groundY - p[0].y) / frame.heightPx;
    case Feature::Ball:
        return kPercent * length(p[0] - ImagePoint{(p[1].x + p[2].x) / 2, (p[1].y + p[2].y) / 2}) /
               frame.heightPx;
    case Feature::Hip:
    case Feature::Head:
        break;
    }
    return kPercent * frame.toward * (p[0].x - frame.startX) / frame.heightPx;
}

Estimate valueAt(Feature feature, const std::vector<PathPlace>& at, const Frame& frame) {
    return propagated(at, isAngle(feature), [&](const auto& p) { return numberOf(feature, p, frame); });
}

/// Where the moment that matters lies on the points.
std::size_t placeOfEvent(Feature feature, const std::vector<CurvePoint>& points) {
    const auto by = [](const CurvePoint& a, const CurvePoint& b) { return a.value < b.value; };
    if (feature == Feature::FrontKnee) { // after first touch, the least bend's fold
        auto from = std::find_if(points.begin(), points.end(), [](const CurvePoint& p) { return p.ms >= 0; });
        if (from == points.end()) from = points.begin();
        return static_cast<std::size_t>(std::min_element(from, points.end(), by) - points.begin());
    }
    if (feature == Feature::Hand || feature == Feature::Ball)
        return static_cast<std::size_t>(std::max_element(points.begin(), points.end(), by) - points.begin());
    if (feature == Feature::BackKnee || feature == Feature::Elbow)
        return static_cast<std::size_t>(std::min_element(points.begin(), points.end(), by) - points.begin());
    const double half = (points.front().value + points.back().value) / 2;
    const auto it =
        std::find_if(points.begin(), points.end(), [&](const CurvePoint& p) { return p.value >= half; });
    return it == points.end() ? points.size() - 1 : static_cast<std::size_t>(it - points.begin());
}

/// Only where the curve is dense: between clicks a turning point can be anywhere.
void tellEvent(Feature feature, double frameMs, FeatureCurve& curve) {
    constexpr std::size_t kFewest = 8;
    constexpr double kDense = 2.5; // frames between neighbours
    const std::vector<CurvePoint>& points = curve.points;
    curve.noEvent = msg("curve.too-few");
    if (points.size() < kFewest) return;
    const std::size_t at = placeOfEvent(feature, points);
    if (at == 0 || at + 1 == points.size()) {
        curve.noEvent = msg("curve.at-the-end");
        return;
    }
    const auto dense = [&](std::size_t a, std::size_t b) {
        return points[b].ms - points[a].ms <= kDense * frameMs;
    };
    if (!dense(at - 1, at) || !dense(at, at + 1)) return;
    double first = points[at].ms, last = first;
    for (std::size_t i = 0; i < points.size(); ++i)
        if (std::abs(points[i].value - points[at].value) <= points[at].half95 / 2) {
            first = std::min(first, points[i].ms);
            last = std::max(last, points[i].ms);
        }
    curve.noEvent = {};
    curve.event = CurveEvent{points[at].ms, (last - first) / 2 + frameMs / 2};
}

} // namespace

FeatureCurve featureCurve(const JuxtaEntry& e, Feature feature) {
    const auto zero = e.marks.frameOf(Moment::FootTouch);
    if (!zero) return {{}, {}, {}, msg("curve.no-first-touch")};
    if (e.clip.captureFps <= 0) return {{}, {}, {}, msg("curve.no-rate")};
    Frame frame;
    frame.toward = targetDirectionX(e.hand, e.clip.view);
    if (!isAngle(feature)) { // in percent of the height
        const auto body = standingAtSet(e.marks);
        if (!body) return {{}, {}, {}, msg("juxta.no-height")};
        frame.groundY = body->ground.at.y;
        frame.heightPx = body->height().value;
    }
    if (isTowardTarget(feature) && frame.toward == 0) return {{}, {}, {}, msg("curve.not-from-here")};
    std::vector<Track> tracks;
    for (const Landmark l : landmarksOf(feature)) tracks.push_back(trackOf(e, l));
    if (!tracks.front().places.empty()) frame.startX = tracks.front().places.begin()->second.at.x;
    FeatureCurve curve;
    for (const auto& [n, place] : tracks.front().places) {
        std::vector<PathPlace> at;
        bool clicked = true;
        for (const Track& t : tracks) {
            const auto it = t.places.find(n);
            if (it == t.places.end()) break;
            at.push_back(it->second);
            clicked = clicked && t.clicked.contains(n);
        }
        if (at.size() != tracks.size()) continue;
        const Estimate v = valueAt(feature, at, frame);
        if (!std::isfinite(v.value)) continue;
        curve.points.push_back(
            {n, kMilli * static_cast<double>(n - *zero) / e.clip.captureFps, v.value, v.half95(), clicked});
    }
    if (curve.points.empty())
        curve.why = msg("curve.no-points");
    else
        tellEvent(feature, kMilli / e.clip.captureFps, curve);
    return curve;
}

const CurvePoint* pointAtEvent(const FeatureCurve& curve) {
    if (!curve.event) return nullptr;
    const auto at = std::find_if(curve.points.begin(), curve.points.end(),
                                 [&](const CurvePoint& p) { return p.ms == curve.event->ms; });
    return at == curve.points.end() ? nullptr : &*at;
}

namespace {

/// How much later the other came; not sure where their errors together may hide it.
struct Apart {
    double ms, error;
    bool sure;
};

Apart apart(const CurveEvent& one, const CurveEvent& other) {
    const double by = other.ms - one.ms, error = std::hypot(one.half95, other.half95);
    return {by, error, std::abs(by) > error};
}

} // namespace

Message whichFirst(const CurveEvent& one, const CurveEvent& other) {
    const Apart by = apart(one, other);
    if (!by.sure) return msg("curve.too-slow", {{"error", Decimal{by.error, 0}}});
    return msg(by.ms < 0 ? "curve.earlier" : "curve.later",
               {{"ms", Decimal{std::abs(by.ms), 0}}, {"error", Decimal{by.error, 0}}});
}

Message orderOf(const FeatureMoment& one, const FeatureMoment& other) {
    const Apart by = apart(one.event, other.event);
    if (!by.sure) return msg("curve.order-open", {{"error", Decimal{by.error, 0}}});
    const FeatureMoment &first = by.ms < 0 ? other : one, &second = by.ms < 0 ? one : other;
    return msg("curve.order", {{"first", momentOf(first.feature)},
                               {"second", momentOf(second.feature)},
                               {"ms", Decimal{std::abs(by.ms), 0}}});
}

} // namespace jg
