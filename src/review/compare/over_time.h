// SPDX-License-Identifier: GPL-3.0-or-later
// An athlete over many reviews, as values: measures over time, and what became of each finding.
#pragma once

#include "coaching/season.h"
#include "review/record/people.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace jg {

/// A measure on one review.
struct TrendPoint {
    Date when{};
    double value = 0;
    double half95 = 0;
};

/// A measure over time: only numbers that can be compared with the newest one.
struct MeasureLine {
    std::string measure;
    std::string unit;
    Target target; ///< of the newest review, in `unit`
    std::vector<TrendPoint> points;
    std::optional<Trend> trend; ///< of the last two; nothing with fewer
    Message leftOut;            ///< what was not compared and why, as "1 from another side"; empty = nothing
};

/// The value before and the last one, as "86 -> 101 degrees"; one alone, or nothing. Pure.
Message changeInWords(const MeasureLine& line);
/// "better", "worse, sure since 3 October" ...; why there is none for a single number. Pure.
Message trendInWords(const MeasureLine& line, std::optional<Date> sureSince);

/// Where on a time axis a date lies, 0 to 1; in the middle when the axis has one day only. Pure.
double placeOnAxis(Date from, Date to, Date when);

/// How a finding stood in one review.
enum class Fate { NotAsked, Open, CantTell, Good, Found, WorkedOn, Kept, CameBack };

/// One finding in one review, with the way to its film.
struct LogDot {
    ReviewId review;
    SubmissionId submission;
    Date when{};
    Fate fate = Fate::NotAsked;
    int delivery = 1;
    std::optional<std::int64_t> frame; ///< where it is seen
};

/// A finding over all reviews.
struct LogLine {
    std::string finding;
    std::vector<LogDot> dots; ///< one a review, by date
    bool workedOn = false;    ///< in one of them at least
};

/// "worked on", "good", "came back" ...
Message nameOf(Fate fate);
std::string_view idOf(Fate fate);

} // namespace jg
