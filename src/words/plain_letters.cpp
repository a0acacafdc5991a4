// SPDX-License-Identifier: GPL-3.0-or-later
#include "words/plain_letters.h"

#include "words/icu_text.h"

#include <unicode/normalizer2.h>
#include <unicode/uchar.h>

namespace jg {

std::string plainLetters(std::string_view text) {
    UErrorCode error = U_ZERO_ERROR;
    const icu::Normalizer2* nfkd = icu::Normalizer2::getNFKDInstance(error);
    icu::UnicodeString wideText = wide(text);
    if (U_SUCCESS(error)) wideText = nfkd->normalize(wideText, error);
    wideText.foldCase();
    icu::UnicodeString plain;
    for (int32_t at = 0; at < wideText.length(); at = wideText.moveIndex32(at, 1)) {
        const UChar32 c = wideText.char32At(at);
        if (u_charType(c) == U_NON_SPACING_MARK) continue;
        plain.append(c == 0x2019 || c == 0x2018 ? UChar32{'\''} : c);
    }
    return narrow(plain);
}

} // namespace jg
