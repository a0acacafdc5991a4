// SPDX-License-Identifier: GPL-3.0-or-later
// Who is hidden can't be made out in anything that leaves: still, film and sheet.
#include "letter/veils.h"

#include "desk/sending/dispatch.h"
#include "desk/sending/letter_files.h"
#include "film/reader.h"
#include "letter/film_plan.h"
#include "letter/narrated_film.h"
#include "letter/still.h"
#include "tests/support/walk.h"

#include <gtest/gtest.h>

#include <random>

namespace jg {
namespace {

using test::Walk;

TEST(Veils, ABoxGoesEvenlyBetweenItsFramesAndStaysBeyondThem) {
    const Veil veil{{{10, {{100, 100}, {200, 300}}}, {20, {{200, 100}, {300, 300}}}}, {10, 20}, {}};
    const auto middle = [&](std::int64_t n) {
        const PictureBox b = boxOn(veil, n);
        return (b.from.x + b.to.x) / 2;
    };
    EXPECT_NEAR(middle(15), 200, 1e-9);
    EXPECT_NEAR(middle(0), 150, 1e-9);
    EXPECT_NEAR(middle(99), 250, 1e-9);
    EXPECT_NEAR(boxOn(veil, 12).to.x - boxOn(veil, 12).from.x, 110, 1e-9);
    // Lost between them: both ends are covered. Lost beyond: twice as large.
    Veil lost = veil;
    lost.asks = {14};
    EXPECT_LT(boxOn(lost, 15).from.x, 100);
    EXPECT_GT(boxOn(lost, 15).to.x, 300);
    lost.asks = {25};
    EXPECT_NEAR(boxOn(lost, 30).to.x - boxOn(lost, 30).from.x, 200, 1e-9);
    EXPECT_NEAR(boxOn(lost, 24).to.x - boxOn(lost, 24).from.x, 110, 1e-9);
}

Picture noisePicture(int width, int height, unsigned seed) {
    std::mt19937 engine(seed);
    auto pixels = std::make_shared<std::vector<std::uint8_t>>(static_cast<std::size_t>(4 * width * height));
    for (auto& v : *pixels) v = static_cast<std::uint8_t>(engine());
    Picture picture;
    picture.width = width;
    picture.height = height;
    picture.pixels = pixels;
    return picture;
}

/// How many colours a part has: what a face is made of.
std::size_t detail(const QImage& image, QRect part) {
    std::size_t steps = 0;
    for (int y = part.top(); y <= part.bottom(); ++y)
        for (int x = part.left() + 1; x <= part.right(); ++x)
            steps += std::abs(qGray(image.pixel(x, y)) - qGray(image.pixel(x - 1, y))) > 8;
    return steps;
}

TEST(Veils, NothingIsLeftUnderOneAndTheRestIsAsItWas) {
    const Picture picture = noisePicture(320, 200, 3);
    const Veils veils{{"veil-1", {{{5, {{100, 50}, {180, 150}}}}, {5}, {}}}};
    const QImage shown = shownImage(picture, veils, 5), plain = toImage(picture);
    EXPECT_LT(detail(shown, QRect(102, 52, 76, 96)), detail(plain, QRect(102, 52, 76, 96)) / 50);
    for (const QPoint at : {QPoint(10, 10), QPoint(90, 100), QPoint(190, 100), QPoint(140, 160)})
        EXPECT_EQ(shown.pixel(at), plain.pixel(at));
    // The picture itself stays: the film in the library is never changed.
    EXPECT_EQ(toImage(picture), plain);
    // A smaller picture of the same film is veiled at the same place.
    const Picture half = noisePicture(160, 100, 3);
    const QImage small = shownImage(half, veils, 5, QSizeF(320, 200));
    EXPECT_LT(detail(small, QRect(52, 27, 36, 46)), detail(toImage(half), QRect(52, 27, 36, 46)) / 20);
    // One that lies beyond the picture's edge takes nothing down.
    const Veils beyond{{"v", {{{5, {{-500, -80}, {-400, 20}}}}, {5}, {}}},
                       {"w", {{{5, {{300, 180}, {900, 900}}}}, {5}, {}}}};
    EXPECT_FALSE(shownImage(picture, beyond, 5).isNull());
}

// The whole way of each picture that leaves: without the veil it is there, with it the part is smooth.
TEST(Veils, StillsAndFilmAreMadeWithThem) {
    Walk walk;
    const auto session = walk.session();
    FilmRecipe recipe = previewRecipe(*session).film;
    recipe.width = 320;
    recipe.height = 180;
    const auto plain = correctionStills(recipe);
    ASSERT_TRUE(plain && !plain->empty());
    const Clip& clip = session->clip();
    const PictureBox all{{0, 0}, {static_cast<double>(clip.width), static_cast<double>(clip.height)}};
    recipe.marks.veils["veil-1"] = {{{0, all}}, {0}, {}};
    const auto veiled = correctionStills(recipe);
    ASSERT_TRUE(veiled);
    for (const auto& [key, still] : *plain) EXPECT_NE(still, veiled->at(key)) << key;
    const auto path = walk.folder / "veiled.mp4";
    ASSERT_TRUE(renderNarratedFilm(recipe, path, walk.library->files()));
    auto film = Reader::open(path);
    ASSERT_TRUE(film);
    const auto at = static_cast<std::int64_t>((kTitleSeconds + 0.4) * recipe.fps); // in the whole delivery
    const auto shown = (*film)->picture(FrameNumber{at});
    ASSERT_TRUE(shown);
    EXPECT_EQ(detail(toImage(*shown), QRect(40, 10, 240, 110)), 0U);
}

// At the picture's edge there is no more left of who is hidden than in its middle.
TEST(Veils, WhatTheEdgeLeavesOfABoxIsAsCoarse) {
    const Picture picture = noisePicture(320, 200, 3);
    const Veils veils{{"v", {{{5, {{-130, 50}, {30, 150}}}}, {5}, {}}}};
    const QImage shown = shownImage(picture, veils, 5);
    int least = 255, most = 0; // means of large squares of noise are alike, of small ones not
    for (int y = 52; y < 148; ++y)
        for (int x = 2; x < 28; ++x) {
            least = std::min(least, qGray(shown.pixel(x, y)));
            most = std::max(most, qGray(shown.pixel(x, y)));
        }
    EXPECT_LT(most - least, 12);
}

// A frame on which nothing is told is laid over the film without painting; a veil, wherever it lies, has it
// painted.
TEST(Veils, AFrameThatNeedsNoPaintingLooksAsThePaintedOne) {
    Walk walk;
    const auto session = walk.session();
    FilmRecipe recipe = previewRecipe(*session).film;
    recipe.width = 322; // its parts lie on even pixels all the same
    recipe.height = 182;
    const auto frameOf = [&](const char* name) {
        const auto path = walk.folder / name;
        EXPECT_TRUE(renderNarratedFilm(recipe, path, walk.library->files()));
        auto film = Reader::open(path);
        const auto at = static_cast<std::int64_t>((kTitleSeconds + 0.4) * recipe.fps);
        return toImage(*(*film)->picture(FrameNumber{at})).copy();
    };
    const QImage laid = frameOf("laid.mp4");
    recipe.marks.veils["veil-1"] = {{{0, {{-500, -500}, {-400, -400}}}}, {0}, {}};
    const QImage painted = frameOf("painted.mp4");
    ASSERT_EQ(laid.size(), painted.size());
    double sum = 0;
    for (int y = 0; y < laid.height(); ++y)
        for (int x = 0; x < laid.width(); ++x)
            sum += std::abs(qGray(laid.pixel(x, y)) - qGray(painted.pixel(x, y)));
    EXPECT_LT(sum / (laid.width() * laid.height()), 1.0);
    EXPECT_GT(detail(laid, QRect(40, 10, 240, 110)), 100U);
}

} // namespace
} // namespace jg
