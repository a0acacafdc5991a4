// SPDX-License-Identifier: GPL-3.0-or-later
// Films out: H.264 and AAC in MP4 with fast start, chapters and captions.
#pragma once

#include "base/exact_time.h"
#include "base/result.h"
#include "film/frame_cache.h"

#include <cstdint>
#include <filesystem>
#include <memory>
#include <span>
#include <string>
#include <vector>

namespace jg {

struct Chapter {
    std::int64_t startMs = 0;
    std::int64_t endMs = 0;
    std::string title;
};

/// Words shown from one moment to another.
struct Caption {
    std::int64_t startMs = 0;
    std::int64_t endMs = 0;
    std::string text;
    bool operator==(const Caption&) const = default;
};

struct EncodeSettings {
    int width = 1280; ///< even
    int height = 720; ///< even
    Rational fps{30, 1};
    int quality = 20; ///< x264 constant rate factor
    std::string preset = "veryfast";
    int keyInterval = 60;
    int sampleRate = 0; ///< 0 = no sound; else mono
    std::vector<Chapter> chapters;
    std::vector<Caption> captions; ///< a text track of its own, rising; none = no track
    std::string language = "eng";  ///< of sound and captions, ISO 639-2
    std::string title;
    double captureFps = 0; ///< written as the capture-rate tag when it differs from fps; 0 = none
    int rotationDeg = 0;   ///< display rotation written for the film
};

/// BGRX pixels as the planes that an Encoder writes, for setPart(); null where there is no memory or the size
/// is not even. Any thread.
FrameHandle planesOf(const std::uint8_t* bgrx, int stride, int width, int height);

/// Writes one film. Pictures and sound may be added in any interleaving. One thread owns it. Writes no
/// device, place or time of day into the file.
class Encoder {
public:
    /// Errors: BadInput (odd size), WriteFailed, Internal.
    static Result<std::unique_ptr<Encoder>> open(const std::filesystem::path& path,
                                                 const EncodeSettings& settings);
    ~Encoder();
    Encoder(const Encoder&) = delete;
    Encoder& operator=(const Encoder&) = delete;

    /// One picture of BGRX pixels of the film's size, `stride` bytes a row. Errors: DiskFull, WriteFailed.
    Status addPicture(const std::uint8_t* bgrx, int stride);
    /// The next picture of repeatPicture(), not added yet. `rows`, an even number, may tell that only the
    /// first ones differ from the last picture set; 0 = all.
    void setPicture(const std::uint8_t* bgrx, int stride, int rows = 0);
    /// Planes of Reader::planes() over a part of it. Errors: BadInput (they do not lie within it at an even
    /// place), Internal (there is none yet).
    Status setPart(const AVFrame& planes, int left, int top);
    /// The last picture once more; its colours are not worked out again. Errors: DiskFull, WriteFailed,
    /// Internal (there is none yet).
    Status repeatPicture();
    /// Leaves a gap in time where a picture would have been.
    void skipPicture();
    /// Mono samples, -1..1. Errors: DiskFull, WriteFailed.
    Status addSound(std::span<const float> samples);
    /// Flushes and closes. Without it the file is not a film. Errors: DiskFull, WriteFailed.
    Status finish();

private:
    class Impl;
    explicit Encoder(std::unique_ptr<Impl> impl);
    std::unique_ptr<Impl> impl_;
};

} // namespace jg
