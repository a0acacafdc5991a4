// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/compare/over_time.h"

#include "review/assess/number_words.h"

#include <array>

namespace jg {

namespace {

constexpr std::array<std::string_view, 8> kFates = {"not-asked", "open",      "cant-tell", "good",
                                                    "found",     "worked-on", "kept",      "came-back"};

}

Message changeInWords(const MeasureLine& line) {
    if (line.points.empty()) return {};
    const Message last = numberInWords(line.points.back().value, line.unit);
    if (line.points.size() == 1) return last;
    // The unit is told once, with the last number.
    return msg("over-time.change",
               {{"before", numberInWords((line.points.end() - 2)->value, line.unit == "x" ? "x" : "")},
                {"last", last}});
}

Message trendInWords(const MeasureLine& line, std::optional<Date> sureSince) {
    if (sureSince && line.trend) // of two in a row it may be inside the error, of the whole line not
        return msg("over-time.sure-since", {{"trend", nameOf(*line.trend)}, {"date", *sureSince}});
    if (line.trend) return nameOf(*line.trend);
    return msg(line.leftOut.empty() ? "over-time.first-number" : "over-time.nothing-to-compare-with");
}

double placeOnAxis(Date from, Date to, Date when) {
    const int days = daysBetween(from, to);
    return days <= 0 ? 0.5 : static_cast<double>(daysBetween(from, when)) / days;
}

std::string_view idOf(Fate fate) {
    return kFates.at(static_cast<std::size_t>(fate));
}

Message nameOf(Fate fate) {
    return msg("fate." + std::string(idOf(fate)));
}

} // namespace jg
