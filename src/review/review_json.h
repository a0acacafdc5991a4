// Reviews, athletes and submissions as JSON (docs/formats.md).
#pragma once

#include "base/result.h"
#include "review/people.h"
#include "review/review.h"

#include <nlohmann/json_fwd.hpp>

#include <string>
#include <string_view>

namespace jg {

std::string toJson(const Review& review);
std::string toJson(const Athlete& athlete);
std::string toJson(const Submission& submission);

/// Errors: Damaged, saying which part can't be read.
Result<Review> reviewFromJson(std::string_view text);
Result<Athlete> athleteFromJson(std::string_view text);
Result<Submission> submissionFromJson(std::string_view text);

/// A target as in the playbook and on the command line.
nlohmann::json targetAsJson(const Target& target);

} // namespace jg
