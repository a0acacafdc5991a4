// SPDX-License-Identifier: GPL-3.0-or-later
#include "base/ids.h"

#include <algorithm>
#include <cstdio>

namespace jg {

namespace {

bool isAlnum(char c) {
    return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9');
}

} // namespace

bool isId(std::string_view text) {
    constexpr std::size_t kLongest = 80;
    return !text.empty() && text.size() <= kLongest && isAlnum(text.front()) &&
           std::all_of(text.begin(), text.end(), [](char c) { return isAlnum(c) || c == '-' || c == '_'; });
}

bool isPlainName(std::string_view text) {
    constexpr std::size_t kLongest = 200;
    return !text.empty() && text.size() <= kLongest && text.front() != '.' &&
           std::all_of(text.begin(), text.end(),
                       [](char c) { return isAlnum(c) || c == '.' || c == '-' || c == '_'; });
}

std::uint64_t IdSource::bits() {
    if (engine_) return (*engine_)();
    return (std::uint64_t{system_()} << 32) | system_();
}

std::string IdSource::text(const char* prefix) {
    char buffer[64];
    const std::uint64_t high = bits();
    std::snprintf(buffer, sizeof buffer, "%s-%016llx%016llx", prefix, static_cast<unsigned long long>(high),
                  static_cast<unsigned long long>(bits()));
    return buffer;
}

} // namespace jg
