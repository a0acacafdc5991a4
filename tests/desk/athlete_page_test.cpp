// SPDX-License-Identifier: GPL-3.0-or-later
// What the athlete's page compares, and what it calls better.
#include "desk/pages/athlete_page.h"

#include "tests/support/walk.h"

namespace jg {
namespace {

using test::Walk;

/// The walk's review again on another day, changed by `change`.
void addReview(Walk& walk, int daysAgo, const std::function<void(Submission&, Review&)>& change) {
    Submission s = walk.submission;
    s.id = {"sub-" + std::to_string(daysAgo)};
    s.clips[0].id = {"clip-" + std::to_string(daysAgo)};
    Review r = *walk.library->review(walk.review.id);
    r.id = {"rev-" + std::to_string(daysAgo)};
    r.submission = s.id;
    r.revision = 0;
    r.date = addDays(test::today(), -daysAgo);
    r.first().clip = s.clips[0].id;
    change(s, r);
    ASSERT_TRUE(test::put(*walk.library, s));
    const Assessment told = assess(r, test::playbook(), s.clips, walk.athlete.hand);
    ASSERT_TRUE(walk.library->save(r, &told));
}

const MeasureLine& lineOf(const AthletePage& page, const char* measure) {
    return *std::find_if(page.measures.begin(), page.measures.end(),
                         [&](const MeasureLine& l) { return l.measure == measure; });
}

AthletePage pageOf(Walk& walk) {
    auto page = readAthletePage(*walk.library, test::playbook(), walk.athlete.id);
    EXPECT_TRUE(page) << said(page.error().text);
    return std::move(*page);
}

TEST(AthletePage, ComparesOnlyLikeWithLike) {
    Walk walk;
    const auto same = [](Submission&, Review&) {};
    addReview(walk, 40, same);
    EXPECT_EQ(lineOf(pageOf(walk), "leg-spread").points.size(), 2U);
    addReview(walk, 30, [](Submission& s, Review&) { s.clips[0].view = View::Closed; });
    addReview(walk, 20, [](Submission&, Review& r) { r.first().conditions.surface = Surface::FlatGround; });
    addReview(walk, 10, [](Submission&, Review& r) { r.judging().approach.id = "another"; });
    const AthletePage page = pageOf(walk);
    EXPECT_EQ(page.reviews.size(), 5U);
    const MeasureLine& spread = lineOf(page, "leg-spread");
    EXPECT_EQ(spread.points.size(), 2U);
    EXPECT_FALSE(spread.leftOut.empty()); // and it is said
    EXPECT_NE(said(spread.leftOut).find("from another side"), std::string::npos) << spread.leftOut;
    EXPECT_NE(said(spread.leftOut).find("approach"), std::string::npos) << spread.leftOut;
}

TEST(AthletePage, ANumberOfASilentCameraIsShownAndNotCompared) {
    Walk walk;
    addReview(walk, 40, [](Submission&, Review& r) { r.first().turn.reset(); });
    const AthletePage page = pageOf(walk);
    const MeasureLine& spread = lineOf(page, "leg-spread");
    EXPECT_EQ(spread.points.size(), 2U);
    EXPECT_FALSE(spread.trend);
    EXPECT_NE(said(spread.leftOut).find("1 with a camera of which nobody said"), std::string::npos)
        << said(spread.leftOut);
    for (const MeasureLine& line : page.measures)
        if (line.unit == "ms" && line.points.size() > 1) {
            EXPECT_TRUE(line.trend) << line.measure;
        }
}

TEST(AthletePage, ATrendSaysBetterOrWorse) {
    Walk walk;
    addReview(walk, 40, [](Submission&, Review& r) { // the feet of the older one lie much closer together
        DeliveryMarks& d = r.first();
        const auto plant = *d.frameOf(Moment::Plant);
        const ImagePoint pelvis = d.point(plant, Landmark::Pelvis)->point.at;
        for (const Landmark foot : {Landmark::BackAnkle, Landmark::LeadAnkle}) {
            ImagePoint& at = d.points[{plant, foot}].point.at;
            at.x = pelvis.x + (at.x - pelvis.x) * 0.4;
        }
    });
    const AthletePage page = pageOf(walk);
    const MeasureLine& spread = lineOf(page, "leg-spread");
    ASSERT_EQ(spread.points.size(), 2U);
    EXPECT_GT(spread.points[1].value, spread.points[0].value + 20);
    EXPECT_EQ(spread.trend, Trend::Better); // at least 106 is asked
}

} // namespace
} // namespace jg
