// SPDX-License-Identifier: GPL-3.0-or-later
// A box followed: round generated athletes against the generator's own places, and round patches that ffmpeg
// laid over a film, whose way is the formula it was given.
#include "film/follow_box.h"

#include "demo/films/film_maker.h"
#include "film/reader.h"
#include "tests/support/fixtures.h"

#include <gtest/gtest.h>

#include <cmath>

namespace jg {
namespace {

/// A film made by ffmpeg alone: a patch of another test picture over a textured wall.
std::unique_ptr<Reader> patchFilm(const test::TempFolder& folder, const std::string& x, const std::string& y,
                                  const std::string& more = "") {
    const auto path = folder / "patch.mp4";
    test::shell("ffmpeg -v error -y -f lavfi -i \"mandelbrot=s=640x360:r=30:maxiter=60:end_scale=0.3\" "
                "-f lavfi -i \"testsrc=s=80x120:r=30\" -filter_complex \"[0]trim=end_frame=1,loop=-1:1,"
                "setpts=N/30/TB,eq=contrast=0.5[w];[1]trim=end_frame=1,loop=-1:1,setpts=N/30/TB[p];[w][p]"
                "overlay=x='" +
                x + "':y='" + y + "'" + more + "\" -frames:v 60 -c:v libx264 -crf 18 -pix_fmt yuv420p '" +
                path.string() + "'");
    auto reader = Reader::open(path);
    EXPECT_TRUE(reader);
    return std::move(*reader);
}

double sharedWith(const FilmBox& box, double x, double y, double w, double h) {
    const double l = std::max(box.from.x, x), t = std::max(box.from.y, y), r = std::min(box.to.x, x + w),
                 b = std::min(box.to.y, y + h);
    const double both = std::max(0.0, r - l) * std::max(0.0, b - t);
    return both / (w * h + (box.to.x - box.from.x) * (box.to.y - box.from.y) - both);
}

TEST(FollowBox, StaysOnAPatchThatGoesItsWay) {
    const test::TempFolder folder;
    const auto reader = patchFilm(folder, "60+6*n", "100+40*sin(n/9)");
    const auto followed = followBox(
        *reader, {{20, {{180, 100 + 40 * std::sin(20 / 9.0)}, {260, 220 + 40 * std::sin(20 / 9.0)}}}}, 0, 59);
    ASSERT_TRUE(followed);
    EXPECT_TRUE(followed->lost.empty());
    ASSERT_EQ(followed->boxes.size(), 60U);
    for (const auto& [n, box] : followed->boxes)
        EXPECT_GT(sharedWith(box, 60 + 6.0 * static_cast<double>(n),
                             100 + 40 * std::sin(static_cast<double>(n) / 9), 80, 120),
                  0.8)
            << n;
}

TEST(FollowBox, IsLostWhereItVanishesAndSaysSo) {
    const test::TempFolder folder;
    const auto reader = patchFilm(folder, "100+4*n", "100", ":enable='not(between(n,30,40))'");
    const std::map<std::int64_t, FilmBox> once{{10, {{140, 100}, {220, 220}}}};
    const auto followed = followBox(*reader, once, 0, 59);
    ASSERT_TRUE(followed);
    ASSERT_EQ(followed->lost.size(), 1U);
    EXPECT_NEAR(static_cast<double>(followed->lost[0]), 30, 2);
    EXPECT_FALSE(followed->boxes.contains(35));
    // Drawn again behind the gap, it is known on both sides of it.
    auto twice = once;
    twice[45] = {{280, 100}, {360, 220}};
    const auto again = followBox(*reader, twice, 0, 59);
    ASSERT_TRUE(again);
    EXPECT_EQ(again->lost.size(), 1U);
    for (const std::int64_t n : {0, 25, 43, 59})
        EXPECT_GT(sharedWith(again->boxes.at(n), 100 + 4.0 * static_cast<double>(n), 100, 80, 120), 0.75)
            << n;
}

TEST(FollowBox, WhoLeavesThePictureIsNotLost) {
    const test::TempFolder folder;
    const auto reader = patchFilm(folder, "400+12*n", "120");
    const auto followed = followBox(*reader, {{0, {{400, 120}, {480, 240}}}}, 0, 59);
    ASSERT_TRUE(followed);
    EXPECT_TRUE(followed->lost.empty());
    EXPECT_TRUE(followed->boxes.contains(14));
    EXPECT_FALSE(followed->boxes.contains(25)); // beyond the right edge
}

TEST(FollowBox, HoldsAGeneratedAthlete) {
    FilmOrder o;
    o.camera.width = 960;
    o.camera.height = 540;
    o.fps = 60;
    o.startAtS = -1.2;
    o.cutAfterS = 0.1;
    test::MadeFilm film(o);
    const Delivery d(o.knobs);
    const auto boxAt = [&](std::int64_t n) {
        FilmBox box{{1e9, 1e9}, {-1e9, -1e9}};
        for (const auto& [joint, p] :
             projectJoints(o, d.poseAt(timeOfPicture(o, d, static_cast<double>(n))))) {
            box.from = {std::min(box.from.x, p.x), std::min(box.from.y, p.y)};
            box.to = {std::max(box.to.x, p.x), std::max(box.to.y, p.y)};
        }
        return box;
    };
    const std::int64_t last = film.reader().info().frames() - 1;
    // Drawn on both ends and once between, as a coach does who is asked.
    const auto followed =
        followBox(film.reader(), {{0, boxAt(0)}, {last / 2, boxAt(last / 2)}, {last, boxAt(last)}}, 0, last);
    ASSERT_TRUE(followed);
    int held = 0;
    for (const auto& [n, box] : followed->boxes) {
        const FilmBox truth = boxAt(n);
        const double x = (truth.from.x + truth.to.x) / 2, y = (truth.from.y + truth.to.y) / 2;
        held += box.from.x < x && x < box.to.x && box.from.y < y && y < box.to.y;
    }
    EXPECT_GT(held, 9 * last / 10);
}

TEST(FollowBox, RefusesFramesTheFilmDoesNotHaveAndStopsWhenAsked) {
    const test::TempFolder folder;
    const auto reader = patchFilm(folder, "100", "100");
    const FilmBox box{{100, 100}, {180, 220}};
    EXPECT_EQ(followBox(*reader, {}, 0, 10).error().code, ErrorCode::BadInput);
    EXPECT_EQ(followBox(*reader, {{5, box}}, 0, 60).error().code, ErrorCode::BadInput);
    EXPECT_EQ(followBox(*reader, {{5, box}}, 6, 20).error().code, ErrorCode::BadInput);
    std::stop_source stop;
    EXPECT_EQ(followBox(*reader, {{5, box}}, 0, 59, stop.get_token(), [&](double) { stop.request_stop(); })
                  .error()
                  .code,
              ErrorCode::Cancelled);
}

} // namespace
} // namespace jg
