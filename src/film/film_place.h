// SPDX-License-Identifier: GPL-3.0-or-later
// A place in a film's picture.
#pragma once

namespace jg {

/// A place in the picture as shown, or a way between two: source pixels.
struct FilmPlace {
    double x = 0, y = 0;
};

} // namespace jg
