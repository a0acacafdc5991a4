// Deliveries under each other, position by position: what stands in the sheet and what has changed.
#pragma once

#include "coaching/change.h"
#include "review/assess.h"

#include <optional>
#include <string>
#include <vector>

namespace jg {

/// A delivery that is to stand in a sheet.
struct JuxtaEntry {
    std::string name; ///< whose, as they are called
    Date when{};
    Hand hand = Hand::Right;
    Clip clip;
    DeliveryMarks marks;
    Assessment results;
};

/// How a film is laid into a cell so that all bodies are one height and stand on one line.
struct JuxtaFit {
    double heightPx = 0;   ///< of the body at Set
    double groundY = 0;    ///< of the ground there
    bool mirrored = false; ///< for the eye only: numbers are never turned
};

/// One still. Without a frame it says why.
struct JuxtaCell {
    std::optional<std::int64_t> frame;
    double middleX = 0; ///< of the body in that picture
    Message why;
};

/// A measure taken at a column's position, from the first row to the last.
struct JuxtaChange {
    std::string measure;
    std::vector<std::optional<MeasureValue>> values; ///< by row
    std::optional<Trend> trend;                      ///< of the first and the last row that may be compared
    Message notComparable;                           ///< why there is none
};

struct JuxtaColumn {
    Moment moment{};
    std::vector<JuxtaCell> cells; ///< by row
    std::vector<JuxtaChange> changes;
};

struct JuxtaRow {
    JuxtaEntry entry;
    std::optional<JuxtaFit> fit; ///< nothing until crown and ground at Set are clicked
};

struct JuxtaSheet {
    std::vector<JuxtaRow> rows; ///< by date, the first is compared with the last
    std::vector<JuxtaColumn> columns;
};

inline constexpr std::size_t kMostJuxtaRows = 12;

/// The sheet of two to kMostJuxtaRows deliveries. `moments` are its columns, in that order; empty = every key
/// position at which two rows have a number of one measure. Errors: BadInput. Pure.
Result<JuxtaSheet> layOutJuxta(std::vector<JuxtaEntry> entries, const Playbook& playbook,
                               const std::vector<Moment>& moments = {});

} // namespace jg
