// SPDX-License-Identifier: GPL-3.0-or-later
#include "film/steady.h"

#include "film/median.h"
#include "film/working_grey.h"

#include <opencv2/imgproc.hpp>
#include <opencv2/video/tracking.hpp>

#include <algorithm>
#include <cmath>

namespace jg {

namespace {

constexpr int kMostPatches = 80;
constexpr std::size_t kLeastPatches = 8;
constexpr double kStill = 12;                    // grey levels from the background that still count as it
constexpr double kMostShakeDisagreementPx = 0.7; // forth and back
constexpr double kOwnSdPx = 0.05;                // of a patch's flow, however many there are

/// Median, and the standard error that the scatter about it gives.
std::pair<double, double> middleOf(const std::vector<double>& values) {
    const double middle = medianOf(values);
    std::vector<double> off;
    for (const double v : values) off.push_back(std::abs(v - middle));
    constexpr double kSdPerMad = 1.4826, kOfMedian = 1.2533; // both of a normal scatter
    return {middle, kOfMedian * kSdPerMad * medianOf(off) / std::sqrt(static_cast<double>(values.size()))};
}

/// Corners of what stands still on the first frame.
std::vector<cv::Point2f> patchesOf(const cv::Mat& first, const cv::Mat& background) {
    cv::Mat away, moving, still;
    cv::absdiff(first, background, away);
    cv::threshold(away, moving, kStill, 255, cv::THRESH_BINARY);
    cv::morphologyEx(moving, moving, cv::MORPH_OPEN, cv::getStructuringElement(cv::MORPH_ELLIPSE, {3, 3}));
    cv::dilate(moving, moving, cv::getStructuringElement(cv::MORPH_ELLIPSE, {25, 25}));
    cv::bitwise_not(moving, still);
    std::vector<cv::Point2f> corners;
    cv::goodFeaturesToTrack(first, corners, kMostPatches, 0.02, longSide(first) / 40, still);
    return corners;
}

/// Ways of the patches that were found there and back.
std::pair<std::vector<double>, std::vector<double>> waysOf(const cv::Mat& first, const cv::Mat& now,
                                                           const std::vector<cv::Point2f>& patches) {
    std::vector<cv::Point2f> there, back;
    std::vector<unsigned char> found, foundBack;
    std::vector<float> error;
    cv::calcOpticalFlowPyrLK(first, now, patches, there, found, error);
    cv::calcOpticalFlowPyrLK(now, first, there, back, foundBack, error);
    std::pair<std::vector<double>, std::vector<double>> ways;
    for (std::size_t i = 0; i < patches.size(); ++i) {
        if (!found[i] || !foundBack[i] || cv::norm(back[i] - patches[i]) > kMostShakeDisagreementPx) continue;
        ways.first.push_back(there[i].x - patches[i].x);
        ways.second.push_back(there[i].y - patches[i].y);
    }
    return ways;
}

} // namespace

Result<std::vector<CameraShift>> cameraShake(const FilmSource& source, std::int64_t first, std::int64_t last,
                                             std::stop_token stop,
                                             const std::function<void(double)>& progress) {
    if (first < 0 || last < first || last >= source.film.info().frames())
        return fail(ErrorCode::BadInput, msg("steady.the-camera-is-to-be-followed"));
    WorkingGrey grey(source);
    const auto background = grey.background(first, stop);
    if (!background) return background.error();
    const auto reference = grey.at(first, stop);
    if (!reference) return reference.error();
    const auto patches = patchesOf(*reference, *background);
    std::vector<CameraShift> shifts;
    for (std::int64_t n = first; n <= last; ++n) {
        const auto now = grey.at(n, stop);
        if (!now) return now.error();
        const auto [x, y] = patches.empty() ? std::pair<std::vector<double>, std::vector<double>>{}
                                            : waysOf(*reference, *now, patches);
        if (x.size() < kLeastPatches) return fail(ErrorCode::Refused, msg("steady.too-little-still"));
        const auto [dx, sx] = middleOf(x);
        const auto [dy, sy] = middleOf(y);
        shifts.push_back({n, grey.toFilm({dx, dy}), std::hypot(kOwnSdPx, std::max(sx, sy)) / grey.scale()});
        if (progress) progress(static_cast<double>(n - first + 1) / static_cast<double>(last - first + 1));
    }
    return shifts;
}

} // namespace jg
