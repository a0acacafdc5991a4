// SPDX-License-Identifier: GPL-3.0-or-later
// Deliveries under each other, position by position: what stands in the sheet and what has changed.
#pragma once

#include "review/compare/juxta_change.h"

#include <set>
#include <vector>

namespace jg {

struct JuxtaSheet {
    std::vector<JuxtaRow> rows;
    std::vector<JuxtaColumn> columns;

    std::size_t compared() const; ///< numbers with a trend
    std::size_t changed() const;  ///< of them really
    /// A child beside an adult: what one does is no model for the other.
    bool childBesideAdult() const;
};

/// What the coach wants of a sheet.
struct JuxtaWish {
    std::vector<JuxtaAt> columns = {};    ///< in that order; empty = every key position with a shared number
    bool asGiven = false;                 ///< rows in the order given, else by date
    std::set<std::string> overruled = {}; ///< measures that are compared although they are not alike
};

inline constexpr std::size_t kMostJuxtaRows = 12;

/// The sheet of two to kMostJuxtaRows deliveries. Errors: BadInput. Pure.
Result<JuxtaSheet> layOutJuxta(std::vector<JuxtaEntry> entries, const Playbook& playbook,
                               const JuxtaWish& wish = {});

/// "Ludo · 29 September 2026", or what the coach calls it.
Message captionOf(const JuxtaEntry& entry);
/// Whose deliveries stand in a sheet, and how they are shown: a child beside an adult comes before all.
Message titleOf(const JuxtaSheet& sheet);
Message mannerOf(const JuxtaSheet& sheet);

} // namespace jg
