// SPDX-License-Identifier: GPL-3.0-or-later
// Saving that cannot lose: the writer beside the window, revisions, deliveries with an address.
#include "desk/session/review_keeper.h"

#include "base/caught.h"
#include "desk/jobs/job.h"
#include "desk/session/review_session.h"
#include "review/record/people_check.h"
#include "tests/support/walk.h"

#include <SQLiteCpp/SQLiteCpp.h>

#include <algorithm>
#include <random>
#include <set>
#include <stdexcept>
#include <thread>

namespace jg {
namespace {

using test::turnUntil;
using test::Walk;

std::unique_ptr<ReviewKeeper> writer(Library& library, std::int64_t revision) {
    return std::make_unique<WriterKeeper>(std::move(*library.again()), revision);
}

std::unique_ptr<ReviewSession> sessionWithWriter(Walk& walk) {
    auto opened = ReviewSession::open(*walk.library, test::playbook(), walk.clock, walk.ids,
                                      walk.submission.id, writer);
    EXPECT_TRUE(opened) << said(opened.error().text);
    return std::move(*opened);
}

TEST(Keeper, SaysKeptOnlyWhenItIsOnTheDisk) {
    Walk walk(Stage::Look);
    const auto session = sessionWithWriter(walk);
    const ReviewId id = session->review().id;
    int kept = 0;
    QObject::connect(session.get(), &ReviewSession::keepChanged, [&] {
        if (session->keepState() != KeepState::Kept) return;
        ++kept;
        EXPECT_EQ(walk.library->review(id)->first().moments, session->delivery().moments);
    });
    ASSERT_TRUE(session->setMoment(Moment::Plant, 80));
    EXPECT_EQ(session->keepState(), KeepState::Keeping);
    ASSERT_TRUE(turnUntil([&] { return session->keepState() == KeepState::Kept; }));
    EXPECT_GE(kept, 1);
}

TEST(Keeper, ADragIsOneSave) {
    Walk walk;
    const auto session = walk.session();
    const std::int64_t before = walk.library->review(walk.review.id)->revision;
    const auto [key, mark] = *session->delivery().points.begin();
    session->beginGesture();
    for (int i = 1; i <= 20; ++i) {
        PointMark moved = mark;
        moved.point.at.x += i;
        ASSERT_TRUE(session->perform(asIs("Move"), {SetPoint{key, moved}}));
    }
    EXPECT_EQ(walk.library->review(walk.review.id)->revision,
              before); // nothing is written while it is dragged
    session->endGesture();
    EXPECT_EQ(walk.library->review(walk.review.id)->revision, before + 1);
    EXPECT_EQ(walk.library->review(walk.review.id)->first().points.at(key).point.at.x, mark.point.at.x + 20);
}

TEST(Keeper, WhatStandsOnTheWayIsWrittenBeforeItEnds) {
    Walk walk;
    {
        const auto session = sessionWithWriter(walk);
        for (int i = 0; i < 50; ++i) {
            Plan plan = session->review().plan;
            plan.opening = std::to_string(i);
            ASSERT_TRUE(session->perform(asIs("Write"), {SetPlan{plan}}));
        }
    }
    EXPECT_EQ(walk.library->review(walk.review.id)->plan.opening, "49");
}

TEST(Keeper, TwoWindowsOnOneReviewBothKeepTheirWork) {
    Walk walk;
    const auto first = sessionWithWriter(walk), second = sessionWithWriter(walk);
    const auto write = [](ReviewSession& s, const char* words) {
        Plan plan = s.review().plan;
        plan.opening = words;
        return s.perform(asIs("Write"), {SetPlan{plan}});
    };
    ASSERT_TRUE(write(*first, "the first window's"));
    ASSERT_TRUE(turnUntil([&] { return first->keepState() == KeepState::Kept; }));
    ASSERT_TRUE(write(*second, "the second window's"));
    ASSERT_TRUE(turnUntil([&] { return second->keepState() == KeepState::Elsewhere; }));
    EXPECT_NE(said(second->keepError().text).find("changed elsewhere"), std::string::npos);
    EXPECT_EQ(walk.library->review(walk.review.id)->plan.opening, "the first window's");
    const auto versions = walk.library->versions(walk.review.id);
    ASSERT_EQ(versions->size(), 1U);
    EXPECT_EQ(walk.library->version(versions->front().row)->plan.opening, "the second window's");
    // No more is written on top of it, and that is said.
    EXPECT_FALSE(write(*second, "more"));
    EXPECT_TRUE(write(*first, "goes on"));
}

/// Fails so many times before it keeps.
class Stumbling final : public ReviewKeeper {
public:
    explicit Stumbling(Store& store, std::int64_t revision, int times)
        : ReviewKeeper(revision)
        , store_(store)
        , times_(times) {}
    void keep(Review review, Assessment told) override {
        begin();
        if (times_-- > 0)
            return settle(fail(ErrorCode::DiskFull, asIs("The disk is full. Make room; nothing is lost.")),
                          false);
        review.revision = revision();
        settle(store_.save(review, &told), false);
    }
    void flush() override {}

private:
    Store& store_;
    int times_;
};

TEST(Keeper, AFullDiskIsSaidAndTheNextEditKeepsBoth) {
    Walk walk(Stage::Look);
    auto opened =
        ReviewSession::open(*walk.library, test::playbook(), walk.clock, walk.ids, walk.submission.id,
                            [](Library& l, std::int64_t r) { return std::make_unique<Stumbling>(l, r, 1); });
    ASSERT_TRUE(opened);
    ReviewSession& session = **opened;
    ASSERT_TRUE(session.setMoment(Moment::Plant, 80));
    EXPECT_EQ(session.keepState(), KeepState::NotKept);
    EXPECT_NE(said(session.keepError().text).find("disk is full"), std::string::npos);
    EXPECT_EQ(session.delivery().frameOf(Moment::Plant), 80); // nothing is lost in the window
    ASSERT_TRUE(session.setMoment(Moment::Release, 90));
    EXPECT_EQ(session.keepState(), KeepState::Kept);
    EXPECT_EQ(walk.library->review(session.review().id)->first().frameOf(Moment::Plant), 80);
}

TEST(Addressed, AResultThatComesLateLandsOnTheDeliveryItWasAskedFor) {
    Walk walk;
    const auto session = walk.session();
    ASSERT_TRUE(session->lookAt(session->clip().id, FrameSpan{2, 9}));
    ASSERT_EQ(session->inHand(), 2);
    FollowedPath path;
    path.places = {{3, {1, 2}, 0.5}};
    ASSERT_TRUE(session->perform(Edit{asIs("Follow"), {SetPath{Landmark::BackWrist, path}}, 1}));
    EXPECT_TRUE(session->delivery().paths.empty());
    EXPECT_EQ(session->review().delivery(1)->paths.count(Landmark::BackWrist), 1U);
    // Its delivery is gone: it lands nowhere, and that is said.
    ASSERT_TRUE(session->undo());
    ASSERT_TRUE(session->undo());
    const Status late = session->perform(Edit{asIs("Follow"), {SetPath{Landmark::BackWrist, path}}, 2});
    ASSERT_FALSE(late);
    EXPECT_EQ(late.error().code, ErrorCode::Refused);
    EXPECT_NE(said(late.error().text).find("no longer part"), std::string::npos);
}

TEST(Addressed, WhatIsInHandIsTheWindowsAffair) {
    Walk walk;
    const auto session = walk.session();
    ASSERT_TRUE(session->lookAt(session->clip().id, FrameSpan{2, 9}));
    const Assessment told = session->told();
    EXPECT_EQ(session->review().lead, 1);
    EXPECT_EQ(told.delivery, 1); // the letter tells the lead
    EXPECT_EQ(session->assessment().delivery, 2);
    EXPECT_EQ(walk.session()->inHand(), 1); // another window begins with the lead
    ASSERT_TRUE(session->perform(asIs("Lead"), {SetLead{2}}));
    EXPECT_EQ(session->told().delivery, 1); // while nothing is on the lead, the first that has something
    ASSERT_TRUE(session->perform(asIs("Set"), {SetMoment{Moment::Set, MomentMark{3, ""}}}));
    EXPECT_EQ(session->told().delivery, 2);
}

TEST(Addressed, AGradeKeepsWhatItWasGivenOn) {
    Walk walk(Stage::Judge);
    const auto session = walk.session();
    // An item that a cause joins with a measure that has a number.
    std::string item, measure;
    for (const Cause& c : session->playbook().causes)
        for (const auto& [one, other] : {std::pair{c.from, c.to}, std::pair{c.to, c.from}}) {
            const auto* row = session->assessment().measure(other);
            if (session->playbook().item(one) && row && row->value.value) item = one, measure = other;
        }
    ASSERT_FALSE(item.empty());
    ASSERT_TRUE(session->grade(item, Grade{GradeState::Graded, 2, "", {}}, 81));
    const auto evidence = [&] { return session->review().judging().grade(1, item)->evidence; };
    EXPECT_EQ(evidence().frame, 81);
    EXPECT_EQ(evidence().atUnix, walk.clock.nowUnix());
    const auto seen = [&] {
        for (const SeenNumber& n : evidence().numbers)
            if (n.measure == measure) return n.value;
        return -1.0;
    };
    const double then = seen();
    EXPECT_EQ(then, *session->assessment().measure(measure)->value.value);
    // It stays what it was when the number moves on.
    const auto points = session->delivery().points;
    for (const auto& [key, mark] : points)
        ASSERT_TRUE(session->perform(Edit{asIs("away"), {SetPoint{key, std::nullopt}}, 1}));
    EXPECT_EQ(seen(), then);
}

TEST(Addressed, ANewReviewOfSentFilmsCanBeBegun) {
    Walk walk(Stage::Sent);
    const auto session = walk.session();
    const ReviewId sent = session->review().id;
    const auto refused = session->setMoment(Moment::Set, 3);
    ASSERT_FALSE(refused);
    EXPECT_NE(said(refused.error().text).find("Ctrl+Shift+N"), std::string::npos);
    ASSERT_TRUE(session->beginAnother());
    EXPECT_NE(session->review().id, sent);
    EXPECT_FALSE(session->review().sent);
    EXPECT_FALSE(session->delivery().moments.empty()); // what was marked is not clicked again
    EXPECT_TRUE(session->review().judging().grades.empty());
    Plan plan = session->review().plan;
    plan.opening = "Again";
    ASSERT_TRUE(session->perform(asIs("Write"), {SetPlan{plan}}));
    EXPECT_TRUE(walk.library->review(sent)->sent);
    EXPECT_EQ(walk.library->review(session->review().id)->plan.opening, "Again");
    EXPECT_EQ(walk.library->waiting()->size(), 1U);
}

TEST(Addressed, AReviewIsJudgedByThePlaybookItWasBegunWith) {
    Walk walk(Stage::Judge);
    Playbook later = test::playbook();
    later.text = std::make_shared<const std::string>("a later one");
    for (Approach& a : later.approaches)
        for (Target& t : a.targets) t.x += 40;
    for (MeasureDefinition& m : later.measures) m.name += " (new)";
    auto fresh =
        ReviewSession::open(*walk.library, test::playbook(), walk.clock, walk.ids, walk.submission.id);
    ASSERT_TRUE(fresh);
    const ReviewId id = (*fresh)->review().id;
    ASSERT_TRUE((*fresh)->beginAnother()); // keeps today's playbook with it
    const std::string name = (*fresh)->playbook().measure("leg-spread")->name;
    const ReviewId begun = (*fresh)->review().id;
    fresh->reset();
    auto old = ReviewSession::open(*walk.library, later, walk.clock, walk.ids, begun);
    ASSERT_TRUE(old) << said(old.error().text);
    EXPECT_EQ((*old)->playbook().measure("leg-spread")->name, name);
    EXPECT_EQ((*old)->review().approach(), *test::playbook().approach("load-and-drive"));
    EXPECT_NE(id, begun);
}

// An edit that came while a save was refused once froze the window for good: the writer turned round and
// round with the lock in its hand. Somebody else writes between each of this window's edits here.
TEST(Keeper, EditsThatArriveWhileASaveIsRefusedFreezeNothingAndAreNotLost) {
    Walk walk;
    Review mine = *walk.library->review(walk.review.id);
    const Assessment told = assess(mine, walk.book, walk.submission.clips, walk.athlete.hand);
    WriterKeeper keeper(std::move(*walk.library->again()), mine.revision);
    Review theirs = mine;
    theirs.plan.opening = "theirs";
    ASSERT_TRUE(walk.library->save(theirs, &told));
    std::set<std::string> said_;
    for (int i = 0; i < 40; ++i) { // some while the first is being refused, some after it
        mine.plan.opening = "mine " + std::to_string(i);
        keeper.keep(mine, told);
        if (i % 10 == 9) QCoreApplication::processEvents();
    }
    keeper.flush();
    EXPECT_EQ(keeper.state(), KeepState::Elsewhere);
    mine.plan.opening = "the last";
    keeper.keep(mine, told); // a second keep() returns, and what it brings is kept beside theirs
    keeper.flush();
    EXPECT_EQ(keeper.state(), KeepState::Elsewhere);
    EXPECT_EQ(walk.library->review(mine.id)->plan.opening, "theirs");
    const auto versions = walk.library->versions(mine.id);
    ASSERT_TRUE(versions);
    ASSERT_GE(versions->size(), 2U);
    EXPECT_EQ(walk.library->version(versions->back().row)->plan.opening, "the last");
}

TEST(Keeper, AReloadNeverDropsWhatIsNotOnTheDiskYet) {
    Walk walk(Stage::Look);
    auto opened =
        ReviewSession::open(*walk.library, walk.book, walk.clock, walk.ids, walk.submission.id, writer);
    ASSERT_TRUE(opened);
    ReviewSession& session = **opened;
    // Another program holds the database, so that nothing can be written for a while.
    SQLite::Database blocker((walk.library->folder() / "library.sqlite").string(), SQLite::OPEN_READWRITE);
    blocker.exec("BEGIN IMMEDIATE");
    ASSERT_TRUE(session.setMoment(Moment::Plant, 80));
    ASSERT_TRUE(turnUntil([&] { return session.keepState() == KeepState::NotKept; }, 30000));
    const Status reloaded = session.reload();
    EXPECT_FALSE(reloaded);
    EXPECT_EQ(session.delivery().frameOf(Moment::Plant), 80);
    blocker.exec("ROLLBACK");
    ASSERT_TRUE(turnUntil([&] { return session.keepState() == KeepState::Kept; }, 30000));
    ASSERT_TRUE(session.reload());
    EXPECT_EQ(session.delivery().frameOf(Moment::Plant), 80);
}

TEST(Job, WhatIsThrownEndsTheJobAndNotTheProgram) {
    QObject owner;
    bool finished = false;
    Message why;
    auto* job = new Job(
        &owner, [&](std::stop_token, const Job::Progress&) -> Job::Continuation { throw std::bad_alloc(); });
    QObject::connect(job, &Job::broke, &owner, [&](const Message& message) { why = message; });
    QObject::connect(job, &Job::finished, &owner, [&] { finished = true; });
    ASSERT_TRUE(turnUntil([&] { return finished; }));
    EXPECT_NE(said(why).find("memory"), std::string::npos) << said(why);
    const auto result = caught([]() -> Result<int> { throw std::runtime_error("a library's own words"); });
    ASSERT_FALSE(result);
    EXPECT_EQ(said(result.error().text).find("own words"), std::string::npos);
}

// Two windows and a third program change athletes, consents, promises, settings, schedules and submissions at
// random: nothing is lost, nothing that was taken back comes back.
TEST(Changes, OfThreeProgramsNoneUndoesWhatAnotherDid) {
    Walk walk{Stage::Look};
    const int each = std::getenv("JUXTAGRAPH_LONG") ? 2000 : 250;
    constexpr int kPrograms = 3;
    ASSERT_TRUE(walk.library->add(Promise{walk.athlete.id, asIs("Front view"), test::today()}));
    const std::int64_t promise = walk.library->promises()->front().row;
    const auto work = [&](int me) {
        const auto own = std::move(*walk.library->again());
        std::mt19937 dice(static_cast<unsigned>(me));
        for (int i = 0; i < each; ++i) {
            const std::string mark = std::to_string(me) + "-" + std::to_string(i);
            const Athlete held = *own->athlete(walk.athlete.id);
            switch (dice() % 5) {
            case 0: { // a form, open for a while
                Athlete typed = held;
                addOuting(typed, {addDays(test::today(), -i), me * 1000 + i % 250, mark});
                EXPECT_TRUE(own->change(held.id, [&](Athlete& now) {
                    return applyEdit({held, typed}, now);
                }));
                break;
            }
            case 1:
                EXPECT_TRUE(own->put(ListOf::DueMails, "mail-" + mark, "{}"));
                break;
            case 2:
                EXPECT_TRUE(own->add(Promise{walk.athlete.id, asIs(mark), test::today()}));
                break;
            case 3:
                EXPECT_TRUE(own->setSetting("storm." + mark, mark));
                break;
            default:
                EXPECT_TRUE(own->change(promise,
                                        [&](Promise& p) -> Status { return p.words += mark + " ", Done{}; }));
            }
            if (me == 0 && i == each / 2) { // in the middle the consent is taken back, once
                EXPECT_TRUE(own->change(walk.athlete.id, [](Athlete& a) -> Status {
                    if (!a.consent)
                        a.consent = Consent{true, true, true, "Ruth", true, test::today(), {}, {}};
                    a.consent->takenBack = test::today();
                    return Done{};
                }));
            }
        }
    };
    {
        std::vector<std::jthread> programs;
        for (int me = 0; me < kPrograms; ++me) programs.emplace_back([&, me] { work(me); });
    }
    int outings = 0, mails = 0, promises = 0, settings = 0, words = 0;
    for (int me = 0; me < kPrograms; ++me) {
        std::mt19937 same(static_cast<unsigned>(me));
        for (int i = 0; i < each; ++i) {
            int* const counts[] = {&outings, &mails, &promises, &settings, &words};
            ++*counts[same() % 5];
        }
    }
    const Athlete now = *walk.library->athlete(walk.athlete.id);
    EXPECT_TRUE(now.consent && now.consent->takenBack) << "a consent came back";
    EXPECT_EQ(static_cast<int>(now.outings.size()), outings);
    EXPECT_EQ(static_cast<int>(walk.library->rows(ListOf::DueMails)->size()), mails);
    EXPECT_EQ(static_cast<int>(walk.library->promises()->size()), promises + 1);
    const auto all = walk.library->promises();
    for (const Promise& p : *all)
        if (p.row == promise) {
            EXPECT_EQ(std::count(p.words.begin(), p.words.end(), ' '), words);
        }
    EXPECT_TRUE(walk.library->verify().empty());
}

} // namespace
} // namespace jg
