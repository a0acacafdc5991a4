// SPDX-License-Identifier: GPL-3.0-or-later
// The seam for microphones: the real one and the stand-in that plays a shipped voice.
#pragma once

#include "base/result.h"

#include <cstdint>
#include <filesystem>
#include <functional>
#include <memory>
#include <span>
#include <string>
#include <vector>

namespace jg {

/// All sound in the program is mono at this rate.
inline constexpr int kSampleRate = 48000;

/// A source of sound. Lives in the thread of its event loop; both callbacks come there. The clock of a take
/// is the number of samples received, never the time since start().
class Microphone {
public:
    using Samples = std::function<void(std::span<const std::int16_t>)>;
    using Failed = std::function<void(Error)>;

    virtual ~Microphone() = default;
    /// What it is called on the screen.
    virtual Message name() const = 0;
    /// Starts giving samples. Errors: NotFound (no microphone), Refused (it does not open).
    virtual Status start(Samples samples, Failed failed) = 0;
    virtual void stop() = 0;
};

/// The system's default input through Qt Multimedia.
std::unique_ptr<Microphone> makeMicrophone();

/// Plays the files one after another, one each start, in real time times `speed`. Errors at start: NotFound,
/// Damaged. When a file ends, silence follows.
std::unique_ptr<Microphone> makeStandInMicrophone(std::vector<std::filesystem::path> files,
                                                  double speed = 1.0);

} // namespace jg
