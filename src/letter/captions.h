// SPDX-License-Identifier: GPL-3.0-or-later
// What is said, to be read along: captions aligned to the stops.
#pragma once

#include "film/encoder.h"
#include "letter/film_plan.h"

#include <string>
#include <vector>

namespace jg {

/// The captions of a planned film in the reader's language, rising and never over each other: what the coach
/// wrote for a stop, else its prompt, spread over the time it is said. More than can be read in that time is
/// left out at its end, whole sentences only. Pure.
std::vector<Caption> captionsOf(const FilmRecipe& recipe, const std::vector<FilmSegment>& plan);

/// Captions as a WebVTT file (W3C WebVTT, from memory).
std::string webVtt(const std::vector<Caption>& captions);

/// A text cut into lines that can be read at once, at most `most` letters each where words allow it. Pure.
std::vector<std::string> captionLines(const std::string& text, std::size_t most);

} // namespace jg
