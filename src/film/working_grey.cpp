#include "film/working_grey.h"

#include "film/median_picture.h"
#include "film/turn.h"

#include <algorithm>

namespace jg {

namespace {
constexpr int kWidth = 960;
constexpr int kBackgroundPictures = 15;
} // namespace

Result<cv::Mat> WorkingGrey::at(std::int64_t frame, std::stop_token stop) {
    if (stop.stop_requested()) return fail(ErrorCode::Cancelled, "Looking through the film was stopped.");
    const FilmInfo& info = reader_.info();
    const int width = std::min(kWidth, std::max(16, info.width));
    // A film shot upright is stored lying: its stored width is the shown height.
    const bool lying = info.rotationDeg % 180 != 0;
    const int stored = lying ? std::max(16, width * info.height / std::max(1, info.width)) : width;
    auto grey = reader_.grey(FrameNumber{frame}, stored, stop);
    if (!grey) return grey.error();
    const cv::Mat raw(grey->height, grey->width, CV_8U, grey->pixels.data());
    cv::Mat shown;
    turnAsShown(raw, shown, info);
    scaleX_ = static_cast<double>(shown.cols) / info.width;
    scaleY_ = static_cast<double>(shown.rows) / info.height;
    return shown;
}

Result<cv::Mat> WorkingGrey::background(std::stop_token stop) {
    std::vector<cv::Mat> some;
    const std::int64_t frames = reader_.info().frames();
    for (int i = 0; i < kBackgroundPictures; ++i) {
        auto shown = at((frames - 1) * i / (kBackgroundPictures - 1), stop);
        if (!shown) return shown.error();
        some.push_back(*std::move(shown));
    }
    return medianPicture(some);
}

} // namespace jg
