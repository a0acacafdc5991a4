// SPDX-License-Identifier: GPL-3.0-or-later
// Sound files in and out.
#pragma once

#include "base/result.h"

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <filesystem>
#include <fstream>
#include <span>
#include <stop_token>
#include <string>
#include <vector>

namespace jg {

/// A sample of -1..1 in sixteen bits, rounded; what is louder is cut off.
inline std::int16_t inSixteenBits(double sample) {
    return static_cast<std::int16_t>(std::clamp(std::lround(sample * 32768.0), -32768L, 32767L));
}

/// Any sound file, or the sound of a film, as mono samples -1..1 at kSampleRate; at most its first two hours.
/// Errors: NotFound, BadInput, Damaged, Cancelled.
Result<std::vector<float>> readSound(const std::filesystem::path& path, const std::stop_token& stop = {});

/// Writes a 16-bit mono WAV file while it is being recorded; what was written is readable up to the last
/// flush even when the process dies. One thread owns it.
class WavWriter {
public:
    /// Errors: WriteFailed, DiskFull.
    static Result<WavWriter> open(const std::filesystem::path& path);
    Status write(std::span<const std::int16_t> samples);
    /// Completes the header. Errors: WriteFailed, DiskFull.
    Status finish();
    std::int64_t samples() const { return samples_; }

private:
    void writeHeader();
    std::filesystem::path path_;
    std::ofstream out_;
    std::int64_t samples_ = 0;
    std::int64_t flushed_ = 0;
};

} // namespace jg
