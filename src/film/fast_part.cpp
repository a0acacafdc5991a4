// SPDX-License-Identifier: GPL-3.0-or-later
#include "film/fast_part.h"

#include <opencv2/imgproc.hpp>

namespace jg {

namespace {

constexpr int kFaint = 8;      // own choice, grey levels: coding noise stays below it
constexpr int kLeastArea = 24; // pixels

cv::Mat grown(const cv::Mat& mask) {
    static const cv::Mat kernel = cv::getStructuringElement(cv::MORPH_ELLIPSE, {5, 5});
    cv::Mat out;
    cv::dilate(mask, out, kernel);
    return out;
}

} // namespace

cv::Mat awayFrom(const cv::Mat& background, const cv::Mat& picture) {
    cv::Mat away;
    cv::absdiff(picture, background, away);
    cv::blur(away, away, {3, 3});
    return away;
}

std::optional<FastPart> fastPart(const cv::Mat& before, const cv::Mat& now, const cv::Mat& after) {
    const cv::Mat bodyNow = now > kFaint, bodyBefore = before > kFaint, bodyAfter = after > kFaint;
    const cv::Mat fast = bodyNow & ~(grown(bodyBefore) | grown(bodyAfter));
    const cv::Mat slow = bodyNow & bodyBefore & bodyAfter;
    const int area = cv::countNonZero(fast);
    if (area < kLeastArea || cv::countNonZero(slow) < kLeastArea) return std::nullopt;
    return FastPart{static_cast<double>(area), cv::mean(now, fast)[0] / cv::mean(now, slow)[0]};
}

} // namespace jg
