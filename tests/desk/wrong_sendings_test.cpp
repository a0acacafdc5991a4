// SPDX-License-Identifier: GPL-3.0-or-later
// A thousand random tries to send the wrong thing, or to the wrong place: none gets as far as the outbox.
#include "desk/sending/outgoing.h"
#include "tests/support/walk.h"

#include <fstream>
#include <functional>
#include <random>

namespace jg {
namespace {

namespace fs = std::filesystem;

/// A letter that may go out, and what makes it wrong. Each harm alone must be enough.
class WrongSendings : public testing::Test {
protected:
    void SetUp() override {
        Review r = *walk.library->review(walk.review.id);
        r.stops.clear(), r.takes.clear();
        good = r;
        good.revision = *walk.library->save(r);
        film = *readFile(filmPath());
        other = walk.athlete;
        other.id = walk.ids.next<AthleteTag>("ath");
        other.firstName = "Wren";
        ASSERT_TRUE(test::put(*walk.library, other));
        Review theirs = good;
        theirs.id = {"rev-theirs"};
        theirs.revision = 0;
        theirs.athlete = other.id;
        Submission sub = test::onceMore(walk.submission, "theirs", &theirs);
        sub.athlete = other.id;
        std::ofstream(walk.folder / "theirs.mp4") << "another child's film";
        for (Clip& c : sub.clips) {
            c.athlete = other.id;
            c.mediaHash = *walk.library->addMedia(walk.folder / "theirs.mp4");
        }
        ASSERT_TRUE(test::put(*walk.library, sub));
        ASSERT_TRUE(walk.library->save(theirs));
    }

    fs::path filmPath() const { return walk.library->mediaPath(walk.submission.clips[0]); }

    void harmReview(const std::function<void(Review&)>& how) {
        Review r = *walk.library->review(walk.review.id);
        how(r);
        refusedAtTheDoor = !walk.library->save(r);
    }

    std::vector<std::function<void()>> harms() {
        return {
            [this] { athlete.guardianEmail.clear(); },
            [this] { athlete.guardianEmail = "a@example.org, b@example.org"; },
            [this] { athlete.guardianEmail = athlete.email; },
            [this] { athlete.guardianEmail = "nobody"; },
            [this] { submission.pain = "Elbow sore", submission.painClosed.reset(); },
            [this] { std::ofstream(filmPath(), std::ios::app | std::ios::binary) << "x"; },
            [this] { fs::resize_file(filmPath(), film.size() / 2); },
            [this] {
                std::ofstream(filmPath(), std::ios::binary | std::ios::trunc) << "another child's film";
            },
            [this] { submission.clips[0].athlete = other.id; },
            [this] { athlete.consent->takenBack = test::today(); },
            [this] { athlete.consent->until = addDays(test::today(), -1); },
            [this] { athlete.consent->filming = false; },
            [this] {
                athlete.born = addDays(athlete.born, -4 * 365);
            }, // of age: the guardian's word has ended
            [this] { harmReview([](Review& r) { r.judging().grades.clear(); }); },
            [this] {
                harmReview([](Review& r) {
                    if (!r.plan.corrections.empty()) r.plan.corrections.push_back(r.plan.corrections.front());
                });
            },
            [this] { harmReview([](Review& r) { r.plan.drills.clear(); }); },
            [this] {
                harmReview([](Review& r) {
                    if (!r.plan.drills.empty()) r.plan.drills.front().dose = {};
                });
            },
            [this] { harmReview([this](Review& r) { r.athlete = other.id; }); },
            [this] { // another athlete's film beside a stop that is said
                harmReview([this](Review& r) {
                    r.stops = {walk.review.stops.front()};
                    r.stops[0].beside = Beside{{"rev-theirs"}, 1, 0, 0};
                    r.takes = {{r.stops[0].id, walk.review.takes.at(r.stops[0].id)}};
                });
            },
        };
    }

    /// Everything as it was: what may go out.
    void restore() {
        athlete = walk.athlete;
        submission = walk.submission;
        refusedAtTheDoor = false;
        std::ofstream(filmPath(), std::ios::binary | std::ios::trunc) << film;
        Review r = good;
        r.revision = walk.library->review(walk.review.id)->revision;
        ASSERT_TRUE(walk.library->save(r));
    }

    /// True when it was refused in words and nothing lies in the outbox.
    testing::AssertionResult isRefused() {
        if (refusedAtTheDoor || !test::put(*walk.library, athlete) || !test::put(*walk.library, submission))
            return testing::AssertionSuccess(); // not even kept
        auto session =
            ReviewSession::open(*walk.library, test::playbook(), walk.clock, walk.ids, walk.review.id);
        if (!session) return testing::AssertionSuccess();
        const auto recipe = dispatchRecipe(**session);
        Error why;
        if (recipe) {
            const auto sent =
                sendLetter(*walk.library, *recipe,
                           {{"smtp://127.0.0.1:1", "", "", false, 1}, "a@example.org"}, walk.clock, walk.ids);
            if (sent) return testing::AssertionFailure() << "it went out";
            why = sent.error();
        } else {
            why = recipe.error();
        }
        if (said(why.text).empty()) return testing::AssertionFailure() << "without a word";
        if (!walk.library->outbox()->empty()) return testing::AssertionFailure() << "it lies in the outbox";
        return testing::AssertionSuccess();
    }

    test::Walk walk;
    Review good;
    std::string film;
    Athlete athlete, other;
    Submission submission;
    bool refusedAtTheDoor = false; ///< the library did not take the harm
};

TEST_F(WrongSendings, EachHarmAloneIsRefused) {
    const auto all = harms();
    for (std::size_t i = 0; i < all.size(); ++i) {
        restore();
        all[i]();
        EXPECT_TRUE(isRefused()) << i;
    }
}

TEST_F(WrongSendings, OfAThousandTriesNoneGetsOut) {
    std::mt19937 engine(11);
    const auto all = harms();
    for (int i = 0; i < 1000; ++i) {
        restore();
        const auto count = 1 + engine() % 3;
        for (unsigned n = 0; n < count; ++n) all[engine() % all.size()]();
        ASSERT_TRUE(isRefused()) << i;
    }
    restore();
    EXPECT_TRUE(test::put(*walk.library, athlete) && test::put(*walk.library, submission));
    const auto unharmed = dispatchRecipe(*walk.session()); // it may go
    EXPECT_TRUE(unharmed) << said(unharmed.error().text);
}

} // namespace
} // namespace jg
