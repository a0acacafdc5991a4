// SPDX-License-Identifier: GPL-3.0-or-later
// One athlete over time, as values: what the page shows.
#pragma once

#include "library/store.h"
#include "review/compare/over_time.h"

#include <map>
#include <optional>
#include <string>
#include <vector>

namespace jg {

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
