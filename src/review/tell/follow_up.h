// SPDX-License-Identifier: GPL-3.0-or-later
// What became of a review's corrections and strengths by the next: the question every follow-up asks.
#pragma once

#include "review/compare/juxta_change.h"

#include <string>
#include <vector>

namespace jg {

/// How a finding stands now, against what it was.
enum class Became {
    Good,      ///< it was a fault, now it is as wanted
    Better,    ///< nearer, not there yet
    Kept,      ///< it was a strength and is one
    Same,      ///< inside the error, or the same grade
    Worse,     ///< further off; a strength that is none any more
    CantTell,  ///< not comparable, or not to be seen
    NotLooked, ///< not looked at yet
};

/// One finding of the review before.
struct FindingSince {
    std::string finding;
    bool wasKept = false; ///< a strength then, else a correction
    Became became = Became::NotLooked;
    Message why;          ///< the two numbers with their error, or why it can't be told
    Message numbers = {}; ///< the two as a family reads them: "It was 84, it is 101 now."
};

/// A review as the next one looks back on it.
struct PastReview {
    JuxtaEntry entry;
    std::vector<std::string> corrections, keeps;
};

/// Corrections first, then what was kept, each in the order of the letter. Numbers are compared as a sheet
/// compares them, items by their grades. Pure.
std::vector<FindingSince> followUp(const PastReview& before, const JuxtaEntry& now);

/// "better", "as wanted now", "not looked at yet" ...
Message nameOf(Became became);

} // namespace jg
