// SPDX-License-Identifier: GPL-3.0-or-later
// The store as what stands above it uses it: revisions, versions, results, lists.
#include "library/store.h"

#include "library/library.h"
#include "review/assess/assess.h"
#include "review/record/review_json.h"
#include "tests/support/fixtures.h"

#include <fstream>

namespace jg {
namespace {

using test::TempFolder;

/// A library with one athlete, one film and one review, seen through the seam alone.
class StoreTest : public testing::Test {
protected:
    void SetUp() override {
        auto library = Library::open(folder / "lib", true, std::make_shared<FileStore>());
        ASSERT_TRUE(library);
        std::ofstream(folder / "film.mp4") << "pretend film";
        auto hash = (*library)->addMedia(folder / "film.mp4");
        ASSERT_TRUE(hash);
        clip.id = {"clip-1"};
        clip.athlete = {"ath-1"};
        clip.mediaHash = *hash;
        clip.extension = ".mp4";
        clip.captureFps = 120;
        clip.frames = 300;
        clip.width = 1280;
        clip.height = 720;
        opened = std::move(*library);
        Athlete wren;
        wren.id = {"ath-1"};
        wren.firstName = "Wren";
        wren.lastName = "Castellane";
        wren.born = *parseIsoDate("2013-03-09");
        submission.id = {"sub-1"};
        submission.athlete = wren.id;
        submission.received = test::today();
        submission.clips = {clip};
        ASSERT_TRUE(test::put(store(), submission, &wren));
        review.id = {"rev-1"};
        review.submission = submission.id;
        review.athlete = wren.id;
        review.date = test::today();
        review.first().clip = clip.id;
        review.judging().approach = *test::playbook().approach("load-and-drive");
        const auto revision = store().save(review);
        ASSERT_TRUE(revision) << said(revision.error().text);
        review.revision = *revision;
    }

    Store& store() { return *opened; }

    Review withOpening(const std::string& words) const {
        Review r = review;
        r.plan.opening = words;
        return r;
    }

    TempFolder folder;
    std::unique_ptr<Library> opened;
    Clip clip;
    Submission submission;
    Review review;
};

TEST_F(StoreTest, ARevisionGrowsWithEverySave) {
    EXPECT_EQ(review.revision, 1);
    EXPECT_EQ(*store().save(withOpening("a")), 2);
    Review second = withOpening("b");
    second.revision = 2;
    EXPECT_EQ(*store().save(second), 3);
    EXPECT_EQ(store().review(review.id)->revision, 3);
    EXPECT_EQ(store().review(review.id)->plan.opening, "b");
}

TEST_F(StoreTest, WhoWritesOnAnOlderRevisionIsRefusedAndBothAreKept) {
    ASSERT_TRUE(store().save(withOpening("mine")));
    const auto late = store().save(withOpening("theirs")); // read before mine was kept
    ASSERT_FALSE(late);
    EXPECT_EQ(late.error().code, ErrorCode::Stale);
    EXPECT_NE(said(late.error().text).find("changed elsewhere"), std::string::npos);
    EXPECT_EQ(store().review(review.id)->plan.opening, "mine");
    const auto versions = store().versions(review.id);
    ASSERT_EQ(versions->size(), 1U);
    EXPECT_EQ(versions->front().base, 1);
    EXPECT_EQ(store().version(versions->front().row)->plan.opening, "theirs");
    // The coach chooses the other: it takes the place, and what stood there is kept in its turn.
    ASSERT_TRUE(store().takeVersion(versions->front().row));
    EXPECT_EQ(store().review(review.id)->plan.opening, "theirs");
    ASSERT_EQ(store().versions(review.id)->size(), 1U);
    EXPECT_EQ(store().version(store().versions(review.id)->front().row)->plan.opening, "mine");
    EXPECT_EQ(store().takeVersion(99).error().code, ErrorCode::NotFound);
}

TEST_F(StoreTest, AReviewSentWhileItIsOpenStaysSent) {
    ASSERT_TRUE(store().markSent(*store().review(review.id), nullptr, {test::today(), "a@example.org"}));
    const auto edited = store().save(withOpening("after")); // by the window that had it open
    EXPECT_EQ(edited.error().code, ErrorCode::Stale);
    EXPECT_EQ(store().review(review.id)->sent->to, "a@example.org");
    EXPECT_EQ(
        store().markSent(*store().review(review.id), nullptr, {test::today(), "b@example.org"}).error().code,
        ErrorCode::Refused);
    EXPECT_EQ(store().review(review.id)->sent->to, "a@example.org");
    // Not even the version that was kept can take the place of what went out.
    const auto versions = store().versions(review.id);
    ASSERT_EQ(versions->size(), 1U);
    EXPECT_EQ(store().takeVersion(versions->front().row).error().code, ErrorCode::Refused);
}

TEST_F(StoreTest, ANewReviewNeverTakesThePlaceOfOneWithItsId) {
    Review other = withOpening("other");
    other.revision = 0;
    EXPECT_EQ(store().save(other).error().code, ErrorCode::Stale);
    EXPECT_EQ(store().review(review.id)->plan.opening, "");
}

TEST_F(StoreTest, ResultsAreKeptAsTheyWereComputed) {
    Review r = review;
    DeliveryMarks& d = r.first();
    d.moments[Moment::Plant] = {174, ""};
    d.points[{174, Landmark::BackAnkle}] = {{{470, 590}, 2}, ""};
    d.points[{174, Landmark::Pelvis}] = {{{660, 430}, 2}, ""};
    d.points[{174, Landmark::LeadAnkle}] = {{{850, 600}, 2}, ""};
    r.judging().grades[{1, "load-shared"}] = {GradeState::Graded, 4, "late", {174, {}, 12}};
    const Assessment told = assess(r, test::playbook(), clip, Hand::Right);
    ASSERT_TRUE(told.measure("leg-spread")->value.value);
    ASSERT_TRUE(store().save(r, &told));
    const auto kept = store().results(r.id);
    ASSERT_TRUE(kept && *kept);
    EXPECT_EQ(toJson(**kept), toJson(told)); // to the last digit
    EXPECT_EQ((*kept)->measure("leg-spread")->value.value, told.measure("leg-spread")->value.value);
    EXPECT_EQ((*kept)->measure("leg-spread")->judgement.verdict,
              told.measure("leg-spread")->judgement.verdict);
    EXPECT_EQ((*kept)->items.front().grade, told.items.front().grade);
    const auto of = store().reviewsOf(r.athlete);
    ASSERT_EQ(of->size(), 1U);
    EXPECT_EQ(of->front().approach, "load-and-drive");
    ASSERT_TRUE(of->front().summary.counts);
    EXPECT_EQ(of->front().summary.counts->positions, told.counts.positions);
}

TEST_F(StoreTest, WhatIsDerivedLiesBesideAndComesBackWithItsDelivery) {
    Review r = review;
    FollowedPath path;
    path.places = {{3, {1, 2}, 0.5}, {4, {2, 3}, 0.5}};
    r.first().paths[Landmark::BackWrist] = path;
    r.first().shake = CameraShake{3, {{4, {0.5, 0.25}}}, 0.2, true};
    ASSERT_TRUE(store().save(r));
    EXPECT_EQ(toJson(r).find("places"), std::string::npos); // the document has none of it
    const auto back = store().review(r.id);
    EXPECT_EQ(back->first().paths, r.first().paths);
    EXPECT_EQ(back->first().shake, r.first().shake);
    // A delivery that looks at another film now does not get it.
    Review other = *back;
    other.first().clip = {"clip-2"};
    other.first().paths.clear();
    other.first().shake.reset();
    ASSERT_TRUE(store().save(other));
    EXPECT_TRUE(store().review(r.id)->first().paths.empty());
}

TEST_F(StoreTest, WaitingListsWhatHasNoAnswerAndASecondReviewOpensItAgain) {
    ASSERT_EQ(store().waiting()->size(), 1U);
    EXPECT_EQ(store().waiting()->front().review->id, review.id);
    ASSERT_TRUE(store().markSent(*store().review(review.id), nullptr, {test::today(), "a@example.org"}));
    EXPECT_TRUE(store().waiting()->empty());
    EXPECT_EQ(store().sentSince(test::today())->size(), 1U);
    EXPECT_TRUE(store().sentSince(addDays(test::today(), 1))->empty());
    Review next = review;
    next.id = {"rev-2"};
    next.revision = 0;
    ASSERT_TRUE(store().save(next));
    ASSERT_EQ(store().waiting()->size(), 1U);
    EXPECT_EQ(store().reviewOf(submission.id)->value().id.value, "rev-2");
}

TEST_F(StoreTest, AthletesAreFoundByAnyWordOfTheirNameInAnyCase) {
    Athlete other;
    other.id = {"ath-2"};
    other.firstName = "\u00c9lodie";
    other.lastName = "Wrenfield 100%";
    other.born = *parseIsoDate("2010-01-01");
    ASSERT_TRUE(test::put(store(), other));
    const auto found = [&](const std::string& words) {
        std::vector<std::string> ids;
        const auto rows = store().athleteRows(words);
        for (const AthleteRow& r : *rows) ids.push_back(r.athlete.id.value);
        std::sort(ids.begin(), ids.end());
        return ids;
    };
    using Ids = std::vector<std::string>;
    EXPECT_EQ(found("WREN"), (Ids{"ath-1", "ath-2"}));
    EXPECT_EQ(found("cast wren"), Ids{"ath-1"});
    EXPECT_EQ(found("\u00e9LO"), Ids{"ath-2"});
    EXPECT_EQ(found("%"), Ids{"ath-2"}); // a sign like any other
    EXPECT_TRUE(found("_").empty());
    EXPECT_EQ(found("").size(), 2U);
    EXPECT_EQ(*store().athleteCount(), 2);
    EXPECT_EQ(store().athleteRows("castellane")->front().reviews, 1);
}

TEST_F(StoreTest, AnAthleteIsNewWithTheirFilmsOrNotAtAll) {
    Athlete fresh;
    fresh.id = {"ath-3"};
    fresh.firstName = "Noor";
    fresh.born = *parseIsoDate("2011-05-05");
    Submission s = submission;
    s.id = {"sub-3"};
    s.athlete = fresh.id;
    s.clips[0].id = {"clip-3"};
    s.clips[0].mediaHash = "no such film"; // the database refuses it
    EXPECT_FALSE(test::put(store(), s, &fresh));
    EXPECT_EQ(store().athlete(fresh.id).error().code, ErrorCode::NotFound);
    EXPECT_EQ(store().submission(s.id).error().code, ErrorCode::NotFound);
}

TEST_F(StoreTest, PlaybooksAreKeptOnceUnderTheirContent) {
    const auto one = store().keepPlaybook("some text"), again = store().keepPlaybook("some text");
    ASSERT_TRUE(one && again);
    EXPECT_EQ(*one, *again);
    EXPECT_EQ(*store().playbookText(*one), "some text");
    EXPECT_EQ(store().playbookText("none").error().code, ErrorCode::NotFound);
}

TEST_F(StoreTest, PromisesAreOpenUntilSettled) {
    ASSERT_TRUE(test::put(store(), Promise{{"ath-1"}, asIs("Front view asked for"), test::today()}));
    auto open = store().openPromises(addDays(test::today(), 400));
    ASSERT_EQ(open->size(), 1U);
    open->front().kept = Kept::Kept;
    ASSERT_TRUE(test::put(store(), open->front()));
    EXPECT_TRUE(store().openPromises(addDays(test::today(), 400))->empty());
    EXPECT_EQ(store().promisesTo({"ath-1"})->size(), 1U);
    EXPECT_TRUE(store().promisesTo({"ath-2"})->empty());
}

TEST_F(StoreTest, AnotherStoreOfTheSameLibrarySeesWhatWasKept) {
    auto second = opened->again();
    ASSERT_TRUE(second);
    ASSERT_TRUE((*second)->save(withOpening("from the other window")));
    EXPECT_EQ(store().review(review.id)->plan.opening, "from the other window");
    EXPECT_EQ(store().save(withOpening("from this one")).error().code, ErrorCode::Stale);
}

TEST_F(StoreTest, AWriteProtectedLibraryOpensToReadAndSaysSo) {
    opened.reset();
    const auto lib = folder / "lib";
    namespace fs = std::filesystem;
    const auto set = [&](fs::perms p) {
        fs::permissions(lib, p);
        for (const char* name : {"library.sqlite"}) fs::permissions(lib / name, p & ~fs::perms::owner_exec);
    };
    fs::permissions(folder.path(), fs::perms::owner_all | fs::perms::group_all | fs::perms::others_all);
    set(fs::perms::owner_read | fs::perms::owner_exec | fs::perms::group_read | fs::perms::group_exec |
        fs::perms::others_read | fs::perms::others_exec);
    {
        const test::AsNobody nobody;
        auto library = Library::open(lib, false, std::make_shared<FileStore>());
        ASSERT_TRUE(library) << said(library.error().text);
        EXPECT_TRUE((*library)->readOnly());
        EXPECT_EQ((*library)->review(review.id)->revision, 1);
        const auto refused = (*library)->save(withOpening("x"));
        ASSERT_FALSE(refused);
        EXPECT_EQ(refused.error().code, ErrorCode::Refused);
        EXPECT_NE(said(refused.error().text).find("only be read"), std::string::npos);
    }
    set(fs::perms::owner_all | fs::perms::others_read | fs::perms::others_exec);
}

} // namespace
} // namespace jg
