// SPDX-License-Identifier: GPL-3.0-or-later
// Names put out of sight while a class looks at the screen.
#pragma once

#include "library/library.h"
#include "words/name_veil.h"
#include "words/words.h"

namespace jg {

/// The names of everybody in the library: each athlete is called by a letter in the order in which they came
/// in, those who care for them after them. `words` is the window's language. Errors: those of
/// Library::athletes().
Result<NameVeil> veilOfLibrary(Library& library, const Words& words);

} // namespace jg
