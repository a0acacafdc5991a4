// SPDX-License-Identifier: GPL-3.0-or-later
// The mail that carries a letter, in words. Inside the desk room only.
#pragma once

#include "desk/sending/dispatch_recipe.h"

#include <string>

namespace jg {

/// One file that goes along.
struct Enclosure {
    std::string name;
    Message what; ///< what it is and how it is opened
};

/// Greeting, cautions, what lies beside it and how it is opened, the next look, and who wrote: paragraphs
/// with an empty line between them, enclosures as rows that begin with "- ".
std::string mailText(const DispatchRecipe& recipe, const std::vector<Enclosure>& enclosures);

} // namespace jg
