// SPDX-License-Identifier: GPL-3.0-or-later
// Grey pictures as shown, small enough to work on, and what stands still in them. Inside the film room only.
#pragma once

#include "film/film_place.h"
#include "film/film_source.h"

#include <opencv2/core.hpp>

#include <stop_token>

namespace jg {

/// Frames of one film at no more than 960 pixels across. Lives in the readers' thread.
class WorkingGrey {
public:
    explicit WorkingGrey(const FilmSource& source)
        : reader_(source.film)
        , scrub_(source.scrub) {}
    /// Errors: Cancelled, those of Reader.
    Result<cv::Mat> at(std::int64_t frame, std::stop_token stop);
    /// The first half of at(), and the second, which may run in any thread.
    Result<FrameHandle> decoded(std::int64_t frame, std::stop_token stop);
    Result<cv::Mat> shown(const AVFrame& frame) const;
    /// The median of 15 pictures spread over the film: what stands still behind the athlete. From the scrub
    /// copy when it holds the whole film; its greys are then made those of `frame`. Errors as at().
    Result<cv::Mat> background(std::int64_t frame, std::stop_token stop);

    /// To the working picture's pixels and back; known once a picture was taken.
    cv::Point2f toWorking(FilmPlace p) const {
        return {static_cast<float>(p.x * scaleX_), static_cast<float>(p.y * scaleY_)};
    }
    FilmPlace toFilm(cv::Point2d p) const { return {p.x / scaleX_, p.y / scaleY_}; }
    /// Working pixels in a source pixel across.
    double scale() const { return scaleX_; }

private:
    Result<cv::Mat> medianOver(std::stop_token stop);
    Result<cv::Mat> medianOfCopy(std::int64_t frame, std::stop_token stop);

    Reader& reader_;
    Reader* scrub_;
    double scaleX_ = 1, scaleY_ = 1;
};

/// The longer side of a picture.
inline double longSide(const cv::Mat& picture) {
    return std::max(picture.cols, picture.rows);
}

} // namespace jg
