// SPDX-License-Identifier: GPL-3.0-or-later
// Which way a row is off.
#pragma once

#include <string>
#include <string_view>
#include <vector>

namespace jg {

/// Sides of a measure: its number lies below what is wanted, or above. Those of an item with two faults have
/// names of their own.
inline constexpr std::string_view kBelow = "below", kAbove = "above";

/// A measure or an item, and the side on which it is off. An empty side is the only one that the row has, or
/// one that is not known. A value.
struct SidedRow {
    std::string row, side;
    bool operator==(const SidedRow&) const = default;
};

/// "leg-spread:below", "load-shared". Pure.
SidedRow sidedRowFrom(std::string_view text);
std::string textOf(const SidedRow& finding);

/// The same row, and no side that says otherwise: one that is not known meets both. Pure.
bool meets(const SidedRow& a, const SidedRow& b);

/// Whether one of `written` ("row:side") meets a finding. Pure.
bool anyMeets(const std::vector<std::string>& written, const SidedRow& finding);

/// The other side of a measure; empty for an item's. Pure.
std::string otherSide(std::string_view side);

} // namespace jg
