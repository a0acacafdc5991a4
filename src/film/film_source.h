// SPDX-License-Identifier: GPL-3.0-or-later
// A film to be looked over and then read closely.
#pragma once

#include "film/reader.h"

namespace jg {

/// The film, and its scrub copy where there is one: what needs a few pictures from all over the film takes
/// them from the copy, where each is one small frame.
struct FilmSource {
    FilmSource(Reader& exact, Reader* copy = nullptr)
        : film(exact)
        , scrub(copy) {}
    Reader& film;
    Reader* scrub;
};

} // namespace jg
