// SPDX-License-Identifier: GPL-3.0-or-later
// Bytes and documents changed at random, the same for the same engine.
#pragma once

#include <nlohmann/json_fwd.hpp>

#include <random>
#include <string>

namespace jg::test {

/// Some bytes altered, cut off or taken out. Headers decide most: half of all changes fall near an end.
std::string mutatedBytes(std::string bytes, std::mt19937_64& engine);

/// One to four values of a document replaced by odd ones, keys taken away or given twice under other names.
/// What is no JSON is changed as bytes.
std::string mutatedJson(const std::string& text, std::mt19937_64& engine);

/// Letters, digits and odd characters, up to `most` bytes.
std::string oddText(std::mt19937_64& engine, std::size_t most);

} // namespace jg::test
