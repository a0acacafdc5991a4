// The narrated film: rendered from the recorded events, never grabbed from the screen.
#pragma once

#include "base/file_store.h"
#include "review/ghost.h"
#include "review/letter_model.h"
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
};

/// Everything the film is made of. Values only, so that a job may run beside the window.
struct FilmRecipe : ToldDelivery {
    Review review;
    std::vector<ToldDelivery> others; ///< the deliveries that stops and corrections show beside this one
    Playbook playbook;
    LetterModel letter;
    Words words = english(); ///< the reader's language
    std::filesystem::path takesFolder;
    int width = 1280;
    int height = 720;
    int fps = 30;
};

/// The ghost of a measure; null when it has none.
const MeasureGhost* ghostIn(const ToldDelivery& told, const std::string& measure);

/// The delivery of a number; the lead when the recipe has none of it.
const ToldDelivery& toldIn(const FilmRecipe& recipe, int delivery);

/// How long the cards stand.
inline constexpr double kTitleSeconds = 3.0;
inline constexpr double kClosingSeconds = 4.0;

/// Title card, each said stop in the running order, closing card: H.264 and AAC in MP4 with fast start and a
/// chapter each. Whole or not at all. Needs loadFonts(); may run in any one thread. `progress` gets 0..1.
/// Errors: Refused (nothing is said), Cancelled, DiskFull, WriteFailed, Damaged, NotFound (a take or the
/// clip).
Status renderNarratedFilm(const FilmRecipe& recipe, const std::filesystem::path& path, FileStore& files,
                          std::stop_token stop = {}, const std::function<void(double)>& progress = {});

} // namespace jg
