// SPDX-License-Identifier: GPL-3.0-or-later
// What is not as it should be in a library, and what can be done about it.
#pragma once

#include "base/message.h"

#include <string>

namespace jg {

/// What a repair does. Nothing it touches is lost: texts and files are put into the library's set-aside
/// folder.
enum class Repair {
    None,      ///< a person must: a backup, or the film from where it came
    Accept,    ///< an altered row that still reads counts as it is
    Forget,    ///< what is computed again is taken away
    Salvage,   ///< an athlete or a submission keeps what still reads of it
    BeginAnew, ///< a review begins anew: its newest readable version, else empty; sent stays sent
    SayAgain,  ///< a take leaves its review, the stop is to be said again
    MakeAgain, ///< a mail without its file counts as not sent
    PutAside,  ///< a file that belongs to nothing
    Restore,   ///< a lost sum is made again
};

/// One thing that is wrong. `table` and `id` name the row, `file` the file within the library.
struct Problem {
    Message text;
    Repair repair = Repair::None;
    std::string table, id, file;
};

/// What its repair would do: "It counts as it reads now." Says what a person can do where there is none.
Message repairOf(const Problem& problem);

} // namespace jg
