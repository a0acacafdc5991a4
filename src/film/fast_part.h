// SPDX-License-Identifier: GPL-3.0-or-later
// How sharp the fastest part of a body is. Inside the film room only.
#pragma once

#include <opencv2/core.hpp>

#include <optional>

namespace jg {

/// The part of a body that was elsewhere a picture before and will be elsewhere a picture later.
struct FastPart {
    double area = 0;  ///< pixels
    double clear = 0; ///< how far it stands out from the background, against the body's slow parts
};

/// How far a grey picture without the camera's shift is from the background, grey levels, a little smoothed.
cv::Mat awayFrom(const cv::Mat& background, const cv::Mat& picture);

/// From awayFrom() of three pictures in a row. A limb smeared over its way lets the background through and
/// stands out less. Nothing when little is fast. Pure.
std::optional<FastPart> fastPart(const cv::Mat& before, const cv::Mat& now, const cv::Mat& after);

} // namespace jg
