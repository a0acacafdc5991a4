// SPDX-License-Identifier: GPL-3.0-or-later
#include "words/words.h"

#include "words/icu_text.h"

#include <unicode/messagepattern.h>

namespace jg {

namespace {

using icu::UnicodeString;

/// An accented letter for each plain one, upper and lower case.
constexpr std::u16string_view kPlain = u"abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ";
constexpr std::u16string_view kAccented =
    u"\u00e4\u1e03\u010d\u010f\u00eb\u1e1f\u011f\u1e25\u00ef\u0135\u0137\u013c\u1e41\u00f1\u00f6\u1e57\u024b"
    u"\u0159\u0161\u0165"
    u"\u00fc\u1e7d\u0175\u1e8b\u00ff\u017e\u00c4\u1e02\u010c\u010e\u00cb\u1e1e\u011e\u1e24\u00cf\u0134\u0136"
    u"\u013b\u1e40\u00d1"
    u"\u00d6\u1e56\u024a\u0158\u0160\u0164\u00dc\u1e7c\u0174\u1e8a\u0178\u017d";
static_assert(kPlain.size() == kAccented.size());

/// Every third letter is said twice, which makes the text a third longer.
UnicodeString accentedText(const UnicodeString& text) {
    UnicodeString out;
    int letters = 0;
    bool markup = false;
    for (int32_t i = 0; i < text.length(); ++i) {
        const char16_t c = text[i];
        if (c == u'<') markup = true;
        const auto at = markup ? std::u16string_view::npos : kPlain.find(c);
        if (c == u'>') markup = false;
        if (at == std::u16string_view::npos) {
            out.append(c);
            continue;
        }
        out.append(kAccented[at]);
        if (++letters % 3 == 0) out.append(kAccented[at % 26]);
    }
    return out;
}

/// A pattern with its literal text accented; arguments and their choices stay.
UnicodeString accentedPattern(const icu::MessagePattern& pattern) {
    const UnicodeString& whole = pattern.getPatternString();
    UnicodeString out;
    int32_t from = 0;
    std::vector<bool> inMessage;
    const auto take = [&](int32_t to) {
        const UnicodeString piece = whole.tempSubStringBetween(from, to);
        out.append(!inMessage.empty() && inMessage.back() ? accentedText(piece) : piece);
        from = to;
    };
    for (int32_t i = 0; i < pattern.countParts(); ++i) {
        const auto& part = pattern.getPart(i);
        take(part.getIndex());
        switch (part.getType()) {
        case UMSGPAT_PART_TYPE_MSG_START:
            inMessage.push_back(true);
            break;
        case UMSGPAT_PART_TYPE_ARG_START:
            inMessage.push_back(false);
            break;
        case UMSGPAT_PART_TYPE_MSG_LIMIT:
        case UMSGPAT_PART_TYPE_ARG_LIMIT:
            inMessage.pop_back();
            break;
        default:
            break;
        }
        out.append(whole.tempSubStringBetween(from, part.getLimit()));
        from = part.getLimit();
    }
    out.append(whole.tempSubStringBetween(from, whole.length()));
    return out;
}

} // namespace

std::string accent(std::string_view text) {
    return narrow(accentedText(wide(text)));
}

const Words& accented() {
    static const Words words = [] {
        Catalogue catalogue;
        for (const auto& [id, pattern] : english().catalogue()) {
            UErrorCode error = U_ZERO_ERROR;
            UParseError where{};
            const icu::MessagePattern parts(UnicodeString::fromUTF8(pattern), &where, error);
            std::string text = pattern;
            if (U_SUCCESS(error)) {
                text.clear();
                accentedPattern(parts).toUTF8String(text);
            }
            catalogue[id] = text;
        }
        // Greek months, days, lists and decimal comma: letters that no English sentence has.
        return Words("el", std::move(catalogue));
    }();
    return words;
}

} // namespace jg
