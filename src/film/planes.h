// SPDX-License-Identifier: GPL-3.0-or-later
// Between the planes of films (Y'CbCr, their colour at half size as a rule) and rows of BGRX, by zimg, whose
// colour is interpolated where it lies: swscale does as much only in its exact mode, which takes several
// times as long. Inside the film room only.
#pragma once

#include "film/ffmpeg_handles.h"
#include "film/picture.h"

#include <cstdint>
#include <map>
#include <memory>

namespace jg {

class PlaneGraph;

/// A frame with room for the planes of a film that is written; null where there is no memory.
ff::Frame writtenFrame(int width, int height);

/// A part of the frame in its stored pixels, which lies within it, as full-range R'G'B' at the size of the
/// room (bilinear). False: the frame's planes are of a kind that is not known here (palette, packed, odd
/// width with halved colour), and nothing is written. Any thread.
bool planesToBgrx(const AVFrame& frame, const PicturePart& stored, const PictureRoom& to);

/// The same as planes of a film that is written (4:2:0 of 8 bits, BT.709, limited range), at the size of
/// `to`, which has buffers as av_frame_get_buffer aligns them.
bool planesToPlanes(const AVFrame& frame, const PicturePart& stored, AVFrame& to);

/// Rows of BGRX to the planes of a film of one size that is written. One thread.
class BgrxToPlanes {
public:
    BgrxToPlanes(int width, int height);
    ~BgrxToPlanes();
    BgrxToPlanes(const BgrxToPlanes&) = delete;
    BgrxToPlanes& operator=(const BgrxToPlanes&) = delete;
    /// False for a size that zimg can't make planes of; nothing may be converted then.
    explicit operator bool();

    /// The first `rows`, an even number of them. `to` has the size given and buffers of its own, aligned as
    /// av_frame_get_buffer aligns them.
    void convert(const std::uint8_t* bgrx, int stride, AVFrame& to, int rows);

private:
    PlaneGraph& graphOf(int rows);

    int width_, height_;
    std::map<int, std::unique_ptr<PlaneGraph>> graphs_; ///< by rows
};

} // namespace jg
