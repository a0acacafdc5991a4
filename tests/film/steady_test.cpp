// SPDX-License-Identifier: GPL-3.0-or-later
// The camera's shake against the generator's own.
#include "demo/films/film_maker.h"
#include "demo/films/truth.h"
#include "film/steady.h"
#include "tests/support/fixtures.h"

#include <cmath>

namespace jg {
namespace {

using test::MadeFilm;
using test::TempFolder;

FilmOrder shaken(double shakePx) {
    FilmOrder o;
    o.camera.width = 960;
    o.camera.height = 540;
    o.fps = 60;
    o.shakePx = shakePx;
    o.startAtS = -0.6;
    o.cutAfterS = 0.4;
    return o;
}

TEST(Steady, TheCamerasShakeIsFoundToAFractionOfAPixelWhileTheAthleteMoves) {
    const FilmOrder o = shaken(5);
    MadeFilm film(o);
    const std::int64_t last = film.reader().info().frames() - 1;
    const auto shifts = cameraShake(film.reader(), 3, last);
    ASSERT_TRUE(shifts) << said(shifts.error().text);
    ASSERT_EQ(shifts->size(), static_cast<std::size_t>(last - 2));
    const auto [x0, y0] = shakeOf(o, 3);
    double largest = 0, worst = 0, sum = 0;
    for (const CameraShift& s : *shifts) {
        const auto [x, y] = shakeOf(o, s.frame);
        largest = std::max(largest, std::hypot(x - x0, y - y0));
        const double off = std::hypot(s.by.x - (x - x0), s.by.y - (y - y0));
        worst = std::max(worst, off);
        sum += off;
        EXPECT_LT(s.sdPx, 0.5);
    }
    EXPECT_GT(largest, 4); // it shook, and that was found
    EXPECT_LT(sum / static_cast<double>(shifts->size()), 0.25);
    EXPECT_LT(worst, 0.6); // nine such films gave 0.3 to 0.5: how a film is compressed is chance
}

TEST(Steady, ACameraOnATripodHasNone) {
    MadeFilm film(shaken(0));
    const auto shifts = cameraShake(film.reader(), 0, 40);
    ASSERT_TRUE(shifts);
    for (const CameraShift& s : *shifts) EXPECT_LT(std::hypot(s.by.x, s.by.y), 0.15);
}

TEST(Steady, APlainWallTellsNothingAndSaysSo) {
    const TempFolder folder;
    test::shell("ffmpeg -v error -y -f lavfi -i color=gray:s=320x180:r=30:d=1 -c:v libx264 '" +
                (folder / "plain.mp4").string() + "'");
    auto reader = Reader::open(folder / "plain.mp4");
    ASSERT_TRUE(reader);
    EXPECT_EQ(cameraShake(**reader, 0, 20).error().code, ErrorCode::Refused);
    EXPECT_EQ(cameraShake(**reader, 0, 30).error().code, ErrorCode::BadInput);
    EXPECT_EQ(cameraShake(**reader, 5, 3).error().code, ErrorCode::BadInput);
    std::stop_source stop;
    stop.request_stop();
    EXPECT_EQ(cameraShake(**reader, 0, 20, stop.get_token()).error().code, ErrorCode::Cancelled);
}

} // namespace
} // namespace jg
