// SPDX-License-Identifier: GPL-3.0-or-later
// Everything a narrated film is made of.
#pragma once

#include "review/assess/ghost.h"
#include "review/tell/letter_model.h"
#include "review/tell/prompt.h"
#include "words/words.h"

#include <filesystem>
#include <map>
#include <string>
#include <vector>

namespace jg {

/// One delivery of a review, as it is drawn.
struct ToldDelivery {
    DeliveryMarks marks;
    Assessment assessment;
    std::map<std::string, MeasureGhost> ghosts; ///< by measure
    std::filesystem::path clip;
    double captureFps = 0; ///< of the clip; 0 = unknown
};

/// A delivery of another day that stands beside a stop's own.
struct ToldBeside : ToldDelivery {
    Message then, now;            ///< what is written on the two pictures
    Message shortly;              ///< what has changed, on one line; may be empty
    std::vector<Message> changes; ///< the same in sentences
};

/// Everything the film is made of. Values only, so that a job may run beside the window.
struct FilmRecipe : ToldDelivery {
    Review review;
    std::vector<ToldDelivery> others; ///< the deliveries that stops and corrections show beside this one
    Playbook playbook;
    LetterModel letter;
    Words words = english();             ///< the reader's language
    std::map<StopId, ToldBeside> beside; ///< by stop
    std::map<StopId, Prompt> prompts;    ///< by stop; what its captions say
    std::filesystem::path takesFolder;
    int width = 1280; ///< less than the height: an upright film, its words below
    int height = 720;
    int fps = 30;
    int quality = 20;           ///< x264's constant rate factor
    std::int64_t mostBytes = 0; ///< that the film may have; 0 = any
    bool burntCaptions = false; ///< captions stand in the picture, too
};

/// The ghost of a measure; null when it has none.
const MeasureGhost* ghostIn(const ToldDelivery& told, const std::string& measure);

/// The delivery of a number; the lead when the recipe has none of it.
const ToldDelivery& toldIn(const FilmRecipe& recipe, int delivery);

/// What stands beside a stop; null when it stands alone.
const ToldBeside* besideIn(const FilmRecipe& recipe, const Stop& stop);

/// The measure a stop's or a correction's picture is about: the one whose number is told (toldMeasure()), and
/// never that of something else.
std::string picturedMeasure(const FilmRecipe& recipe, const ToldDelivery& told, const std::string& finding);

/// The delivery at its own speed, or as the film plays while nobody knows how it was captured.
Message wholeTitle(const FilmRecipe& recipe);

} // namespace jg
