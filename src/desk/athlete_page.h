// One athlete over time, as values: what the page shows.
#pragma once

#include "coaching/change.h"
#include "library/store.h"

#include <map>
#include <optional>
#include <string>
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

struct AthletePage {
    Athlete athlete;
    std::vector<ReviewOfAthlete> reviews; ///< by date
    std::vector<MeasureLine> measures;    ///< of the newest review's approach
    std::vector<Promise> promises;
    std::vector<std::string> waiting; ///< findings of the last letter that were not worked on, as goals
    std::vector<Submission> pain;     ///< submissions that came with a report, the newest first
    std::map<ReviewId, std::vector<KeptVersion>> versions;
    std::vector<Message> leftOut; ///< reviews that can't be read, each in a sentence
};

/// Like is compared with like: same side of the camera, same approach, conditions alike, same unit (common
/// practice, no source). A review whose results an older version did not keep is assessed here. Errors: those
/// of reading the store.
Result<AthletePage> readAthletePage(Store& store, const Playbook& playbook, const AthleteId& athlete);

} // namespace jg
