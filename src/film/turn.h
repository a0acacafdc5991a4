// SPDX-License-Identifier: GPL-3.0-or-later
// Stored pictures as shown. Inside the film room only.
#pragma once

#include "film/film_info.h"
#include "film/picture.h"

#include <opencv2/core.hpp>

namespace jg {

/// The stored picture turned clockwise by the film's rotation, then mirrored, into `shown` (made when its
/// size or type is another). Without either, `shown` is a copy.
inline void turnAsShown(const cv::Mat& stored, cv::Mat& shown, const FilmInfo& info) {
    if (info.rotationDeg == 90)
        cv::rotate(stored, shown, cv::ROTATE_90_CLOCKWISE);
    else if (info.rotationDeg == 180)
        cv::rotate(stored, shown, cv::ROTATE_180);
    else if (info.rotationDeg == 270)
        cv::rotate(stored, shown, cv::ROTATE_90_COUNTERCLOCKWISE);
    else
        stored.copyTo(shown);
    if (info.mirrored) cv::flip(shown, shown, 1);
}

/// A small grey picture as shown, in memory of its own.
inline cv::Mat turned(const GreyPicture& grey, const FilmInfo& info) {
    const cv::Mat stored(grey.height, grey.width, CV_8U, const_cast<std::uint8_t*>(grey.pixels.data()));
    cv::Mat shown;
    turnAsShown(stored, shown, info);
    return shown;
}

} // namespace jg
