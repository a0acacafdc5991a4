// SPDX-License-Identifier: GPL-3.0-or-later
// A report of a fault for who mends the program: versions, machine, sizes and the log, nobody's name.
#pragma once

#include "base/fault_log.h"
#include "library/store.h"
#include "words/words.h"

#include <string>
#include <vector>

namespace jg {

/// What the window knows beside the library.
struct FaultSurroundings {
    std::string screen;       ///< "1280 x 800, 96 dpi"
    bool namesHidden = false; ///< names are out of sight
    std::int64_t nowUnix = 0;
};

/// The report as text, line by line, to be read before it is handed on. Of the library it tells numbers only;
/// what can't be read is said so. Errors: none.
std::string faultReport(Store& store, const std::vector<FaultNote>& notes, const FaultSurroundings& around,
                        const Words& words);

} // namespace jg
