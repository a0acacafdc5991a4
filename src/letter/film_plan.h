// SPDX-License-Identifier: GPL-3.0-or-later
// What the narrated film shows when, and where on its picture: decided before a pixel is painted.
#pragma once

#include "base/result.h"
#include "review/compare/lockstep.h"
#include "review/record/review.h"
#include "words/words.h"

#include <QRectF>
#include <QSize>

#include <array>
#include <functional>
#include <vector>

namespace jg {

struct FilmRecipe;

/// How long the cards stand.
inline constexpr double kTitleSeconds = 3.0;
inline constexpr double kClosingSeconds = 6.0;
/// The delivery as it was thrown is shown once, so long at most, with so much before its first position and
/// after its last.
inline constexpr double kMostWholeSeconds = 8.0;
inline constexpr double kRoundSeconds = 0.3;
/// A stop begins with so much of its delivery before its frame, so much slower than it was thrown.
inline constexpr double kMotionSeconds = 0.4;
inline constexpr double kMotionSpeed = 0.25;

/// One stretch of the film.
struct FilmSegment {
    enum class Kind { Title, Whole, Motion, Said, Closing } kind = Kind::Title;
    std::string chapter; ///< empty: it belongs to the chapter that follows
    std::int64_t samples = 0;
    const Stop* stop = nullptr;
    const Take* take = nullptr;
    int delivery = 1;
    double fromS = 0; ///< true seconds on the film of Whole and Motion
    double speed = 1; ///< true seconds a second
};

/// True times of a delivery's frames. Errors: those of opening the film.
using TimesOf = std::function<Result<FrameTimes>(int delivery)>;

/// Title, the lead delivery once at full speed, each said stop after its moment in motion, closing card. What
/// points into the recipe holds while it does. Errors: those of `timesOf`.
Result<std::vector<FilmSegment>> planFilm(const FilmRecipe& recipe, const TimesOf& timesOf);

/// The frame shown `seconds` into a segment that moves: the last one taken by then.
std::int64_t frameAt(const FilmSegment& segment, const FrameTimes& times, double seconds);

/// Where picture and words stand, and how large letters have to be to be read where the film is watched: on a
/// phone 360 pixels wide.
struct FilmLayout {
    QRectF picture;
    QRectF words;
    std::array<QRectF, 2> halves; ///< of the picture, where another day's stands beside it: that one first
    double em = 0;                ///< height of the words' font in pixels
    double markUnit = 0;          ///< of paintScene()
    bool upright = false;
};

/// Pixels across of the phone the film is made for, and the least height of a font there: own choice.
inline constexpr double kPhoneWidth = 360;
inline constexpr double kLeastOnPhone = 10;

/// A film that is higher than wide has its words below in large. Pure.
FilmLayout layOutFilm(QSize size);

/// The least part of a picture in the shape of `area` that holds `part` about its middle, moved back onto the
/// picture as far as it reaches. Pure.
QRectF inShape(QRectF part, QSizeF picture, QSizeF area);

/// The part of a delivery's film that holds all that is marked on it and was drawn while it was said (of
/// another review's delivery null), with room about it, in the shape of `area`; the whole picture while
/// little is marked. It may reach beyond a picture of another shape. Pure.
QRectF athletePart(const DeliveryMarks& marks, const Review* review, QSizeF picture, QSizeF area);

} // namespace jg
