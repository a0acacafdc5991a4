// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/keeping/file_names.h"

namespace jg {

std::string asFileName(std::string_view name) {
    constexpr std::size_t kMostBytes = 80;
    std::string out;
    for (const char c : name) {
        const auto u = static_cast<unsigned char>(c);
        const bool plain = u >= 0x80 || (u > 0x20 && u != 0x7f &&
                                         std::string_view("/\\:*?\"<>|").find(c) == std::string_view::npos);
        if (plain)
            out += c;
        else if (!out.empty() && out.back() != '-')
            out += '-';
    }
    if (out.size() > kMostBytes) {
        std::size_t end = kMostBytes; // not within a letter
        while (end > 0 && (static_cast<unsigned char>(out[end]) & 0xc0) == 0x80) --end;
        out.resize(end);
    }
    out.erase(0, out.find_first_not_of(".-"));
    while (!out.empty() && (out.back() == '-' || out.back() == '.')) out.pop_back();
    return out.empty() ? "letter" : out;
}

} // namespace jg
