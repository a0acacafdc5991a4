// SPDX-License-Identifier: GPL-3.0-or-later
// A family that sends films: writes a mail as a phone would, into a file. For the demo and for trying a
// watched folder.
#pragma once

#include "base/result.h"

#include <filesystem>
#include <string>
#include <vector>

namespace jg {

struct StandInMail {
    std::filesystem::path to; ///< the .eml that is written
    std::string fromName, fromAddress, subject, text;
    std::vector<std::filesystem::path> films;
};

/// Errors: those of reading the films and writing; BadInput (no address).
Status writeStandInMail(const StandInMail& order);

} // namespace jg
