// SPDX-License-Identifier: GPL-3.0-or-later
// Reviews, athletes and submissions as JSON (docs/formats.md).
#pragma once

#include "base/result.h"
#include "review/record/people.h"
#include "review/record/review.h"

#include <nlohmann/json_fwd.hpp>

#include <string>
#include <string_view>

namespace jg {

std::string toJson(const Review& review);
std::string toJson(const Athlete& athlete);
std::string toJson(const Submission& submission);
/// Who owes a promise, when it was made and how it ended; the rest lies in the library's columns.
std::string toJson(const Promise& promise);

/// Documents of format 1 are read too. Errors of all: Damaged, saying which part can't be read.
Result<Review> reviewFromJson(std::string_view text);
Result<Athlete> athleteFromJson(std::string_view text);
Result<Submission> submissionFromJson(std::string_view text);
Result<Promise> promiseFromJson(std::string_view text); ///< an empty text is an older version's

/// What the film check found of a clip, kept beside it.
std::string surveyToJson(const Clip& clip);
Status readSurvey(std::string_view text, Clip& clip);

} // namespace jg
