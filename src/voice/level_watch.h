// SPDX-License-Identifier: GPL-3.0-or-later
// What is wrong with the sound while somebody talks, said at once.
#pragma once

#include "base/message.h"

#include <array>
#include <cstdint>
#include <deque>
#include <span>

namespace jg {

enum class LevelTrouble { None, Nothing, Quiet, Clipped, Hum };

/// A sentence that says what to do; empty for None.
Message inWords(LevelTrouble trouble);

/// Listens to a take as it comes in and judges its last three seconds. Own choice of all limits: nothing is
/// silence to the last bit; clipped are three samples in a row at the end of the scale, twice; quiet is a
/// loudest tenth of a second below -45 dB of full scale; hum is when more than half of the power lies at 50
/// or 60 Hz and their first overtones, a twentieth at 50 or 60 Hz themselves, where no voice is. One thread
/// at a time.
class LevelWatch {
public:
    void hear(std::span<const std::int16_t> samples);
    /// None until enough was heard.
    LevelTrouble now() const;

private:
    /// A tenth of a second.
    struct Block {
        double power = 0; ///< mean square, full scale = 1
        double hum = 0;   ///< of it at the mains' frequencies
        double base = 0;  ///< of it at 50 and 60 Hz
        int clipped = 0;  ///< runs
        bool silent = true;
    };
    void endBlock();

    std::deque<Block> blocks_;
    std::array<float, 4800> samples_{}; ///< of the block that is coming in, 48 kHz
    std::size_t filled_ = 0;
    int run_ = 0; ///< samples at the end of the scale in a row
    int clippedRuns_ = 0;
};

} // namespace jg
