// Letters of texts that are compared.
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

} // namespace jg
