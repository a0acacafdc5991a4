// SPDX-License-Identifier: GPL-3.0-or-later
// Words burnt into the narrated film.
#include "desk/sending/dispatch.h"
#include "film/reader.h"
#include "letter/film_plan.h"
#include "letter/narrated_film.h"
#include "letter/still.h"
#include "tests/support/walk.h"

#include <gtest/gtest.h>

namespace jg {
namespace {

using test::Walk;

TEST(NarratedFilm, BurntWordsLeaveNothingOfThoseBefore) {
    Walk walk;
    FilmRecipe recipe = previewRecipe(*walk.session()).film;
    recipe.width = 640;
    recipe.height = 360;
    recipe.burntCaptions = true;
    const auto stripAtTheEnd = [&](const std::string& words) {
        for (Stop& stop : recipe.review.stops) stop.words = words;
        const auto path = walk.folder / "burnt.mp4";
        const auto made = renderNarratedFilm(recipe, path, walk.library->files());
        EXPECT_TRUE(made);
        const auto last = made->captions.back();
        EXPECT_EQ(last.text, "So.");
        auto reader = Reader::open(path);
        const QImage image = toImage(*(*reader)->picture(FrameNumber{(last.endMs - 40) * 30 / 1000}));
        return image.copy(layOutFilm(QSize(640, 360)).words.toAlignedRect());
    };
    const QImage afterLong = stripAtTheEnd("Wide words that fill the strip from edge to edge. So.");
    const QImage afterShort = stripAtTheEnd("Go. So.");
    double bright = 0, off = 0;
    for (int y = 0; y < afterLong.height(); ++y)
        for (int x = 0; x < afterLong.width(); ++x) {
            bright += qGray(afterLong.pixel(x, y)) > 150;
            off += std::abs(qGray(afterLong.pixel(x, y)) - qGray(afterShort.pixel(x, y))) > 40;
        }
    EXPECT_GT(bright, 50);
    EXPECT_LT(off, bright / 20);
}

} // namespace
} // namespace jg
