// SPDX-License-Identifier: GPL-3.0-or-later
#include "film/follow_box.h"

#include "film/median.h"
#include "film/working_grey.h"

#include <opencv2/imgproc.hpp>
#include <opencv2/video/tracking.hpp>

#include <algorithm>
#include <cmath>
#include <optional>

namespace jg {

namespace {

constexpr int kPoints = 80, kFewestPoints = 6; ///< of a box
constexpr double kInner = 0.75;        ///< of the box's sides, where its points are sought: not the wall
constexpr double kMostOffPx = 1;       ///< of half of the points, forth and back, in working pixels
constexpr double kMostScaleStep = 0.1; ///< from one frame to the next
constexpr double kLeastInside = 0.35;  ///< of a box that has not left the picture
constexpr double kLeastMeeting = 0.4;  ///< of two ways: what both boxes share, of what either covers
const cv::Size kFlowWindow{21, 21};
constexpr int kFlowLevels = 3;

double sharedPart(const cv::Rect2d& a, const cv::Rect2d& b) {
    const double both = (a & b).area();
    return both / (a.area() + b.area() - both);
}

cv::Rect2d inner(const cv::Rect2d& box) {
    const double w = kInner * box.width, h = kInner * box.height;
    return {box.x + (box.width - w) / 2, box.y + (box.height - h) / 2, w, h};
}

/// Corners where there are any, and a grid, so that a plain coat counts, too.
std::vector<cv::Point2f> pointsIn(const cv::Mat& grey, const cv::Rect2d& box) {
    constexpr int kGrid = 6;
    const cv::Rect2d part = inner(box) & cv::Rect2d({0, 0}, cv::Size2d(grey.size()));
    std::vector<cv::Point2f> points;
    const cv::Rect whole = cv::Rect(part) & cv::Rect({0, 0}, grey.size());
    if (whole.width < 4 || whole.height < 4) return points;
    cv::goodFeaturesToTrack(grey(whole), points, kPoints, 0.02, 3);
    for (cv::Point2f& p : points) p += cv::Point2f(whole.tl());
    for (int y = 0; y < kGrid; ++y)
        for (int x = 0; x < kGrid; ++x)
            points.emplace_back(static_cast<float>(part.x + part.width * (x + 0.5) / kGrid),
                                static_cast<float>(part.y + part.height * (y + 0.5) / kGrid));
    return points;
}

/// Where points went, and which of them the flow finds back.
struct Flow {
    std::vector<cv::Point2f> from, to;
};

Flow flowBetween(const cv::Mat& here, const cv::Mat& there, std::vector<cv::Point2f> points) {
    Flow flow;
    if (points.empty()) return flow;
    std::vector<cv::Point2f> went, back;
    std::vector<unsigned char> found, foundBack;
    std::vector<float> error;
    cv::calcOpticalFlowPyrLK(here, there, points, went, found, error, kFlowWindow, kFlowLevels);
    cv::calcOpticalFlowPyrLK(there, here, went, back, foundBack, error, kFlowWindow, kFlowLevels);
    std::vector<double> off;
    for (std::size_t i = 0; i < points.size(); ++i)
        if (found[i] && foundBack[i]) off.push_back(cv::norm(back[i] - points[i]));
    if (off.size() < kFewestPoints) return flow;
    const double most = medianOf(off);
    if (most > kMostOffPx) return flow;
    for (std::size_t i = 0; i < points.size(); ++i)
        if (found[i] && foundBack[i] && cv::norm(back[i] - points[i]) <= most) {
            flow.from.push_back(points[i]);
            flow.to.push_back(went[i]);
        }
    return flow;
}

/// How much larger what went apart has become: the median over pairs.
double growthOf(const Flow& flow) {
    std::vector<double> ratios;
    for (std::size_t i = 0; i < flow.from.size(); ++i)
        for (std::size_t j = i + 1; j < flow.from.size(); ++j) {
            const double before = cv::norm(flow.from[i] - flow.from[j]);
            if (before > 4) ratios.push_back(cv::norm(flow.to[i] - flow.to[j]) / before);
        }
    if (ratios.empty()) return 1;
    return std::clamp(medianOf(std::move(ratios)), 1 - kMostScaleStep, 1 + kMostScaleStep);
}

std::optional<cv::Rect2d> stepOn(const cv::Mat& here, const cv::Mat& there, const cv::Rect2d& box) {
    const Flow flow = flowBetween(here, there, pointsIn(here, box));
    if (flow.from.size() < kFewestPoints / 2) return std::nullopt;
    std::vector<double> x, y;
    for (std::size_t i = 0; i < flow.from.size(); ++i) {
        x.push_back(flow.to[i].x - flow.from[i].x);
        y.push_back(flow.to[i].y - flow.from[i].y);
    }
    const double grown = growthOf(flow), w = box.width * grown, h = box.height * grown;
    return cv::Rect2d(box.x + medianOf(std::move(x)) - (w - box.width) / 2,
                      box.y + medianOf(std::move(y)) - (h - box.height) / 2, w, h);
}

/// True for a box that lies beyond an edge that it was going to: who is half out of the picture has less and
/// less to be followed by.
bool leaving(const cv::Rect2d& box, cv::Point2d moved, cv::Size picture) {
    constexpr double kGoing = 0.5; // working pixels a frame
    return (moved.x > kGoing && box.br().x > picture.width) || (moved.x < -kGoing && box.x < 0) ||
           (moved.y > kGoing && box.br().y > picture.height) || (moved.y < -kGoing && box.y < 0);
}

/// A box along one way from where it was drawn.
struct BoxWay {
    std::map<std::int64_t, cv::Rect2d> boxes;
    std::optional<std::int64_t> lost; ///< the first frame without one; nothing where it has left the picture
};

class BoxFollower {
public:
    BoxFollower(const FilmSource& source, std::int64_t steps, std::stop_token stop,
                const std::function<void(double)>& progress)
        : grey_(source)
        , steps_(std::max<std::int64_t>(1, steps))
        , stop_(std::move(stop))
        , progress_(progress) {}

    Result<BoxWay> walk(std::int64_t from, std::int64_t to, const FilmBox& start) {
        auto here = grey_.at(from, stop_);
        if (!here) return here.error();
        const cv::Point2d a = grey_.toWorking(start.from), b = grey_.toWorking(start.to);
        BoxWay way;
        cv::Rect2d box(a, b);
        cv::Point2d moved;
        way.boxes[from] = box;
        const int step = to > from ? 1 : -1;
        for (std::int64_t n = from; n != to; n += step) {
            if (stop_.stop_requested())
                return fail(ErrorCode::Cancelled, msg("follow.following-was-stopped"));
            auto there = grey_.at(n + step, stop_);
            if (!there) return there.error();
            if (progress_) progress_(static_cast<double>(++done_) / static_cast<double>(steps_));
            const auto next = stepOn(*here, *there, box);
            if (!next) {
                if (!leaving(box, moved, there->size())) way.lost = n + step;
                return way;
            }
            moved = (next->tl() + next->br() - box.tl() - box.br()) * 0.5;
            box = *next;
            const cv::Rect2d picture({0, 0}, cv::Size2d(there->size()));
            if ((box & picture).area() < kLeastInside * box.area()) return way;
            way.boxes[n + step] = box;
            here = std::move(there);
        }
        return way;
    }

    FilmBox inFilm(const cv::Rect2d& box) const { return {grey_.toFilm(box.tl()), grey_.toFilm(box.br())}; }

private:
    WorkingGrey grey_;
    std::int64_t steps_, done_ = 0;
    std::stop_token stop_;
    const std::function<void(double)>& progress_;
};

/// Two ways towards each other: each counts on its own half, and where the other was lost.
void join(const BoxWay& on, const BoxWay& back, const BoxFollower& follower, FollowedBox& all) {
    const std::int64_t first = on.boxes.begin()->first, last = back.boxes.rbegin()->first;
    const std::int64_t middle = (first + last) / 2;
    std::optional<std::int64_t> lost;
    for (std::int64_t n = first; n <= last; ++n) {
        const auto f = on.boxes.find(n), b = back.boxes.find(n);
        const bool both = f != on.boxes.end() && b != back.boxes.end();
        if ((f == on.boxes.end() && b == back.boxes.end()) ||
            (both && n == middle && sharedPart(f->second, b->second) < kLeastMeeting)) {
            if (!lost) lost = n;
            continue;
        }
        const bool useBack = f == on.boxes.end() || (both && n > middle);
        all.boxes[n] = follower.inFilm(useBack ? b->second : f->second);
    }
    if (lost) all.lost.push_back(*lost);
}

} // namespace

Result<FollowedBox> followBox(const FilmSource& source, const std::map<std::int64_t, FilmBox>& drawn,
                              std::int64_t first, std::int64_t last, std::stop_token stop,
                              const std::function<void(double)>& progress) {
    if (drawn.empty() || first < 0 || first > drawn.begin()->first || last < drawn.rbegin()->first ||
        last >= source.film.info().frames())
        return fail(ErrorCode::BadInput, msg("follow.a-point-is-to-be-followed"));
    const std::int64_t between = drawn.rbegin()->first - drawn.begin()->first;
    BoxFollower follower(source, last - first + between, stop, progress);
    FollowedBox all;
    const auto addAll = [&](const BoxWay& way) {
        for (const auto& [n, box] : way.boxes) all.boxes[n] = follower.inFilm(box);
        if (way.lost) all.lost.push_back(*way.lost);
    };
    auto before = follower.walk(drawn.begin()->first, first, drawn.begin()->second);
    if (!before) return before.error();
    addAll(*before);
    for (auto at = drawn.begin(); std::next(at) != drawn.end(); ++at) {
        const auto to = std::next(at);
        auto on = follower.walk(at->first, to->first, at->second);
        if (!on) return on.error();
        auto back = follower.walk(to->first, at->first, to->second);
        if (!back) return back.error();
        join(*on, *back, follower, all);
    }
    auto after = follower.walk(drawn.rbegin()->first, last, drawn.rbegin()->second);
    if (!after) return after.error();
    addAll(*after);
    std::sort(all.lost.begin(), all.lost.end());
    return all;
}

} // namespace jg
