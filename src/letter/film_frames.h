// SPDX-License-Identifier: GPL-3.0-or-later
// The frames of the narrated film, cut to the athlete. Inside the letter room only.
#pragma once

#include "film/open_films.h"
#include "letter/film_recipe.h"
#include "letter/mark_painter.h"
#include "review/compare/lockstep.h"

#include <QImage>
#include <QPainter>

#include <deque>
#include <map>
#include <utility>
#include <vector>

namespace jg {

/// What lies over a canvas without being painted on it, as a film's planes: even in place and size.
struct Laid {
    FrameHandle planes;
    QPoint at;
    bool operator==(const Laid&) const = default;
};

/// Opens each film once. One thread owns it; the recipe must outlive it.
class FilmFrames {
public:
    explicit FilmFrames(const FilmRecipe& recipe)
        : r_(recipe) {}

    /// True times of a delivery's film. Errors: those of opening it.
    Result<FrameTimes> timesOf(const ToldDelivery& told);
    /// A frame of a delivery into an area, cut to the athlete or to what is looked at, with its veils; `own`
    /// = this review's. The painter stays clipped to the area. Errors: those of Reader.
    Result<ViewTransform> paint(QPainter& p, const ToldDelivery& told, std::int64_t frame, QRectF area,
                                bool own, const std::optional<PictureBox>& lookedAt);
    /// The same frame, cut to the athlete, without painting; false where it has to be painted (it has veils,
    /// or its film has no planes). Errors: those of Reader.
    Result<bool> lay(std::vector<Laid>& over, const ToldDelivery& told, std::int64_t frame, QRectF area,
                     bool own);

private:
    /// Where a frame lies in an area, and what of it is seen there.
    struct Placed {
        ViewTransform view;
        QRect shown; ///< whole pixels, even in place and size as films need it
        PicturePart part;
    };
    Placed placed(const ToldDelivery& told, const FilmInfo& film, QRectF area, bool own,
                  const std::optional<PictureBox>& lookedAt) const;

    /// A frame as it lies under what is told: a pointer moves over the same one.
    struct Backdrop {
        std::filesystem::path clip;
        std::int64_t frame = 0;
        PicturePart part;
        QRect shown;
        QImage image;
    };

    const FilmRecipe& r_;
    OpenFilms films_;
    std::map<std::pair<std::filesystem::path, double>, FrameTimes> times_; ///< by film and capture rate
    std::deque<Backdrop> backdrops_;                                       ///< the last ones
};

} // namespace jg
