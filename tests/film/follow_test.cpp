// SPDX-License-Identifier: GPL-3.0-or-later
// Points followed through generated films, against the generator's own places.
#include "demo/films/film_maker.h"
#include "film/follow.h"
#include "film/scrub_copy.h"
#include "tests/support/fixtures.h"

#include <cmath>

namespace jg {
namespace {

using test::MadeFilm;

FilmOrder order(int fps) {
    FilmOrder o;
    o.camera.width = 960;
    o.camera.height = 540;
    o.fps = fps;
    o.startAtS = -0.9;
    o.cutAfterS = 0.3;
    return o;
}

/// Where a joint lies in picture `n` of the film.
FilmPlace trueAt(const FilmOrder& o, Landmark landmark, std::int64_t n) {
    const Delivery d(o.knobs);
    const ImagePoint p = projectJoints(o, d.poseAt(timeOfPicture(o, d, static_cast<double>(n)))).at(landmark);
    return {p.x, p.y};
}

FollowOrder between(const FilmOrder& o, Landmark landmark, std::int64_t from, std::int64_t to) {
    return {from, to, trueAt(o, landmark, from), trueAt(o, landmark, to), 2};
}

std::int64_t frameOf(const FilmOrder& o, Moment moment) {
    const Delivery d(o.knobs);
    return std::llround((d.events().at(moment) - filmStartS(o, d)) * o.fps);
}

std::vector<Followed> follow(const FilmOrder& o, const std::vector<FollowOrder>& orders) {
    MadeFilm film(o);
    auto followed = followPoints(film.reader(), orders);
    EXPECT_TRUE(followed);
    return *std::move(followed);
}

TEST(Follow, TheBackgroundOfTheScrubCopyServesAsWellAsTheFilms) {
    const FilmOrder o = order(120);
    MadeFilm film(o);
    FileStore files;
    ASSERT_TRUE(makeScrubCopy(film.reader(), film.folder() / "scrub.mov", files));
    auto scrub = Reader::open(film.folder() / "scrub.mov");
    ASSERT_TRUE(scrub);
    const std::int64_t from = frameOf(o, Moment::Load), to = frameOf(o, Moment::Plant);
    std::vector<FollowOrder> orders;
    for (const Landmark l : {Landmark::Neck, Landmark::Head, Landmark::LeadKnee})
        orders.push_back(between(o, l, from, to));
    const auto plain = followPoints(film.reader(), orders),
               quick = followPoints({film.reader(), scrub->get()}, orders);
    ASSERT_TRUE(plain && quick);
    std::size_t ofPlain = 0, ofQuick = 0;
    for (std::size_t i = 0; i < orders.size(); ++i) {
        ofPlain += (*plain)[i].places.size();
        ofQuick += (*quick)[i].places.size();
        for (const FollowedPlace& a : (*plain)[i].places)
            for (const FollowedPlace& b : (*quick)[i].places)
                if (a.frame == b.frame) {
                    EXPECT_LT(std::hypot(a.at.x - b.at.x, a.at.y - b.at.y), 3 * std::hypot(a.sdPx, b.sdPx))
                        << a.frame;
                }
    }
    EXPECT_GT(ofQuick, 0.95 * static_cast<double>(ofPlain));
}

/// How many places lie within their own 95 % (of a round normal error).
std::pair<int, int> within(const FilmOrder& o, const std::vector<Landmark>& joints,
                           const std::vector<Followed>& all) {
    int places = 0, good = 0;
    for (std::size_t i = 0; i < all.size(); ++i)
        for (const FollowedPlace& p : all[i].places) {
            const FilmPlace truth = trueAt(o, joints[i], p.frame);
            ++places;
            good += std::hypot(p.at.x - truth.x, p.at.y - truth.y) < 2.45 * p.sdPx;
        }
    return {good, places};
}

TEST(Follow, KeepsToTheirWayOrSaysThatItIsLost) {
    const FilmOrder o = order(120);
    const std::int64_t load = frameOf(o, Moment::Load), plant = frameOf(o, Moment::Plant),
                       release = frameOf(o, Moment::Release);
    using L = Landmark;
    const std::vector<L> steady = {L::Neck, L::Head, L::LeadKnee};
    const std::vector<L> any = {L::BackElbow, L::BackWrist, L::BackShoulder,
                                L::LeadWrist, L::BackKnee,  L::Pelvis};
    std::vector<FollowOrder> orders;
    std::vector<L> joints = steady;
    for (const L joint : steady) orders.push_back(between(o, joint, load, plant));
    for (const L joint : any) {
        orders.push_back(between(o, joint, load, plant));
        orders.push_back(between(o, joint, plant, release));
        joints.insert(joints.end(), {joint, joint});
    }
    const auto all = follow(o, orders);
    for (std::size_t i = 0; i < all.size(); ++i) { // the ends are what was clicked
        EXPECT_NEAR(all[i].places.front().at.x, orders[i].start.x, 0.01);
        EXPECT_NEAR(all[i].places.back().at.y, orders[i].end.y, 0.01);
    }
    const auto [good, places] = within(o, joints, all);
    EXPECT_GE(good * 100, places * 93) << good << " of " << places;
    RecordProperty("within", good);
    RecordProperty("places", places);
}

/// A film's grain decides whether one of them is held: counted over several films, with the rest said to be
/// lost.
TEST(Follow, HoldsTheSteadyJointsOnMostFilms) {
    int held = 0, asked = 0;
    for (std::uint64_t seed = 1; seed <= 3; ++seed) {
        FilmOrder o = order(120);
        o.seed = seed;
        const std::int64_t load = frameOf(o, Moment::Load), plant = frameOf(o, Moment::Plant);
        std::vector<FollowOrder> orders;
        for (const Landmark joint : {Landmark::Neck, Landmark::Head, Landmark::LeadKnee})
            orders.push_back(between(o, joint, load, plant));
        for (const Followed& f : follow(o, orders)) {
            ++asked;
            held += !f.lost;
            if (f.lost) continue;
            EXPECT_EQ(f.places.size(), static_cast<std::size_t>(plant - load + 1));
        }
    }
    printf("%d of %d held\n", held, asked);
    EXPECT_GE(held * 4, asked * 3) << held << " of " << asked;
}

TEST(Follow, WhatCannotBeFollowedIsLostNotGuessed) {
    // The hand at 30 a second moves a sixth of the picture a frame: no flow holds it.
    FilmOrder o = order(30);
    o.shutter = 0.5;
    const std::int64_t plant = frameOf(o, Moment::Plant), release = frameOf(o, Moment::Release);
    const auto all = follow(o, {between(o, Landmark::BackWrist, plant, release)});
    ASSERT_TRUE(all[0].lost);
    EXPECT_GT(all[0].lost->first, plant);
    EXPECT_LT(all[0].lost->second, release);
    EXPECT_GE(all[0].places.size(), 2U);
}

TEST(Follow, RefusesFramesTheFilmDoesNotHaveAndStopsWhenAsked) {
    const FilmOrder o = order(30);
    MadeFilm film(o);
    FollowOrder wrong{0, film.reader().info().frames(), {10, 10}, {10, 10}, 2};
    EXPECT_EQ(followPoints(film.reader(), {wrong}).error().code, ErrorCode::BadInput);
    wrong = {5, 3, {10, 10}, {10, 10}, 2};
    EXPECT_EQ(followPoints(film.reader(), {wrong}).error().code, ErrorCode::BadInput);
    std::stop_source stop;
    stop.request_stop();
    EXPECT_EQ(followPoints(film.reader(), {{0, 9, {10, 10}, {10, 10}, 2}}, stop.get_token()).error().code,
              ErrorCode::Cancelled);
    EXPECT_TRUE(followPoints(film.reader(), {})->empty());
}

TEST(Follow, ATurnedFilmIsFollowedAsItIsShown) {
    FilmOrder o = order(120);
    o.rotationDeg = 90; // the picture lies on its side, and is shown turned clockwise
    const auto shown = [&](std::int64_t n) {
        const FilmPlace p = trueAt(o, Landmark::Head, n);
        return FilmPlace{540 - p.y, p.x};
    };
    const std::int64_t from = frameOf(o, Moment::Load), to = frameOf(o, Moment::Plant);
    const auto all = follow(o, {{from, to, shown(from), shown(to), 2}});
    ASSERT_FALSE(all[0].lost);
    const auto& middle = all[0].places[all[0].places.size() / 2];
    EXPECT_LT(std::hypot(middle.at.x - shown(middle.frame).x, middle.at.y - shown(middle.frame).y),
              2.45 * middle.sdPx);
}

} // namespace
} // namespace jg
