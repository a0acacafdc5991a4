// SPDX-License-Identifier: GPL-3.0-or-later
#include "coaching/side.h"

#include <algorithm>

namespace jg {

SidedRow sidedRowFrom(std::string_view text) {
    const auto colon = text.find(':');
    if (colon == text.npos) return {std::string(text), {}};
    return {std::string(text.substr(0, colon)), std::string(text.substr(colon + 1))};
}

std::string textOf(const SidedRow& finding) {
    return finding.side.empty() ? finding.row : finding.row + ":" + finding.side;
}

bool meets(const SidedRow& a, const SidedRow& b) {
    return a.row == b.row && (a.side.empty() || b.side.empty() || a.side == b.side);
}

bool anyMeets(const std::vector<std::string>& written, const SidedRow& finding) {
    return std::any_of(written.begin(), written.end(),
                       [&](const std::string& text) { return meets(sidedRowFrom(text), finding); });
}

std::string otherSide(std::string_view side) {
    return std::string(side == kBelow ? kAbove : side == kAbove ? kBelow : "");
}

} // namespace jg
