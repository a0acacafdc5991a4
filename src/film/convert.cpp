#include "film/convert.h"

#include "film/planes.h"
#include "film/turn.h"

#include <algorithm>

namespace jg {

namespace {

/// Room for `bytes` and for what swscale writes beyond the last row of a narrow picture; give it back by
/// resize().
std::vector<std::uint8_t> roomFor(std::size_t bytes) {
    constexpr std::size_t kOverrun = 64; // one write of its widest assembly
    return std::vector<std::uint8_t>(bytes + kOverrun);
}

} // namespace

AVColorSpace matrixOf(const AVFrame& frame) {
    switch (frame.colorspace) {
    case AVCOL_SPC_BT709:
    case AVCOL_SPC_SMPTE240M:
    case AVCOL_SPC_FCC:
    case AVCOL_SPC_BT2020_NCL:
        return frame.colorspace;
    case AVCOL_SPC_BT2020_CL:
        return AVCOL_SPC_BT2020_NCL;
    default:
        return AVCOL_SPC_SMPTE170M;
    }
}

Transfer transferOf(const AVFrame& frame) {
    if (frame.color_trc == AVCOL_TRC_SMPTE2084) return Transfer::Pq;
    if (frame.color_trc == AVCOL_TRC_ARIB_STD_B67) return Transfer::Hlg;
    return Transfer::Standard;
}

namespace {

/// What zimg does not know, and what is made smaller, by swscale.
Status toBgrx(const AVFrame& frame, int width, int height, std::uint8_t* bgrx) {
    const bool smaller = width < frame.width;
    const int quality = smaller ? SWS_BILINEAR : SWS_BICUBIC | SWS_ACCURATE_RND | SWS_FULL_CHR_H_INT;
    const ff::Sws sws(sws_getContext(frame.width, frame.height, static_cast<AVPixelFormat>(frame.format),
                                     width, height, AV_PIX_FMT_BGRA, quality, nullptr, nullptr, nullptr));
    if (!sws) return fail(ErrorCode::Internal, msg("convert.this-films-pixel-format-cant-be"));
    const int* matrix = sws_getCoefficients(matrixOf(frame));
    const int fullRange = frame.color_range == AVCOL_RANGE_JPEG ? 1 : 0;
    sws_setColorspaceDetails(sws.get(), matrix, fullRange, sws_getCoefficients(SWS_CS_DEFAULT), 1, 0, 1 << 16,
                             1 << 16);
    std::uint8_t* planes[4] = {bgrx, nullptr, nullptr, nullptr};
    const int strides[4] = {width * 4, 0, 0, 0};
    sws_scale(sws.get(), frame.data, frame.linesize, 0, frame.height, planes, strides);
    return Done{};
}

} // namespace

Result<Picture> toPicture(const AVFrame& frame, const FilmInfo& info, int maxWidth) {
    const bool swap = info.rotationDeg % 180 != 0;
    int width = swap ? info.height : info.width, height = swap ? info.width : info.height;
    if (maxWidth > 0 && info.width > maxWidth) {
        width = std::max(1, static_cast<int>(static_cast<std::int64_t>(width) * maxWidth / info.width));
        height = std::max(1, static_cast<int>(static_cast<std::int64_t>(height) * maxWidth / info.width));
    }
    const std::size_t bytes = static_cast<std::size_t>(width) * static_cast<std::size_t>(height) * 4;
    auto pixels = std::make_shared<std::vector<std::uint8_t>>(roomFor(bytes));
    const bool asItIs = width == frame.width && height == frame.height;
    if (!asItIs || !planesToBgrx(frame, pixels->data(), width * 4))
        if (auto made = toBgrx(frame, width, height, pixels->data()); !made) return made.error();
    pixels->resize(bytes);
    toneMap(*pixels, info.transfer);
    if (info.rotationDeg == 0 && !info.mirrored) return Picture{width, height, std::move(pixels)};
    auto turned = std::make_shared<std::vector<std::uint8_t>>(pixels->size());
    if (swap) std::swap(width, height);
    cv::Mat shown(height, width, CV_8UC4, turned->data());
    turnAsShown(cv::Mat(swap ? width : height, swap ? height : width, CV_8UC4, pixels->data()), shown, info);
    return Picture{width, height, std::move(turned)};
}

Result<Reader::Grey> toGrey(const AVFrame& frame, const FilmInfo& info, int width) {
    constexpr std::int64_t kLeast = 16;
    int height =
        static_cast<int>(std::max(kLeast, std::int64_t{width} * info.height / std::max(1, info.width)));
    if (info.rotationDeg % 180 != 0) std::swap(width, height);
    const ff::Sws sws(sws_getContext(frame.width, frame.height, static_cast<AVPixelFormat>(frame.format),
                                     width, height, AV_PIX_FMT_GRAY8, SWS_AREA, nullptr, nullptr, nullptr));
    if (!sws) return fail(ErrorCode::Internal, msg("convert.this-films-pixel-format-cant-be-2"));
    const std::size_t bytes = static_cast<std::size_t>(width) * static_cast<std::size_t>(height);
    Reader::Grey grey{width, height, roomFor(bytes)};
    std::uint8_t* planes[4] = {grey.pixels.data(), nullptr, nullptr, nullptr};
    const int strides[4] = {width, 0, 0, 0};
    sws_scale(sws.get(), frame.data, frame.linesize, 0, frame.height, planes, strides);
    grey.pixels.resize(bytes);
    return grey;
}

} // namespace jg
