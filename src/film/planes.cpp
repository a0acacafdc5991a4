// SPDX-License-Identifier: GPL-3.0-or-later
#include "film/planes.h"

#include "film/colour.h"

#include <libavutil/pixdesc.h>
#include <opencv2/core/hal/hal.hpp>
#include <zimg.h>

#include <algorithm>
#include <array>
#include <cstdlib>
#include <list>
#include <new>
#include <optional>
#include <string_view>
#include <tuple>
#include <vector>

namespace jg {

namespace planes {

constexpr std::size_t kAlign = 64; // of every row that zimg reads or writes

struct FreeGraph {
    void operator()(zimg_filter_graph* graph) const { zimg_filter_graph_free(graph); }
};

struct FreeAligned {
    void operator()(std::uint8_t* bytes) const { std::free(bytes); }
};
using Aligned = std::unique_ptr<std::uint8_t, FreeAligned>;

inline std::size_t alignedUp(std::size_t bytes) {
    return (bytes + kAlign - 1) / kAlign * kAlign;
}

inline Aligned aligned(std::size_t bytes) {
    Aligned room(static_cast<std::uint8_t*>(std::aligned_alloc(kAlign, std::max(kAlign, alignedUp(bytes)))));
    if (!room) throw std::bad_alloc();
    return room;
}

/// A few rows of R', G' and B' between zimg and rows of BGRX.
struct RgbRows {
    RgbRows(int width, unsigned mask)
        : stride(alignedUp(static_cast<std::size_t>(width)))
        , mask(mask) {
        for (Aligned& plane : planes) plane = aligned(stride * (std::size_t{mask} + 1));
    }

    std::uint8_t* at(std::size_t plane, unsigned row, unsigned left) const {
        return planes[plane].get() + stride * (row & mask) + left;
    }

    std::size_t stride;
    unsigned mask;
    std::array<Aligned, 3> planes; ///< red, green, blue
};

} // namespace planes

namespace {

zimg_image_format format(int width, int height) {
    zimg_image_format f;
    zimg_image_format_default(&f, ZIMG_API_VERSION);
    f.width = static_cast<unsigned>(width);
    f.height = static_cast<unsigned>(height);
    f.pixel_type = ZIMG_PIXEL_BYTE;
    f.active_region = {0, 0, double(width), double(height)}; // not a number else, which equals nothing
    return f;
}

zimg_image_format rgb(int width, int height) {
    zimg_image_format f = format(width, height);
    f.color_family = ZIMG_COLOR_RGB;
    f.matrix_coefficients = ZIMG_MATRIX_RGB;
    f.pixel_range = ZIMG_RANGE_FULL;
    return f;
}

/// The planes of films that are written: 4:2:0 of 8 bits, BT.709, limited range.
zimg_image_format written(int width, int height) {
    zimg_image_format f = format(width, height);
    f.color_family = ZIMG_COLOR_YUV;
    f.subsample_w = f.subsample_h = 1;
    f.matrix_coefficients = ZIMG_MATRIX_BT709;
    f.pixel_range = ZIMG_RANGE_LIMITED;
    return f;
}

zimg_chroma_location_e chromaOf(AVChromaLocation at) {
    switch (at) {
    case AVCHROMA_LOC_CENTER:
        return ZIMG_CHROMA_CENTER;
    case AVCHROMA_LOC_TOPLEFT:
        return ZIMG_CHROMA_TOP_LEFT;
    case AVCHROMA_LOC_TOP:
        return ZIMG_CHROMA_TOP;
    case AVCHROMA_LOC_BOTTOMLEFT:
        return ZIMG_CHROMA_BOTTOM_LEFT;
    case AVCHROMA_LOC_BOTTOM:
        return ZIMG_CHROMA_BOTTOM;
    default:
        return ZIMG_CHROMA_LEFT;
    }
}

bool isThreePlanes(const AVPixFmtDescriptor& d) {
    constexpr std::uint64_t kOthers = AV_PIX_FMT_FLAG_RGB | AV_PIX_FMT_FLAG_BE | AV_PIX_FMT_FLAG_PAL |
                                      AV_PIX_FMT_FLAG_HWACCEL | AV_PIX_FMT_FLAG_FLOAT | AV_PIX_FMT_FLAG_BAYER;
    if (!(d.flags & AV_PIX_FMT_FLAG_PLANAR) || (d.flags & kOthers) || d.nb_components < 3) return false;
    for (int c = 0; c < 3; ++c) {
        const AVComponentDescriptor& part = d.comp[c];
        const int bytes = part.depth > 8 ? 2 : 1;
        if (part.plane != c || part.step != bytes || part.shift != 0 || part.offset != 0) return false;
    }
    return true;
}

/// How zimg names the frame's planes; none where it can't.
std::optional<zimg_image_format> formatOf(const AVFrame& frame) {
    const AVPixFmtDescriptor* d = av_pix_fmt_desc_get(static_cast<AVPixelFormat>(frame.format));
    if (!d || !isThreePlanes(*d)) return std::nullopt;
    if (frame.width % (1 << d->log2_chroma_w) || frame.height % (1 << d->log2_chroma_h)) return std::nullopt;
    zimg_image_format f = format(frame.width, frame.height);
    f.pixel_type = d->comp[0].depth > 8 ? ZIMG_PIXEL_WORD : ZIMG_PIXEL_BYTE;
    f.depth = static_cast<unsigned>(d->comp[0].depth);
    f.subsample_w = d->log2_chroma_w;
    f.subsample_h = d->log2_chroma_h;
    f.color_family = ZIMG_COLOR_YUV;
    f.matrix_coefficients = static_cast<zimg_matrix_coefficients_e>(matrixOf(frame));
    const bool full = frame.color_range == AVCOL_RANGE_JPEG || std::string_view(d->name).starts_with("yuvj");
    f.pixel_range = full ? ZIMG_RANGE_FULL : ZIMG_RANGE_LIMITED;
    f.chroma_location = chromaOf(frame.chroma_location);
    return f;
}

/// All that a graph depends on.
auto keyOf(const zimg_image_format& f) {
    return std::tuple(f.width, f.height, f.pixel_type, f.depth, f.subsample_w, f.subsample_h,
                      f.matrix_coefficients, f.pixel_range, f.chroma_location, f.active_region.left,
                      f.active_region.top, f.active_region.width, f.active_region.height);
}

bool isAligned(const AVFrame& frame) {
    for (int p = 0; p < 3; ++p)
        if (reinterpret_cast<std::uintptr_t>(frame.data[p]) % planes::kAlign ||
            frame.linesize[p] % static_cast<int>(planes::kAlign) || frame.linesize[p] < 0)
            return false;
    return true;
}

ff::Frame alignedCopy(const AVFrame& frame) {
    ff::Frame copy(av_frame_alloc());
    copy->format = frame.format;
    copy->width = frame.width;
    copy->height = frame.height;
    if (av_frame_get_buffer(copy.get(), planes::kAlign) < 0 || av_frame_copy(copy.get(), &frame) < 0)
        throw std::bad_alloc();
    return copy;
}

zimg_image_buffer_const planesOf(const AVFrame& frame) {
    zimg_image_buffer_const planes{};
    planes.version = ZIMG_API_VERSION;
    for (int p = 0; p < 3; ++p) planes.plane[p] = {frame.data[p], frame.linesize[p], ZIMG_BUFFER_MAX};
    return planes;
}

zimg_image_buffer planesIn(AVFrame& frame) {
    zimg_image_buffer planes{};
    planes.version = ZIMG_API_VERSION;
    for (int p = 0; p < 3; ++p) planes.plane[p] = {frame.data[p], frame.linesize[p], ZIMG_BUFFER_MAX};
    return planes;
}

/// Rows of BGRX that a graph fills or reads through planes::RgbRows.
struct Packed {
    const planes::RgbRows* rows;
    std::uint8_t* bgrx;
    int stride;
    std::uint8_t* alpha; ///< of one row

    std::uint8_t* at(unsigned row, unsigned left) const {
        return bgrx + static_cast<std::ptrdiff_t>(row) * stride + std::ptrdiff_t{4} * left;
    }
};

int pack(void* user, unsigned row, unsigned left, unsigned right) {
    const auto& to = *static_cast<const Packed*>(user);
    const std::uint8_t* planes[] = {to.rows->at(2, row, left), to.rows->at(1, row, left),
                                    to.rows->at(0, row, left), to.alpha};
    cv::hal::merge8u(planes, to.at(row, left), static_cast<int>(right - left), 4);
    return 0;
}

int unpack(void* user, unsigned row, unsigned left, unsigned right) {
    const auto& from = *static_cast<const Packed*>(user);
    std::uint8_t* planes[] = {from.rows->at(2, row, left), from.rows->at(1, row, left),
                              from.rows->at(0, row, left), from.alpha};
    cv::hal::split8u(from.at(row, left), planes, static_cast<int>(right - left), 4);
    return 0;
}

} // namespace

/// A conversion that zimg planned, and the room it needs.
class PlaneGraph {
public:
    PlaneGraph(const zimg_image_format& from, const zimg_image_format& to) {
        zimg_graph_builder_params params;
        zimg_graph_builder_params_default(&params, ZIMG_API_VERSION);
        params.resample_filter = ZIMG_RESIZE_BILINEAR;
        params.cpu_type = ZIMG_CPU_AUTO_64B;
        graph_.reset(zimg_filter_graph_build(&from, &to, &params));
        if (!graph_) return;
        std::size_t bytes = 0;
        zimg_filter_graph_get_tmp_size(graph_.get(), &bytes);
        work_ = planes::aligned(bytes);
        const bool reads = from.color_family == ZIMG_COLOR_RGB;
        if (!reads && to.color_family != ZIMG_COLOR_RGB) return;
        unsigned rows = 0;
        reads ? zimg_filter_graph_get_input_buffering(graph_.get(), &rows)
              : zimg_filter_graph_get_output_buffering(graph_.get(), &rows);
        rows_.emplace(static_cast<int>(to.width), zimg_select_buffer_mask(rows));
        alpha_.assign(to.width, 255);
    }

    explicit operator bool() const { return graph_ != nullptr; }

    bool toBgrx(const AVFrame& frame, std::uint8_t* bgrx, int stride) {
        const zimg_image_buffer_const from = planesOf(frame);
        zimg_image_buffer to{};
        to.version = ZIMG_API_VERSION;
        for (std::size_t p = 0; p < 3; ++p)
            to.plane[p] = {rows_->planes[p].get(), static_cast<std::ptrdiff_t>(rows_->stride), rows_->mask};
        Packed packed{&*rows_, bgrx, stride, alpha_.data()};
        return !zimg_filter_graph_process(graph_.get(), &from, &to, work_.get(), nullptr, nullptr, pack,
                                          &packed);
    }

    bool toPlanes(const AVFrame& frame, AVFrame& planes) {
        const zimg_image_buffer_const from = planesOf(frame);
        const zimg_image_buffer to = planesIn(planes);
        return !zimg_filter_graph_process(graph_.get(), &from, &to, work_.get(), nullptr, nullptr, nullptr,
                                          nullptr);
    }

    void fromBgrx(const std::uint8_t* bgrx, int stride, AVFrame& frame) {
        zimg_image_buffer_const from{};
        from.version = ZIMG_API_VERSION;
        for (std::size_t p = 0; p < 3; ++p)
            from.plane[p] = {rows_->planes[p].get(), static_cast<std::ptrdiff_t>(rows_->stride), rows_->mask};
        const zimg_image_buffer to = planesIn(frame);
        // Only read through it.
        Packed packed{&*rows_, const_cast<std::uint8_t*>(bgrx), stride, alpha_.data()};
        zimg_filter_graph_process(graph_.get(), &from, &to, work_.get(), unpack, &packed, nullptr, nullptr);
    }

private:
    std::unique_ptr<zimg_filter_graph, planes::FreeGraph> graph_;
    planes::Aligned work_;
    std::optional<planes::RgbRows> rows_;
    std::vector<std::uint8_t> alpha_; ///< of one row
};

namespace {

/// The graphs that a thread used last: the next frame of the same film, or of the two that stand beside each
/// other, is served by the same one.
class LastGraphs {
public:
    PlaneGraph& of(const zimg_image_format& from, const zimg_image_format& to) {
        constexpr std::size_t kMost = 4;
        const Key key = std::tuple_cat(keyOf(from), keyOf(to));
        const auto known =
            std::find_if(graphs_.begin(), graphs_.end(), [&](const auto& g) { return g.first == key; });
        if (known != graphs_.end()) {
            graphs_.splice(graphs_.begin(), graphs_, known);
        } else {
            graphs_.emplace_front(key, PlaneGraph(from, to));
            if (graphs_.size() > kMost) graphs_.pop_back();
        }
        return graphs_.front().second;
    }

private:
    using Key = decltype(std::tuple_cat(keyOf({}), keyOf({})));
    std::list<std::pair<Key, PlaneGraph>> graphs_;
};

/// A part of the frame's planes; none where zimg can't name them.
std::optional<zimg_image_format> formatOf(const AVFrame& frame, const PicturePart& part) {
    auto f = formatOf(frame);
    if (f) f->active_region = {part.left, part.top, part.width, part.height};
    return f;
}

} // namespace

ff::Frame writtenFrame(int width, int height) {
    ff::Frame frame(av_frame_alloc());
    if (!frame) return nullptr;
    frame->format = AV_PIX_FMT_YUV420P;
    frame->width = width;
    frame->height = height;
    if (av_frame_get_buffer(frame.get(), 0) < 0) return nullptr;
    return frame;
}

bool planesToBgrx(const AVFrame& frame, const PicturePart& stored, const PictureRoom& to) {
    thread_local LastGraphs last;
    const auto from = formatOf(frame, stored);
    if (!from) return false;
    PlaneGraph& graph = last.of(*from, rgb(to.width, to.height));
    return graph && graph.toBgrx(isAligned(frame) ? frame : *alignedCopy(frame), to.bgrx, to.stride);
}

bool planesToPlanes(const AVFrame& frame, const PicturePart& stored, AVFrame& to) {
    thread_local LastGraphs last;
    const auto from = formatOf(frame, stored);
    if (!from) return false;
    PlaneGraph& graph = last.of(*from, written(to.width, to.height));
    return graph && graph.toPlanes(isAligned(frame) ? frame : *alignedCopy(frame), to);
}

BgrxToPlanes::BgrxToPlanes(int width, int height)
    : width_(width)
    , height_(height) {}

BgrxToPlanes::~BgrxToPlanes() = default;

PlaneGraph& BgrxToPlanes::graphOf(int rows) {
    std::unique_ptr<PlaneGraph>& graph = graphs_[rows];
    if (!graph) graph = std::make_unique<PlaneGraph>(rgb(width_, rows), written(width_, rows));
    return *graph;
}

BgrxToPlanes::operator bool() {
    return static_cast<bool>(graphOf(height_));
}

void BgrxToPlanes::convert(const std::uint8_t* bgrx, int stride, AVFrame& to, int rows) {
    graphOf(rows).fromBgrx(bgrx, stride, to);
}

} // namespace jg
