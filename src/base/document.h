// SPDX-License-Identifier: GPL-3.0-or-later
// JSON from outside: read within bounds, so that nothing behind the door needs bounds of its own.
#pragma once

#include <nlohmann/json.hpp>

#include <string_view>

namespace jg {

inline constexpr int kDeepestDocument = 64;        ///< levels of brackets; own choice, ours have a dozen
inline constexpr double kLargestInDocument = 9e15; ///< whole numbers are exact and add up without overflow

/// Reads a JSON document. Throws Unfit for one whose brackets lie deeper than kDeepestDocument, or with a
/// number beyond `largest`; the library's own exception for what is no JSON. Any thread.
nlohmann::json parseDocument(std::string_view text, double largest = kLargestInDocument);

/// The same; a discarded value instead of an exception.
nlohmann::json parseDocumentOrNone(std::string_view text) noexcept;

} // namespace jg
