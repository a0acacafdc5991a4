// SPDX-License-Identifier: GPL-3.0-or-later
// UTF-8 as ICU's own text, and back. Inside the words room only.
#pragma once

#include <unicode/unistr.h>

#include <string>
#include <string_view>

namespace jg {

inline icu::UnicodeString wide(std::string_view text) {
    return icu::UnicodeString::fromUTF8(icu::StringPiece(text.data(), static_cast<int32_t>(text.size())));
}

inline std::string narrow(const icu::UnicodeString& text) {
    std::string out;
    text.toUTF8String(out);
    return out;
}

} // namespace jg
