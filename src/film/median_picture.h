// SPDX-License-Identifier: GPL-3.0-or-later
// What stands still in several pictures. Inside the film room only.
#pragma once

#include <opencv2/core.hpp>

#include <vector>

namespace jg {

/// The upper median of each pixel over grey pictures of one size; `pictures` must not be empty.
cv::Mat medianPicture(const std::vector<cv::Mat>& pictures);

} // namespace jg
