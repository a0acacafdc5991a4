// SPDX-License-Identifier: GPL-3.0-or-later
// A review in short: what lists show of it without reading it.
#pragma once

#include "review/assess/assess.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace jg {

/// A fault as lists tell it.
struct FaultInShort {
    std::string finding;
    double gapInSds = 0;
    bool protects = false; ///< the arm
    bool operator==(const FaultInShort&) const = default;
};

/// Kept beside a review at every save. The results it comes from may be missing in a library that an older
/// version wrote; `counts` is nothing then.
struct ReviewSummary {
    ReviewId id;
    SubmissionId submission;
    AthleteId athlete;
    Date date{};
    Stage stage = Stage::Look;
    std::optional<SentRecord> sent;
    bool spoken = false; ///< some stop was said
    bool hides = true;   ///< somebody in it is to be unrecognizable; true where an older version wrote it
    std::optional<Counts> counts;
    std::vector<std::string> corrections; ///< finding ids that were worked on
    std::vector<std::string> keeps;       ///< finding ids that are strengths
    /// Arm protection before all, then the largest gap first. Nothing where an older version wrote it.
    std::optional<std::vector<FaultInShort>> faults;
    std::int64_t revision = 0;
};

/// The faults of an assessment, arm protection before all, then the largest gap first. Pure.
std::vector<FaultInShort> faultsInShort(const Assessment& told);

ReviewSummary summaryOf(const Review& review, const Assessment* told);

/// What is in no column of its own: spoken, hides, counts, corrections, keeps, faults. Reading leaves the
/// rest alone.
std::string toJson(const ReviewSummary& summary);
Status readSummary(std::string_view text, ReviewSummary& summary);

/// Everything an assessment says, as it was computed (docs/formats.md, juxtagraph-results-1).
std::string toJson(const Assessment& assessment);
/// Errors: Damaged.
Result<Assessment> assessmentFromJson(std::string_view text);

} // namespace jg
