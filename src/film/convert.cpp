// SPDX-License-Identifier: GPL-3.0-or-later
#include "film/convert.h"

#include "film/colour.h"
#include "film/planes.h"
#include "film/turn.h"

#include <opencv2/imgproc.hpp>

#include <algorithm>

namespace jg {

namespace {

/// Room for `bytes` and for what swscale writes beyond the last row of a narrow picture; give it back by
/// resize().
std::vector<std::uint8_t> roomFor(std::size_t bytes) {
    constexpr std::size_t kOverrun = 64; // one write of its widest assembly
    return std::vector<std::uint8_t>(bytes + kOverrun);
}

/// What zimg does not know, and what is made smaller, by swscale.
Status toBgrx(const AVFrame& frame, int width, int height, std::uint8_t* bgrx) {
    const bool smaller = width < frame.width;
    const int quality = smaller ? SWS_BILINEAR : SWS_BICUBIC | SWS_ACCURATE_RND | SWS_FULL_CHR_H_INT;
    const ff::Sws sws(sws_getContext(frame.width, frame.height, static_cast<AVPixelFormat>(frame.format),
                                     width, height, AV_PIX_FMT_BGRA, quality, nullptr, nullptr, nullptr));
    if (!sws) return fail(ErrorCode::Internal, msg("convert.pixel-format"));
    const int* matrix = sws_getCoefficients(matrixOf(frame));
    const int fullRange = frame.color_range == AVCOL_RANGE_JPEG ? 1 : 0;
    sws_setColorspaceDetails(sws.get(), matrix, fullRange, sws_getCoefficients(SWS_CS_DEFAULT), 1, 0, 1 << 16,
                             1 << 16);
    std::uint8_t* planes[4] = {bgrx, nullptr, nullptr, nullptr};
    const int strides[4] = {width * 4, 0, 0, 0};
    sws_scale(sws.get(), frame.data, frame.linesize, 0, frame.height, planes, strides);
    return Done{};
}

/// A part of what is shown in the frame's stored pixels: the turn undone, within its edges.
PicturePart storedPart(PicturePart p, const AVFrame& frame, const FilmInfo& info) {
    if (info.mirrored) p.left = info.width - p.left - p.width;
    const double right = info.width - p.left - p.width, below = info.height - p.top - p.height;
    if (info.rotationDeg == 90) p = {p.top, right, p.height, p.width};
    if (info.rotationDeg == 180) p = {right, below, p.width, p.height};
    if (info.rotationDeg == 270) p = {below, p.left, p.height, p.width};
    const bool swap = info.rotationDeg % 180 != 0;
    const double x = frame.width / double(swap ? info.height : info.width),
                 y = frame.height / double(swap ? info.width : info.height);
    const auto within = [](double at, double most) { return std::clamp(at, 0.0, most); };
    const double left = within(p.left * x, frame.width), top = within(p.top * y, frame.height);
    return {left, top, std::min(p.width * x, frame.width - left), std::min(p.height * y, frame.height - top)};
}

cv::Mat matOf(const PictureRoom& room) {
    return {room.height, room.width, CV_8UC4, room.bgrx, static_cast<std::size_t>(room.stride)};
}

bool isTurned(const FilmInfo& info) {
    return info.rotationDeg != 0 || info.mirrored;
}

/// A part of a picture at another size, bilinear.
void cutTo(const cv::Mat& picture, const PicturePart& part, cv::Mat to) {
    const double x = part.width / to.cols, y = part.height / to.rows;
    const cv::Matx23d toPicture(x, 0, part.left + x / 2 - 0.5, 0, y, part.top + y / 2 - 0.5);
    cv::warpAffine(picture, to, toPicture, to.size(), cv::INTER_LINEAR | cv::WARP_INVERSE_MAP,
                   cv::BORDER_REPLICATE);
}

/// A part of the frame in its stored pixels, not turned yet.
Status writeStored(const AVFrame& frame, const PicturePart& stored, const PictureRoom& to) {
    if (planesToBgrx(frame, stored, to)) return Done{};
    const std::size_t pixels = static_cast<std::size_t>(frame.width) * static_cast<std::size_t>(frame.height);
    std::vector<std::uint8_t> whole = roomFor(4 * pixels);
    if (auto made = toBgrx(frame, frame.width, frame.height, whole.data()); !made) return made;
    cutTo(cv::Mat(frame.height, frame.width, CV_8UC4, whole.data()), stored, matOf(to));
    return Done{};
}

bool isWithin(const PicturePart& part, const FilmInfo& info) {
    constexpr double kRounding = 1e-6;
    return part.width > 0 && part.height > 0 && part.left >= -kRounding && part.top >= -kRounding &&
           part.left + part.width <= info.width + kRounding &&
           part.top + part.height <= info.height + kRounding;
}

/// What `write` puts into a room of stored pixels, with the screen's colours and turned as it is shown. The
/// room that it is given has what roomFor() adds wherever `to` has.
template <typename Write>
Status writeShown(const FilmInfo& info, const PictureRoom& to, const Write& write) {
    const bool swap = info.rotationDeg % 180 != 0;
    std::vector<std::uint8_t> unturned;
    PictureRoom stored = to;
    if (isTurned(info)) {
        if (swap) std::swap(stored.width, stored.height);
        stored.stride = stored.width * 4;
        unturned = roomFor(static_cast<std::size_t>(stored.stride) * static_cast<std::size_t>(stored.height));
        stored.bgrx = unturned.data();
    }
    if (Status written = write(stored); !written) return written;
    toneMap(stored, info.transfer);
    if (isTurned(info)) {
        cv::Mat shown = matOf(to);
        turnAsShown(matOf(stored), shown, info);
    }
    return Done{};
}

} // namespace

Result<Picture> toPicture(const AVFrame& frame, const FilmInfo& info, int maxWidth) {
    int width = info.width, height = info.height;
    if (maxWidth > 0 && info.width > maxWidth) {
        width = maxWidth;
        height = std::max(1, static_cast<int>(static_cast<std::int64_t>(height) * maxWidth / info.width));
    }
    const std::size_t bytes = static_cast<std::size_t>(width) * static_cast<std::size_t>(height) * 4;
    auto pixels = std::make_shared<std::vector<std::uint8_t>>(roomFor(bytes));
    const auto written =
        writeShown(info, {pixels->data(), width * 4, width, height}, [&](const PictureRoom& to) -> Status {
            const bool asItIs = to.width == frame.width && to.height == frame.height;
            if (asItIs && planesToBgrx(frame, {0, 0, double(to.width), double(to.height)}, to)) return Done{};
            return toBgrx(frame, to.width, to.height, to.bgrx);
        });
    if (!written) return written.error();
    pixels->resize(bytes);
    return Picture{width, height, std::move(pixels)};
}

Status writePart(const AVFrame& frame, const FilmInfo& info, const PicturePart& part, const PictureRoom& to) {
    if (!isWithin(part, info) || to.width <= 0 || to.height <= 0)
        return fail(ErrorCode::BadInput, msg("convert.no-such-part"));
    return writeShown(info, to, [&](const PictureRoom& stored) {
        return writeStored(frame, storedPart(part, frame, info), stored);
    });
}

Result<FrameHandle> toPlanes(const AVFrame& frame, const FilmInfo& info, const PicturePart& part, int width,
                             int height) {
    if (!isWithin(part, info) || width <= 0 || height <= 0 || width % 2 != 0 || height % 2 != 0)
        return fail(ErrorCode::BadInput, msg("convert.no-such-part"));
    if (isTurned(info) || info.transfer != Transfer::Standard) return FrameHandle();
    ff::Frame planes = writtenFrame(width, height);
    if (!planes) return fail(ErrorCode::Internal, msg("scrub-copy.there-is-no-memory-left"));
    if (!planesToPlanes(frame, storedPart(part, frame, info), *planes)) return FrameHandle();
    return FrameHandle(planes.release(), ff::Free());
}

Result<GreyPicture> toGrey(const AVFrame& frame, const FilmInfo& info, int width) {
    constexpr std::int64_t kLeast = 16;
    int height =
        static_cast<int>(std::max(kLeast, std::int64_t{width} * info.height / std::max(1, info.width)));
    if (info.rotationDeg % 180 != 0) std::swap(width, height);
    const ff::Sws sws(sws_getContext(frame.width, frame.height, static_cast<AVPixelFormat>(frame.format),
                                     width, height, AV_PIX_FMT_GRAY8, SWS_AREA, nullptr, nullptr, nullptr));
    if (!sws) return fail(ErrorCode::Internal, msg("convert.pixel-format-grey"));
    const std::size_t bytes = static_cast<std::size_t>(width) * static_cast<std::size_t>(height);
    GreyPicture grey{width, height, roomFor(bytes)};
    std::uint8_t* planes[4] = {grey.pixels.data(), nullptr, nullptr, nullptr};
    const int strides[4] = {width, 0, 0, 0};
    sws_scale(sws.get(), frame.data, frame.linesize, 0, frame.height, planes, strides);
    grey.pixels.resize(bytes);
    return grey;
}

} // namespace jg
