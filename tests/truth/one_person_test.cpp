// SPDX-License-Identifier: GPL-3.0-or-later
// Points of two persons in one pose.
#include "review/record/one_person.h"

#include "demo/films/film_maker.h"
#include "review/assess/assess.h"
#include "tests/support/fixtures.h"

namespace jg {
namespace {

/// The generator's whole pose at a moment, as clicked on frame 100; Set on frame 10 tells the height.
Review posed(Moment moment, bool withHeight) {
    FilmOrder order;
    const Delivery d(order.knobs);
    Review r;
    r.date = test::today();
    r.judging().approach = *test::playbook().approach("load-and-drive");
    r.first().moments[moment] = {100, ""};
    for (const auto& [landmark, at] : projectJoints(order, d.poseAt(d.events().at(moment))))
        r.first().points[{100, landmark}] = {{at, 2}, ""};
    if (!withHeight) return r;
    const auto set = projectJoints(order, d.poseAt(d.events().at(Moment::Set)));
    r.first().moments[Moment::Set] = {10, ""};
    for (const Landmark l : {Landmark::Crown, Landmark::Ground})
        r.first().points[{10, l}] = {{set.at(l), 2}, ""};
    return r;
}

TEST(OnePerson, AWholeDeliveryIsOneInEveryPosition) {
    for (const bool withHeight : {true, false})
        for (const MomentInfo& m : keyPositions()) {
            const auto odd = notOnePerson(posed(m.moment, withHeight).first());
            EXPECT_TRUE(odd.empty()) << m.id << ": " << (odd.empty() ? "" : said(odd.front().words));
        }
}

TEST(OnePerson, AJointOfSomebodyElseIsAskedAfter) {
    for (const bool withHeight : {true, false}) {
        Review r = posed(Moment::Plant, withHeight);
        r.first().points[{100, Landmark::LeadAnkle}].point.at.x += 400; // the one who stands beside
        const auto odd = notOnePerson(r.first());
        ASSERT_FALSE(odd.empty());
        EXPECT_TRUE(odd.front().from == Landmark::LeadAnkle || odd.front().to == Landmark::LeadAnkle);
        EXPECT_NE(said(odd.front().words).find("another person's?"), std::string::npos);
        Clip clip;
        clip.view = View::Open;
        clip.width = 1280, clip.height = 720;
        const Assessment a = assess(r, test::playbook(), clip, Hand::Right);
        const auto warned = [&](const char* id) {
            const auto& warnings = a.measure(id)->value.warnings;
            return std::any_of(warnings.begin(), warnings.end(), [](const Message& m) {
                const std::string w = said(m);
                return w.find("another person's?") != std::string::npos;
            });
        };
        EXPECT_TRUE(warned("leg-spread"));
        EXPECT_TRUE(warned("front-knee-plant"));
        EXPECT_FALSE(warned("elbow-bend"));
    }
}

TEST(OnePerson, ABallInFlightAndAFewPointsAreNothingOdd) {
    Review r = posed(Moment::Release, true);
    r.first().points[{102, Landmark::Ball}] = {{{1200, 100}, 2}, ""};
    r.first().points[{102, Landmark::BackWrist}] = {{{700, 250}, 2}, ""};
    EXPECT_TRUE(notOnePerson(r.first()).empty());
    Review few;
    few.first().points[{5, Landmark::LeadHip}] = {{{100, 100}, 2}, ""};
    few.first().points[{5, Landmark::LeadKnee}] = {{{900, 600}, 2}, ""};
    EXPECT_TRUE(notOnePerson(few.first()).empty()); // nothing to hold it against
}

} // namespace
} // namespace jg
