// SPDX-License-Identifier: GPL-3.0-or-later
#include "film/working_grey.h"

#include "film/convert.h"
#include "film/median_picture.h"
#include "film/turn.h"

#include <opencv2/imgproc.hpp>

#include <algorithm>
#include <array>

namespace jg {

namespace {
constexpr int kWorkingWidth = 960;
constexpr int kBackgroundPictures = 15;

/// What each grey of one picture is in another of the same size: the mean there; between greys that do not
/// occur a straight line.
cv::Mat tonesOf(const cv::Mat& from, const cv::Mat& to) {
    std::array<double, 256> sum{};
    std::array<int, 256> count{};
    for (int y = 0; y < from.rows; ++y)
        for (int x = 0; x < from.cols; ++x) {
            const auto grey = from.at<std::uint8_t>(y, x);
            sum[grey] += to.at<std::uint8_t>(y, x);
            ++count[grey];
        }
    cv::Mat tones(1, 256, CV_8U);
    int known = -1;
    double last = 0;
    for (int g = 0; g < 256; ++g) {
        const auto i = static_cast<std::size_t>(g);
        if (count[i] == 0) continue;
        const double mean = sum[i] / count[i];
        for (int k = known + 1; k <= g; ++k) {
            const double part = known < 0 ? 1 : static_cast<double>(k - known) / (g - known);
            tones.at<std::uint8_t>(k) = cv::saturate_cast<std::uint8_t>(last + part * (mean - last));
        }
        known = g;
        last = mean;
    }
    for (int k = known + 1; k < 256; ++k) tones.at<std::uint8_t>(k) = cv::saturate_cast<std::uint8_t>(last);
    return tones;
}
} // namespace

Result<FrameHandle> WorkingGrey::decoded(std::int64_t frame, std::stop_token stop) {
    if (stop.stop_requested())
        return fail(ErrorCode::Cancelled, msg("working-grey.looking-through-the-film-was-stopped"));
    return reader_.frame(FrameNumber{frame}, whenStopped(stop));
}

Result<cv::Mat> WorkingGrey::shown(const AVFrame& frame) const {
    const FilmInfo& info = reader_.info();
    const auto grey = toGrey(frame, info, std::min(kWorkingWidth, std::max(16, info.width)));
    if (!grey) return grey.error();
    return turned(*grey, info);
}

Result<cv::Mat> WorkingGrey::at(std::int64_t frame, std::stop_token stop) {
    const auto handle = decoded(frame, stop);
    if (!handle) return handle.error();
    auto picture = shown(**handle);
    if (!picture) return picture;
    scaleX_ = static_cast<double>(picture->cols) / reader_.info().width;
    scaleY_ = static_cast<double>(picture->rows) / reader_.info().height;
    return picture;
}

Result<cv::Mat> WorkingGrey::background(std::int64_t frame, std::stop_token stop) {
    const bool whole = scrub_ && scrub_->info().frames() == reader_.info().frames();
    return whole ? medianOfCopy(frame, stop) : medianOver(stop);
}

Result<cv::Mat> WorkingGrey::medianOfCopy(std::int64_t frame, std::stop_token stop) {
    const auto exact = at(frame, stop);
    if (!exact) return exact.error();
    WorkingGrey copy(*scrub_);
    const auto same = copy.at(frame, stop);
    if (!same) return same.error();
    const auto median = copy.medianOver(stop);
    if (!median) return median.error();
    cv::Mat small, wide, toned;
    cv::resize(*same, small, exact->size(), 0, 0, cv::INTER_AREA);
    cv::resize(*median, wide, exact->size(), 0, 0, cv::INTER_AREA);
    cv::LUT(wide, tonesOf(small, *exact), toned);
    return toned;
}

Result<cv::Mat> WorkingGrey::medianOver(std::stop_token stop) {
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
