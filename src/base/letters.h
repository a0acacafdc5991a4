// SPDX-License-Identifier: GPL-3.0-or-later
// Letters of texts that are typed and compared.
#pragma once

#include <algorithm>
#include <cctype>
#include <string>
#include <string_view>

namespace jg {

/// In small letters of ASCII; others stay as they are. Pure.
inline std::string lowered(std::string_view text) {
    std::string out(text);
    std::transform(out.begin(), out.end(), out.begin(),
                   [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
    return out;
}

/// Without spaces, tabs and line ends at both ends; a view of the same text. Pure.
inline std::string_view trimmed(std::string_view text) {
    const auto blank = [](char c) { return c == ' ' || c == '\t' || c == '\n' || c == '\r'; };
    while (!text.empty() && blank(text.front())) text.remove_prefix(1);
    while (!text.empty() && blank(text.back())) text.remove_suffix(1);
    return text;
}

} // namespace jg
