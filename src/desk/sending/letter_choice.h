// SPDX-License-Identifier: GPL-3.0-or-later
// How letter and film are made in this house: paper, shape, captions, size.
#pragma once

#include "letter/film_recipe.h"
#include "letter/paper.h"
#include "library/store.h"

namespace jg {

struct LetterChoice {
    Paper paper = Paper::A4;
    bool phonePage = true;      ///< the letter goes along as one HTML file, too
    bool upright = false;       ///< the film: 9:16, its words below
    bool burntCaptions = false; ///< captions in the picture, not only beside it
    int mostMb = 18;     ///< of the film: most servers take mails of 25 MB (from memory), a third is coding
    SayingLength saying; ///< that is aimed at
    bool operator==(const LetterChoice&) const = default;
};

inline constexpr int kLeastFilmMb = 2, kMostFilmMb = 500, kMostSayingMinutes = 30;

/// Of the library's settings; what can't be read is as it ships.
LetterChoice letterChoiceOf(Store& store);
/// Errors: those of writing.
Status keepLetterChoice(Store& store, const LetterChoice& choice);
/// Sets a film's size and captions.
void applyChoice(const LetterChoice& choice, FilmRecipe& film);

} // namespace jg
