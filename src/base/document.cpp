// SPDX-License-Identifier: GPL-3.0-or-later
#include "base/document.h"

#include "base/unfit.h"

#include <cmath>

namespace jg {

using nlohmann::json;

namespace {

/// Looked at before anything is built: a parser would take memory for each bracket, and a reader that calls
/// itself would run out of stack.
void mustBeShallow(std::string_view text) {
    int depth = 0;
    bool quoted = false, escaped = false;
    for (const char c : text) {
        if (quoted) {
            quoted = escaped || c != '"';
            escaped = !escaped && c == '\\';
        } else if (c == '"') {
            quoted = true;
        } else if (c == '[' || c == '{') {
            if (++depth > kDeepestDocument) throw Unfit(msg("document.too-deep"));
        } else if (c == ']' || c == '}') {
            --depth;
        }
    }
}

void mustHoldSaneNumbers(const json& value, double largest) {
    if (value.is_structured()) {
        for (const json& part : value) mustHoldSaneNumbers(part, largest);
    } else if (value.is_number() && !(std::abs(value.get<double>()) <= largest)) {
        throw Unfit(msg("document.absurd-number"));
    }
}

} // namespace

json parseDocument(std::string_view text, double largest) {
    mustBeShallow(text);
    json document = json::parse(text);
    mustHoldSaneNumbers(document, largest);
    return document;
}

json parseDocumentOrNone(std::string_view text) noexcept {
    try {
        return parseDocument(text);
    } catch (const std::exception&) {
        return json(json::value_t::discarded);
    }
}

} // namespace jg
