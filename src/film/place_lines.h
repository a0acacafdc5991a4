// SPDX-License-Identifier: GPL-3.0-or-later
// How the camera is held, from the lines of the place. Inside the film room only.
#pragma once

#include "film/camera_stand.h"

#include <opencv2/core.hpp>

namespace jg {

/// From one grey picture. Walls, posts and window frames are taken as upright and level: a guess, said as
/// one. The turn takes the picture's width as the focal length, about a phone's (own choice).
PlaceLines placeLines(const cv::Mat& grey);

} // namespace jg
