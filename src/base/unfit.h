// SPDX-License-Identifier: GPL-3.0-or-later
// What a reader of documents throws at a part that does not fit, and what is said of it at the room's edge.
#pragma once

#include "base/message.h"

#include <exception>
#include <string>
#include <string_view>

namespace jg {

/// Thrown within a room only; its reason is half a sentence ("its id is used twice").
class Unfit : public std::exception {
public:
    explicit Unfit(Message why_)
        : why(std::move(why_)) {}
    const char* what() const noexcept override { return why.id.c_str(); }

    Message why;
};

/// Throws one.
[[noreturn]] inline void unfit(Message why) {
    throw Unfit(std::move(why));
}

/// The reason of an Unfit; a library's own words never reach a person. Of the JSON library's reasons the
/// number tells which it is, and a missing field's name stands in quotes.
inline Message whyUnfit(const std::exception& e) {
    if (const auto* unfit = dynamic_cast<const Unfit*>(&e)) return unfit->why;
    const std::string_view what = e.what();
    const auto open = what.find('\''), close = what.rfind('\'');
    if (what.find(".403]") != what.npos && close > open)
        return msg("unfit.field-missing", {{"field", what.substr(open + 1, close - open - 1)}});
    if (what.find("type_error.") != what.npos) return msg("unfit.wrong-kind");
    if (what.find("parse_error.") != what.npos) return msg("unfit.no-json");
    return msg("unfit.not-understood");
}

} // namespace jg
