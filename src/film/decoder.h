// SPDX-License-Identifier: GPL-3.0-or-later
// FFmpeg's decoders, opened as the reader needs them. Inside the film room only.
#pragma once

#include "film/demuxer.h"
#include "film/ffmpeg_handles.h"
#include "film/frame_cache.h"
#include "film/frame_memory.h"

namespace jg {

/// How a decoder shares its work out.
enum class Threads { Frames, Slices, None };

/// A decoder for a stream, with its frames in `memory`; null when there is none or it refuses.
ff::Codec openDecoder(const AVStream* stream, Threads threads, FrameMemory& memory);

/// Decodes one packet by itself: its picture, or nothing when it takes more packets, may be half a picture,
/// is not to be shown, or can't be decoded. Takes what the packet holds; the decoder is at its end then and
/// must be flushed.
FrameHandle decodeOne(AVCodecContext& decoder, AVPacket& packet);

/// A frame by reference.
FrameHandle handleOf(const AVFrame* frame);

} // namespace jg
