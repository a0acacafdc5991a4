// SPDX-License-Identifier: GPL-3.0-or-later
// Everything a letter is made of and sent by.
#pragma once

#include "desk/sending/letter_ground.h"
#include "letter/film_recipe.h"
#include "letter/paper.h"

#include <cstdint>
#include <string>

namespace jg {

/// Everything a background job needs to make and send a letter: values only.
struct DispatchRecipe {
    FilmRecipe film;
    House house;
    std::string athleteFirstName;
    std::string toName;
    std::string toAddress;
    bool toGuardian = false;
    Paper paper = Paper::A4;
    bool phonePage = true; ///< the letter as HTML goes along
    std::string messageId;
    std::int64_t dateUnix = 0;
    LetterGround ground = {}; ///< what it follows from; empty for previews
};

} // namespace jg
