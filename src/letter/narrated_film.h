// The narrated film: rendered from the recorded events, never grabbed from the screen.
#pragma once

#include "base/file_store.h"
#include "film/encoder.h"
#include "letter/film_plan.h"
#include "review/ghost.h"
#include "review/letter_model.h"
#include "review/prompt.h"
#include "words/words.h"

#include <filesystem>
#include <functional>
#include <map>
#include <stop_token>
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

inline constexpr double kMegabyte = 1e6; ///< bytes, as sizes of films and mails are told

/// A film as it was made.
struct FilmMade {
    int width = 0, height = 0;
    int quality = 0;
    std::int64_t bytes = 0;
    int tries = 1; ///< how often it was rendered until it fitted
    std::vector<Chapter> chapters;
    std::vector<Caption> captions;
};

/// Title card, the delivery once at full speed, each said stop in the running order after its moment in
/// motion, closing card with the week: H.264 and AAC in MP4 with fast start, a chapter each, and captions as
/// a text track. One that is larger than `mostBytes` is made again, coarser, then smaller. Whole or not at
/// all. Needs loadFonts(); may run in any one thread. `progress` gets 0..1. Errors: Refused (nothing is said;
/// too long for its size), Cancelled, DiskFull, WriteFailed, Damaged, NotFound (a take or the clip).
Result<FilmMade> renderNarratedFilm(const FilmRecipe& recipe, const std::filesystem::path& path,
                                    FileStore& files, std::stop_token stop = {},
                                    const std::function<void(double)>& progress = {});

/// The captions of the film as a WebVTT file's text. Errors: Refused (nothing is said), those of opening the
/// films.
Result<std::string> filmCaptions(const FilmRecipe& recipe);

} // namespace jg
