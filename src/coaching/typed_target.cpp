// SPDX-License-Identifier: GPL-3.0-or-later
#include "coaching/typed_target.h"

#include "base/number.h"
#include "kinematics/answers.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <optional>
#include <regex>

namespace jg {

namespace {

std::string trimmedText(std::string_view text) {
    const auto first = text.find_first_not_of(" \t"), last = text.find_last_not_of(" \t");
    return first == std::string_view::npos ? "" : std::string(text.substr(first, last - first + 1));
}

Result<Target> typedOptions(const std::string& text, const MeasureDefinition& m) {
    Target t = recordOf(m);
    t.type = TargetType::Options;
    static const std::regex between(R"(\s+or\s+|\s*,\s*)");
    for (std::sregex_token_iterator it(text.begin(), text.end(), between, -1), end; it != end; ++it) {
        const std::string answer = trimmedText(it->str());
        if (!isAmong(m.options, answer))
            return fail(ErrorCode::BadInput, msg("typed-target.options", {{"options", eitherOf(m.options)}}));
        t.wanted.push_back(answer);
    }
    return t;
}

/// The unit that is written behind a number, or the one taken where none is. Nothing for a wrong one.
std::optional<std::string> unitWritten(const std::string& written, const std::string& usual) {
    static const std::map<std::string, std::string> words = {
        {"\u00b0", "deg"}, {"degrees", "deg"},     {"deg", "deg"}, {"%", "%"},       {"percent", "%"},
        {"ms", "ms"},      {"milliseconds", "ms"}, {"in", "in"},   {"inches", "in"}, {"\"", "in"},
        {"cm", "cm"},      {"frames", "frames"},   {"rpm", "rpm"}, {"mph", "mph"},   {"turns", "turns"}};
    if (written.empty()) return usual;
    const auto known = words.find(written);
    if (known == words.end()) return std::nullopt;
    const bool bothLengths = lengthUnitFromId(known->second) && lengthUnitFromId(usual);
    return bothLengths || known->second == usual ? std::optional(known->second) : std::nullopt;
}

} // namespace

double softMarginOf(double limit, const MeasureDefinition& m) {
    return std::max(m.unit == "x" ? 0.1 : 1.0, std::abs(limit) / 10);
}

Target recordOf(const MeasureDefinition& m, LengthUnit lengths) {
    Target t;
    t.measure = m.id;
    t.position = m.moments.back();
    t.type = TargetType::Record;
    t.unit = lengthUnitFromId(m.unit) ? std::string(idOf(lengths)) : m.unit;
    return t;
}

Result<Target> typedTarget(std::string_view typed, const MeasureDefinition& m, LengthUnit lengths) {
    const std::string text = trimmedText(typed);
    if (m.kind == MeasureKind::Seen) return typedOptions(text, m);
    static const std::string number = "((?:-|\u2212)?[0-9]+(?:[.,][0-9]+)?)", behind = "\\s*(\\S*)";
    static const std::regex least("(?:at least|>=?|from)\\s*" + number + behind),
        most("(?:at most|<=?|up to)\\s*" + number + behind),
        band(number + "\\s*(?:to|-|\\.\\.|\u2013)\\s*" + number + behind);
    const auto value = [](std::string digits) {
        if (digits.starts_with("\u2212")) digits = "-" + digits.substr(std::string("\u2212").size());
        return typedNumber(digits).value_or(std::nan(""));
    };
    Target t = recordOf(m, lengths);
    std::smatch found;
    if (std::regex_match(text, found, least)) {
        t.type = TargetType::AtLeast;
        t.x = value(found[1]);
    } else if (std::regex_match(text, found, most)) {
        t.type = TargetType::AtMost;
        t.x = value(found[1]);
    } else if (std::regex_match(text, found, band)) {
        t.type = TargetType::Band;
        t.x = value(found[1]);
        t.y = value(found[2]);
        if (!(t.y > t.x)) return fail(ErrorCode::BadInput, msg("typed-target.band"));
    } else {
        return fail(ErrorCode::BadInput, msg("typed-target.how"));
    }
    const auto unit = unitWritten(found[found.size() - 1], t.unit);
    if (!unit) return fail(ErrorCode::BadInput, msg("typed-target.unit", {{"unit", t.unit}}));
    t.unit = *unit;
    t.soft = softMarginOf(t.x, m);
    return t;
}

} // namespace jg
