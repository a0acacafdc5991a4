// SPDX-License-Identifier: GPL-3.0-or-later
// What belongs to one athlete in a library.
#pragma once

#include "base/ids.h"

#include <string>
#include <vector>

namespace jg {

/// All that is deleted with an athlete. Films that another athlete's clip refers to are not among them.
struct Belongings {
    AthleteId athlete;
    std::string name;
    int submissions = 0, reviews = 0, mails = 0, promises = 0;
    std::vector<std::string> files; ///< within the library, "media/ab12"; also what no row names: unfinished
                                    ///< takes, what was set aside, mails at the stand-in post office
    std::vector<std::string> backups; ///< folders that were backed up to and still hold it
};

/// What a deleted athlete is known by afterwards, where a backup brings them back: the id can't be read out
/// of it.
std::string forgottenKey(const AthleteId& athlete);

} // namespace jg
