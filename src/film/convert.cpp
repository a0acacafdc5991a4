#include "film/convert.h"

#include <cstring>

namespace jg {

namespace {

int matrixOf(const AVFrame* frame) {
    switch (frame->colorspace) {
    case AVCOL_SPC_BT709:
        return SWS_CS_ITU709;
    case AVCOL_SPC_BT2020_NCL:
    case AVCOL_SPC_BT2020_CL:
        return SWS_CS_BT2020;
    case AVCOL_SPC_SMPTE240M:
        return SWS_CS_SMPTE240M;
    case AVCOL_SPC_FCC:
        return SWS_CS_FCC;
    default:
        return SWS_CS_DEFAULT;
    }
}

/// One picture turned clockwise by the film's rotation, then mirrored.
Picture turned(const std::vector<std::uint8_t>& source, int width, int height, int rotationDeg,
               bool mirrored) {
    const bool swap = rotationDeg % 180 != 0;
    const int outWidth = swap ? height : width;
    const int outHeight = swap ? width : height;
    auto pixels = std::make_shared<std::vector<std::uint8_t>>(source.size());
    const auto* in = reinterpret_cast<const std::uint32_t*>(source.data());
    auto* out = reinterpret_cast<std::uint32_t*>(pixels->data());
    for (int y = 0; y < height; ++y) {
        for (int x = 0; x < width; ++x) {
            int ox = x, oy = y;
            if (rotationDeg == 90) ox = height - 1 - y, oy = x;
            if (rotationDeg == 180) ox = width - 1 - x, oy = height - 1 - y;
            if (rotationDeg == 270) ox = y, oy = width - 1 - x;
            if (mirrored) ox = outWidth - 1 - ox;
            out[static_cast<std::size_t>(oy) * static_cast<std::size_t>(outWidth) +
                static_cast<std::size_t>(ox)] =
                in[static_cast<std::size_t>(y) * static_cast<std::size_t>(width) +
                   static_cast<std::size_t>(x)];
        }
    }
    return {outWidth, outHeight, std::move(pixels)};
}

} // namespace

Result<Picture> toPicture(const AVFrame* frame, const FilmInfo& info) {
    const bool swap = info.rotationDeg % 180 != 0;
    const int width = swap ? info.height : info.width;
    const int height = swap ? info.width : info.height;
    const ff::Sws sws(sws_getContext(
        frame->width, frame->height, static_cast<AVPixelFormat>(frame->format), width, height,
        AV_PIX_FMT_BGRA, SWS_BICUBIC | SWS_ACCURATE_RND | SWS_FULL_CHR_H_INT, nullptr, nullptr, nullptr));
    if (!sws) return fail(ErrorCode::Internal, "This film's pixel format can't be shown.");
    const int* matrix = sws_getCoefficients(matrixOf(frame));
    const int fullRange = frame->color_range == AVCOL_RANGE_JPEG ? 1 : 0;
    sws_setColorspaceDetails(sws.get(), matrix, fullRange, sws_getCoefficients(SWS_CS_DEFAULT), 1, 0, 1 << 16,
                             1 << 16);
    auto pixels = std::make_shared<std::vector<std::uint8_t>>(static_cast<std::size_t>(width) *
                                                              static_cast<std::size_t>(height) * 4);
    std::uint8_t* planes[4] = {pixels->data(), nullptr, nullptr, nullptr};
    const int strides[4] = {width * 4, 0, 0, 0};
    sws_scale(sws.get(), frame->data, frame->linesize, 0, frame->height, planes, strides);
    if (info.rotationDeg == 0 && !info.mirrored) return Picture{width, height, std::move(pixels)};
    return turned(*pixels, width, height, info.rotationDeg, info.mirrored);
}

} // namespace jg
