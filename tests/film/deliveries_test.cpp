// SPDX-License-Identifier: GPL-3.0-or-later
// Deliveries and positions suggested from motion, against the generator's own times.
#include "demo/films/film_maker.h"
#include "demo/films/random_orders.h"
#include "desk/keeping/places.h"
#include "film/deliveries.h"
#include "film/repeats.h"
#include "tests/support/fixtures.h"

#include <cmath>
#include <cstdlib>

namespace jg {
namespace {

using test::shell;
using test::TempFolder;

FilmOrder sideOrder(int n, int fps) {
    FilmOrder order = randomOrder(77, n);
    order.camera.view = n % 3 == 2 ? View::Closed : View::Open;
    order.camera.width = 640;
    order.camera.height = 360;
    order.fps = fps;
    return order;
}

std::vector<SuggestedDelivery> foundIn(const std::filesystem::path& film, bool fromSide = true) {
    auto reader = Reader::open(film);
    EXPECT_TRUE(reader);
    auto survey = surveyFilm(**reader, 14'400);
    EXPECT_TRUE(survey);
    EXPECT_TRUE(jumpsInMotion(*survey).empty()) << "a whole film has no missing picture";
    return findDeliveries(*survey, (*reader)->info().playRate.toDouble(), fromSide);
}

double trueFrame(const FilmOrder& order, Moment moment) {
    const Delivery d(order.knobs);
    return (d.events().at(moment) - filmStartS(order, d)) * order.fps;
}

/// JUXTAGRAPH_DELIVERIES sets how many films; every one is the same in every run.
TEST(Deliveries, FirstTouchIsFoundOnRandomDeliveriesAndSureMeansSure) {
    const char* asked = std::getenv("JUXTAGRAPH_DELIVERIES");
    const int count = asked ? std::atoi(asked) : 8;
    int near = 0, sure = 0, sureAndNear = 0;
    for (int n = 0; n < count; ++n) {
        const TempFolder folder;
        const int fps = n % 8 == 7 ? 240 : 60;
        const FilmOrder order = sideOrder(n, fps);
        ASSERT_TRUE(makeFilm(order, folder / "a.mp4"));
        const auto found = foundIn(folder / "a.mp4");
        ASSERT_EQ(found.size(), 1U) << n;
        const double set = trueFrame(order, Moment::Set), finish = trueFrame(order, Moment::Finish);
        EXPECT_LE(static_cast<double>(found[0].cut.first), set) << n;
        EXPECT_GE(static_cast<double>(found[0].cut.second), finish) << n;
        ASSERT_TRUE(found[0].firstTouch) << n;
        const double late =
            static_cast<double>(found[0].firstTouch->frame) - trueFrame(order, Moment::FootTouch);
        const double off = std::abs(late);
        const bool good = off <= (fps == 240 ? 3 : 1);
        near += good;
        sure += found[0].firstTouch->sure;
        sureAndNear += good && found[0].firstTouch->sure;
        printf("film %d at %d: %+.1f frames%s\n", n, fps, late, found[0].firstTouch->sure ? ", sure" : "");
    }
    EXPECT_GE(near * 10, count * 9);
    EXPECT_GE(sureAndNear * 100, sure * 95);
    EXPECT_GT(sure, 0);
}

TEST(Deliveries, EachInOneFilmIsACutOfItsOwn) {
    const TempFolder folder;
    FilmOrder order = sideOrder(0, 60);
    order.deliveries = 3;
    ASSERT_TRUE(makeFilm(order, folder / "a.mp4"));
    const auto found = foundIn(folder / "a.mp4");
    ASSERT_EQ(found.size(), 3U);
    const auto one = static_cast<double>(picturesOfOne(order, Delivery(order.knobs)));
    for (int k = 0; k < 3; ++k) {
        const SuggestedDelivery& d = found[static_cast<std::size_t>(k)];
        const double from = k * one;
        EXPECT_LE(static_cast<double>(d.cut.first), from + trueFrame(order, Moment::Set)) << k;
        EXPECT_GE(static_cast<double>(d.cut.second), from + trueFrame(order, Moment::Finish)) << k;
        ASSERT_TRUE(d.firstTouch) << k;
        EXPECT_NEAR(static_cast<double>(d.firstTouch->frame), from + trueFrame(order, Moment::FootTouch), 1.1)
            << k;
    }
}

TEST(Deliveries, FromTheFrontOnlyTheCutIsSuggested) {
    const TempFolder folder;
    FilmOrder order = sideOrder(1, 60);
    order.camera.view = View::Front;
    ASSERT_TRUE(makeFilm(order, folder / "a.mp4"));
    const auto found = foundIn(folder / "a.mp4", false);
    ASSERT_EQ(found.size(), 1U);
    EXPECT_FALSE(found[0].firstTouch);
    EXPECT_FALSE(found[0].release);
}

TEST(Deliveries, AFilmWhereNothingMovesHasNone) {
    const TempFolder folder;
    shell("ffmpeg -v error -y -f lavfi -i color=gray:s=320x180:r=30:d=2 -c:v libx264 '" +
          (folder / "a.mp4").string() + "'");
    EXPECT_TRUE(foundIn(folder / "a.mp4").empty());
}

} // namespace
} // namespace jg
