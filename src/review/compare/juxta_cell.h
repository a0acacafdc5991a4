// SPDX-License-Identifier: GPL-3.0-or-later
// Where a delivery's body stands in its pictures, and the parts a sheet is made of.
#pragma once

#include "coaching/change.h"
#include "review/compare/juxta_column.h"
#include "review/compare/juxta_entry.h"

#include <optional>
#include <string>
#include <vector>

namespace jg {

/// How a film is laid into a cell so that all bodies are one height and stand on one line.
struct JuxtaFit {
    double heightPx = 0;   ///< of the body at Set
    double groundY = 0;    ///< of the ground there
    double middleX = 0;    ///< of the body there
    bool mirrored = false; ///< for the eye only: numbers are never turned
};

/// One still. Without a frame it says why.
struct JuxtaCell {
    std::optional<std::int64_t> frame;
    double middleX = 0; ///< of the body in that picture
    Message why;
};

/// A measure taken at a column's position, from the first row that has it to the last.
struct JuxtaChange {
    std::string measure;
    std::vector<std::optional<MeasureValue>> values; ///< by row
    std::size_t first = 0, last = 0;                 ///< the rows that are compared
    std::optional<Estimate> difference;              ///< last less first, when they may be compared
    std::optional<Trend> trend;
    Message notComparable;  ///< why there is neither
    bool overruled = false; ///< compared by the coach's word all the same
    Message name = {};      ///< of a feature's number; empty = the measure's own
};

struct JuxtaColumn {
    JuxtaAt at;
    std::vector<JuxtaCell> cells; ///< by row
    std::vector<JuxtaChange> changes;
};

struct JuxtaRow {
    JuxtaEntry entry;
    std::optional<JuxtaFit> fit; ///< nothing until crown and ground at Set are clicked
};

/// How a delivery's film is laid into a cell beside those of hand `leading`. Pure.
std::optional<JuxtaFit> juxtaFitOf(const JuxtaEntry& entry, Hand leading);

/// The cell of a frame, its body in the middle. Pure.
JuxtaCell cellAt(const JuxtaEntry& entry, std::int64_t frame);

/// Where the body's middle is on any frame: between frames with joints as if it went evenly, x in the film's
/// pixels. Pure.
double bodyMiddleAt(const JuxtaEntry& entry, std::int64_t frame);

} // namespace jg
