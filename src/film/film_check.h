// What a film can and cannot answer, said on arrival.
#pragma once

#include "film/reader.h"

#include <functional>
#include <string>
#include <vector>

namespace jg {

enum class CheckLevel { Note, Warn, Stop };
const char* idOf(CheckLevel level);

/// One finding of the check: an id for programs and a sentence for a parent.
struct CheckLine {
    std::string id;
    CheckLevel level = CheckLevel::Note;
    std::string text;
};

struct FilmCheck {
    std::vector<CheckLine> lines; ///< gravest first
    std::int64_t distinctFrames = 0;
    std::string repeatPattern; ///< "none", or "each picture is shown 4 times"
};

/// Looks through the whole film once. `progress` gets 0..1. Errors: Cancelled, Damaged.
/// Limits are common practice or own choice, named beside each in film_check.cpp.
Result<FilmCheck> checkFilm(Reader& reader, std::stop_token stop = {},
                            const std::function<void(double)>& progress = {});

} // namespace jg
