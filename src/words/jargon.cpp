// SPDX-License-Identifier: GPL-3.0-or-later
#include "words/jargon.h"

#include <unicode/regex.h>
#include <unicode/unistr.h>

#include <string>

namespace jg {

namespace {

constexpr const char* kEnglish =
    "plant|layback|takeaway|load(ed|ing)?|trunk|pelvis|open side|closed side|release|separation|arm slot|"
    "sequence|tilt|torso|rotation|kinetic|velocity|mechanics|degrees";
constexpr const char* kSpanish =
    "carga|tronco|pelvis|lado abierto|lado cerrado|separación|secuencia|inclinación|rotación|torso|mecánica|"
    "grados";

} // namespace

int jargonIn(std::string_view text, std::string_view language) {
    const std::string pattern = "\\b(" + std::string(language == "es" ? kSpanish : kEnglish) + ")\\b";
    UErrorCode status = U_ZERO_ERROR;
    icu::RegexMatcher found(icu::UnicodeString::fromUTF8(pattern), UREGEX_CASE_INSENSITIVE, status);
    if (U_FAILURE(status)) return 0;
    const auto read = icu::UnicodeString::fromUTF8({text.data(), static_cast<int32_t>(text.size())});
    found.reset(read);
    int count = 0;
    while (found.find()) ++count;
    return count;
}

} // namespace jg
