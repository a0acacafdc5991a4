// SPDX-License-Identifier: GPL-3.0-or-later
#include "film/follow.h"

#include "film/working_grey.h"

#include <opencv2/imgproc.hpp>
#include <opencv2/video/tracking.hpp>

#include <algorithm>
#include <cmath>
#include <deque>
#include <future>
#include <thread>

namespace jg {

namespace {

constexpr double kWindow = 0.032;           ///< of the flow, of the picture's longer side
constexpr int kLevels = 3;                  ///< of its pyramid
constexpr double kMostDisagreementPx = 1.5; ///< forth and back, there
constexpr double kLongestJump = 0.15;       ///< a frame, of the picture's longer side
constexpr double kLargestGap = 0.015; ///< between the two ways where they meet, of the picture's longer side
constexpr double kForeground = 12;    ///< grey levels from the background
constexpr int kPlain = 128;           ///< what the background becomes
constexpr double kDoubted = 0.3; ///< of a way's length before it was lost: it slips first, then it is lost

using Pyramid = std::vector<cv::Mat>;

struct Step {
    cv::Point2f at;
    bool known = false;
};

/// One way along a stretch: a step a frame, in walking order.
using Way = std::vector<Step>;

/// Pictures in work beside decoding.
std::size_t atOnce() {
    return std::max(2u, std::thread::hardware_concurrency());
}

class Follower {
public:
    Follower(const FilmSource& source, std::int64_t first, std::int64_t last)
        : grey_(source)
        , first_(first)
        , last_(last) {}

    Status load(std::stop_token stop, const std::function<void(double)>& progress) {
        auto background = grey_.background(first_, stop);
        if (!background) return background.error();
        background_ = *std::move(background);
        std::deque<std::future<Result<Pyramid>>> ahead; // made while the next frames are decoded
        const auto takeNext = [&]() -> Status {
            auto pyramid = ahead.front().get();
            ahead.pop_front();
            if (!pyramid) return pyramid.error();
            pyramids_.push_back(*std::move(pyramid));
            if (progress)
                progress(0.8 * static_cast<double>(pyramids_.size()) /
                         static_cast<double>(last_ - first_ + 1));
            return Done{};
        };
        for (std::int64_t n = first_; n <= last_; ++n) {
            auto frame = grey_.decoded(n, stop);
            if (!frame) return frame.error();
            ahead.push_back(std::async(std::launch::async, [this, f = *frame] { return pyramidOf(*f); }));
            if (ahead.size() < atOnce()) continue;
            if (const Status taken = takeNext(); !taken) return taken;
        }
        while (!ahead.empty())
            if (const Status taken = takeNext(); !taken) return taken;
        return Done{};
    }

    Followed follow(const FollowOrder& order) const {
        auto back = std::async(std::launch::async, [&] { return walk(order.to, order.from, order.end); });
        const Way on = walk(order.from, order.to, order.start);
        return joined(order, on, back.get());
    }

private:
    /// Without the wall's own pattern a flow can't hold on to the wall.
    cv::Mat withoutBackground(const cv::Mat& picture) const {
        cv::Mat away, mask;
        cv::absdiff(picture, background_, away);
        cv::blur(away, away, {5, 5});
        cv::threshold(away, mask, kForeground, 255, cv::THRESH_BINARY);
        cv::morphologyEx(mask, mask, cv::MORPH_CLOSE, cv::getStructuringElement(cv::MORPH_ELLIPSE, {9, 9}));
        cv::Mat result(picture.size(), CV_8U, cv::Scalar(kPlain));
        picture.copyTo(result, mask);
        return result;
    }

    Result<Pyramid> pyramidOf(const AVFrame& frame) const {
        const auto shown = grey_.shown(frame);
        if (!shown) return shown.error();
        Pyramid pyramid;
        cv::buildOpticalFlowPyramid(withoutBackground(*shown), pyramid, window(), kLevels);
        return pyramid;
    }

    const Pyramid& at(std::int64_t frame) const {
        return pyramids_[static_cast<std::size_t>(frame - first_)];
    }

    Way walk(std::int64_t from, std::int64_t to, FilmPlace start) const {
        const int step = to > from ? 1 : -1;
        Way way{{grey_.toWorking(start), true}};
        for (std::int64_t n = from; n != to; n += step) {
            const Step next = way.back().known ? stepOn(at(n), at(n + step), way.back().at) : Step{};
            way.push_back(next);
        }
        doubtTheEnd(way);
        return way;
    }

    cv::Size window() const {
        const int side = static_cast<int>(kWindow * longSide(background_)) | 1;
        return {side, side};
    }

    /// Of a way that was lost, the last part is taken away.
    static void doubtTheEnd(Way& way) {
        const auto lost = std::find_if(way.begin(), way.end(), [](const Step& s) { return !s.known; });
        if (lost == way.end()) return;
        const auto walked = lost - way.begin() - 1;
        const auto doubted = static_cast<long>(std::ceil(kDoubted * static_cast<double>(walked)));
        for (auto it = lost - doubted; it != lost; ++it) it->known = false;
    }

    /// A way that reached the other end is bent so that it meets the point clicked there; how far it missed
    /// is its error.
    double bendTo(Way& way, FilmPlace end) const {
        if (!way.back().known) return 0;
        const cv::Point2f miss = grey_.toWorking(end) - way.back().at;
        for (std::size_t i = 0; i < way.size(); ++i)
            way[i].at += miss * (static_cast<float>(i) / static_cast<float>(way.size() - 1));
        return cv::norm(miss);
    }

    Step stepOn(const Pyramid& here, const Pyramid& there, cv::Point2f from) const {
        std::vector<cv::Point2f> a{from}, b, again;
        std::vector<unsigned char> found, foundAgain;
        std::vector<float> error;
        cv::calcOpticalFlowPyrLK(here, there, a, b, found, error, window(), kLevels);
        if (!found[0]) return {};
        cv::calcOpticalFlowPyrLK(there, here, b, again, foundAgain, error, window(), kLevels);
        const double across = longSide(here[0]);
        const bool inside = cv::Rect2f({0, 0}, cv::Size2f(here[0].size())).contains(b[0]);
        if (!foundAgain[0] || !inside || cv::norm(again[0] - from) > kMostDisagreementPx ||
            cv::norm(b[0] - from) > kLongestJump * across)
            return {};
        return {b[0], true};
    }

    Followed joined(const FollowOrder& order, Way on, Way back) const {
        Followed result;
        const auto frames = static_cast<std::size_t>(order.to - order.from);
        const double largestGap = kLargestGap * longSide(background_);
        const double missed = std::max(bendTo(on, order.end), bendTo(back, order.start));
        for (std::size_t i = 0; i <= frames; ++i) {
            const Step &f = on[i], &b = back[frames - i];
            const double late = frames == 0 ? 0 : static_cast<double>(i) / static_cast<double>(frames);
            const std::int64_t frame = order.from + static_cast<std::int64_t>(i);
            const double gap = std::max(missed, f.known && b.known ? cv::norm(f.at - b.at) : 0);
            const double sd = sdOf(order, f, b, late, gap);
            const bool isLost = (!f.known && !b.known) || gap > largestGap || sd * grey_.scale() > largestGap;
            if (isLost && i > 0 && i < frames) {
                result.lost = {result.lost ? result.lost->first : frame, frame};
                continue;
            }
            // The ends are what was clicked, whatever the flow says.
            const double weight = i == 0 || !b.known ? 0 : i == frames || !f.known ? 1 : late;
            const cv::Point2d at = cv::Point2d(f.at) * (1 - weight) + cv::Point2d(b.at) * weight;
            result.places.push_back({frame, grey_.toFilm(at), isLost ? order.clickSdPx : sd});
        }
        return result;
    }

    /// Together the two ways know how far they are apart; a way alone may slip along a limb unseen.
    double sdOf(const FollowOrder& order, const Step& f, const Step& b, double late, double gap) const {
        constexpr double kDriftPx = 1, kSlipPx = 1.2;
        const auto frames = static_cast<double>(order.to - order.from);
        const double walked = std::min(f.known ? late : 1, b.known ? 1 - late : 1) * frames;
        const double drift = f.known && b.known ? kDriftPx * std::sqrt(walked) : kSlipPx * walked;
        return std::hypot(order.clickSdPx, drift / grey_.scale(),
                          gap * std::sqrt(late * (1 - late)) / grey_.scale());
    }

    WorkingGrey grey_;
    std::int64_t first_, last_;
    cv::Mat background_;
    std::vector<Pyramid> pyramids_;
};

} // namespace

Result<std::vector<Followed>> followPoints(const FilmSource& source, const std::vector<FollowOrder>& orders,
                                           std::stop_token stop,
                                           const std::function<void(double)>& progress) {
    std::vector<Followed> all;
    if (orders.empty()) return all;
    std::int64_t first = orders.front().from, last = orders.front().to;
    for (const FollowOrder& o : orders) {
        first = std::min(first, o.from);
        last = std::max(last, o.to);
        if (o.from > o.to || o.from < 0 || o.to >= source.film.info().frames())
            return fail(ErrorCode::BadInput, msg("follow.a-point-is-to-be-followed"));
    }
    if (last - first >= kMostFollowed)
        return fail(ErrorCode::BadInput,
                    msg("follow.points-are-followed-over-at-most", {{"kMostFollowed", kMostFollowed}}));
    Follower follower(source, first, last);
    if (const Status loaded = follower.load(stop, progress); !loaded) return loaded.error();
    for (const FollowOrder& o : orders) {
        if (stop.stop_requested()) return fail(ErrorCode::Cancelled, msg("follow.following-was-stopped"));
        all.push_back(follower.follow(o));
        if (progress)
            progress(0.8 + 0.2 * static_cast<double>(all.size()) / static_cast<double>(orders.size()));
    }
    return all;
}

} // namespace jg
