// SPDX-License-Identifier: GPL-3.0-or-later
#include "tests/support/mutate.h"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <iterator>
#include <vector>

namespace jg::test {

using nlohmann::json;

std::string mutatedBytes(std::string bytes, std::mt19937_64& engine) {
    const auto at = [&] { return static_cast<std::size_t>(engine() % bytes.size()); };
    const int kind = static_cast<int>(engine() % 5);
    const int changes = 1 + static_cast<int>(engine() % 24);
    const auto place = [&] {
        const std::size_t edge = std::min<std::size_t>(bytes.size(), 2048);
        const auto draw = engine() % 4;
        if (draw == 0) return static_cast<std::size_t>(engine() % edge);
        if (draw == 1) return bytes.size() - 1 - static_cast<std::size_t>(engine() % edge);
        return at();
    };
    for (int i = 0; i < changes; ++i) {
        if (kind == 0) bytes[place()] = static_cast<char>(engine());
        if (kind == 1) bytes[place()] ^= static_cast<char>(1 << engine() % 8);
        if (kind == 2) bytes[place()] = static_cast<char>(engine() % 2 ? 0xff : 0);
    }
    if (kind == 3) bytes.resize(1 + at());
    if (kind == 4) {
        const std::size_t from = at(), length = engine() % 4096;
        bytes.erase(from, length);
    }
    if (bytes.empty()) bytes.assign(1, 'x');
    return bytes;
}

namespace {

json oddValue(std::mt19937_64& engine) {
    switch (engine() % 14) {
    case 0:
        return nullptr;
    case 1:
        return -1;
    case 2:
        return 0;
    case 3:
        return 1e308;
    case 4:
        return -1e308;
    case 5:
        return std::int64_t{9223372036854775807};
    case 6:
        return "";
    case 7:
        return std::string(5000, 'x');
    case 8:
        return json::array();
    case 9:
        return json::object();
    case 10:
        return true;
    case 11:
        return json::array({json::array({json::array({1})})});
    case 12:
        return "\xc3\xa9\xe2\x80\xae\xf0\x9f\xa6\x89 {odd} %s ../x";
    default:
        return static_cast<double>(engine() % 100000) / 7;
    }
}

/// Goes down to a random value.
json* someValue(json& document, std::mt19937_64& engine) {
    json* at = &document;
    while (at->is_structured() && !at->empty() && (at == &document || engine() % 5 != 0))
        at = &*std::next(at->begin(), static_cast<std::ptrdiff_t>(engine() % at->size()));
    return at;
}

void changeOne(json& document, std::mt19937_64& engine) {
    json* at = someValue(document, engine);
    if (engine() % 4 != 0 || !at->is_structured() || at->empty()) {
        *at = oddValue(engine);
        return;
    }
    const auto child = std::next(at->begin(), static_cast<std::ptrdiff_t>(engine() % at->size()));
    if (at->is_array() && engine() % 2)
        at->push_back(*child);
    else
        at->erase(child);
}

} // namespace

std::string mutatedJson(const std::string& text, std::mt19937_64& engine) {
    json document = json::parse(text, nullptr, false);
    if (document.is_discarded() || engine() % 5 == 0) return mutatedBytes(text, engine);
    const auto changes = 1 + engine() % 4;
    for (std::uint64_t i = 0; i < changes; ++i) changeOne(document, engine);
    return document.dump(-1, ' ', false, json::error_handler_t::replace);
}

std::string oddText(std::mt19937_64& engine, std::size_t most) {
    static const std::vector<std::string> pieces = {
        "at least ", "at most ",     "48",   ",5",      ".",         "-",   " to ", "deg",        "cm", "%",
        " ",         "\t",           "@",    "smtp://", "127.0.0.1", ":25", "/",    "2026-02-30", "1",  "e9",
        "nan",       "\xe2\x88\x92", "\xff", "'",       "\"",        "{",   "}",    "\\",         "..", "a",
        "Z"};
    std::string text;
    while (text.size() < most && engine() % 12 != 0) text += pieces[engine() % pieces.size()];
    return text;
}

} // namespace jg::test
