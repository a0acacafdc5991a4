// SPDX-License-Identifier: GPL-3.0-or-later
#include "coaching/claims.h"

#include <cctype>
#include <regex>

namespace jg {

std::string claimIn(std::string_view text) {
    // Own choice of words; what a picture shows, as a bend or a time, is in none of them.
    static const std::regex claims(
        R"(\b(torques?|forces?|newtons?|joules?|watts?|kinetic energy|arm load|load on the|loads the (arm|elbow|shoulder)|stress on|stresses? the|strain on|ligaments?|tendons?|(percent|per cent|%) of (the |your |all )?(power|velocity|speed|force|energy)|adds? \d+ (mph|km/h)|injur(y|ies|es)|tears?)\b)",
        std::regex::icase | std::regex::optimize);
    std::match_results<std::string_view::const_iterator> found;
    return std::regex_search(text.begin(), text.end(), found, claims) ? found.str(1) : std::string();
}

} // namespace jg
