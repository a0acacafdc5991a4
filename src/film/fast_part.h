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

/// From three grey pictures in a row and the background, all of one size, without the camera's shift. A limb
/// smeared over its way lets the background through and stands out less. Nothing when little is fast. Pure.
std::optional<FastPart> fastPart(const cv::Mat& before, const cv::Mat& now, const cv::Mat& after,
                                 const cv::Mat& background);

} // namespace jg
