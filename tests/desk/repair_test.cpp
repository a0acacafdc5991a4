// SPDX-License-Identifier: GPL-3.0-or-later
// What is wrong with a library is found, told with its repair, and repaired; nothing it touches is lost.
#include "desk/intake/intake.h"
#include "desk/session/review_session.h"
#include "library/library.h"
#include "review/tell/send_check.h"
#include "tests/support/harm.h"
#include "tests/support/walk.h"

#include <fstream>
#include <unistd.h>

namespace jg {
namespace {

namespace fs = std::filesystem;

/// A finished review, and ways to harm it behind the program's back.
struct Harmed {
    test::Walk walk{Stage::Send};
    fs::path folder = walk.library->folder();

    void sql(const std::string& text) { test::harm(folder, text); }
    std::vector<Problem> found() {
        auto problems = walk.library->examine();
        EXPECT_TRUE(problems);
        return *problems;
    }
    /// The only problem there is; `says` is part of it.
    Problem only(const std::string& says) {
        const auto all = found();
        EXPECT_EQ(all.size(), 1U);
        if (all.empty()) return {};
        EXPECT_NE(said(all[0].text).find(says), std::string::npos) << said(all[0].text);
        return all[0];
    }
    void repaired(const Problem& p) {
        const Status done = walk.library->repair(p);
        ASSERT_TRUE(done) << said(done.error().text);
        EXPECT_TRUE(found().empty());
    }
    std::size_t setAside() const {
        std::error_code ec;
        return static_cast<std::size_t>(
            std::distance(fs::directory_iterator(folder / "set-aside", ec), fs::directory_iterator{}));
    }
};

TEST(Repair, AWholeLibraryHasNoProblem) {
    EXPECT_TRUE(Harmed().found().empty());
}

TEST(Repair, EverySingleAlteredLetterIsFound) {
    Harmed h;
    h.sql("UPDATE athletes SET document = replace(document, 'Odalys', 'Odalyt')");
    h.repaired(h.only("altered by something else"));
    h.sql("UPDATE submissions SET document = replace(document, '\"open\"', '\"rear\"')");
    h.repaired(h.only("The submission"));
    h.sql("UPDATE reviews SET document = replace(document, '\"frame\":1', '\"frame\":2')");
    h.repaired(h.only("The review"));
    ASSERT_TRUE(h.walk.library->setSetting("lengths", "in"));
    h.sql("UPDATE settings SET value = 'cm' WHERE key = 'lengths'");
    const Problem p = h.only("The setting lengths");
    EXPECT_NE(said(repairOf(p)).find("as it reads now"), std::string::npos);
    h.repaired(p);
}

TEST(Repair, ARowThatVanishedIsNamed) {
    Harmed h;
    ASSERT_TRUE(h.walk.library->setSetting("lengths", "cm"));
    h.sql("DELETE FROM settings WHERE key = 'lengths'");
    h.repaired(h.only("The setting lengths is gone"));
}

TEST(Repair, AnUnreadableReviewBeginsAnewAndItsTextIsKept) {
    Harmed h;
    const ReviewId id = h.walk.review.id;
    h.sql("UPDATE reviews SET document = substr(document, 1, 200)");
    const Problem p = h.only(id.value);
    EXPECT_EQ(p.repair, Repair::BeginAnew);
    EXPECT_NE(said(repairOf(p)).find("begins anew"), std::string::npos);
    h.repaired(p);
    EXPECT_EQ(h.setAside(), 1U);
    const auto session = ReviewSession::open(*h.walk.library, test::playbook(), h.walk.clock, h.walk.ids, id);
    ASSERT_TRUE(session) << said(session.error().text);
    EXPECT_FALSE((*session)->review().approach().targets.empty());
    EXPECT_EQ((*session)->clip().id, h.walk.submission.clips[0].id);
    EXPECT_TRUE((*session)->setMoment(Moment::Set, 3));
}

TEST(Repair, ASentReviewStaysSentWhenItBeginsAnew) {
    Harmed h;
    ASSERT_TRUE(h.walk.library->markSent(*h.walk.library->review(h.walk.review.id), nullptr,
                                         {test::today(), "someone@example.org"}));
    h.sql("UPDATE reviews SET document = '{'");
    h.repaired(h.only(h.walk.review.id.value));
    const auto review = h.walk.library->review(h.walk.review.id);
    ASSERT_TRUE(review);
    ASSERT_TRUE(review->sent);
    EXPECT_EQ(review->sent->to, "someone@example.org");
}

TEST(Repair, AnUnreadableAthleteKeepsWhatReadsAndGetsNoLetterBeforeTheirBirthDate) {
    Harmed h;
    const Athlete before = *h.walk.library->athlete(h.walk.review.athlete);
    h.sql("UPDATE athletes SET document = replace(document, '\"born\":\"', '\"born\":\"x')");
    const Problem p = h.only(before.id.value);
    EXPECT_EQ(p.repair, Repair::Salvage);
    EXPECT_NE(said(repairOf(p)).find("key E"), std::string::npos);
    h.repaired(p);
    EXPECT_EQ(h.setAside(), 1U);
    const Athlete after = *h.walk.library->athlete(before.id);
    EXPECT_EQ(after.guardianEmail, before.guardianEmail);
    EXPECT_EQ(after.fullName(), before.fullName());
    const auto session =
        ReviewSession::open(*h.walk.library, test::playbook(), h.walk.clock, h.walk.ids, h.walk.review.id);
    ASSERT_TRUE(session) << said(session.error().text);
    const auto problems =
        checkBeforeSending((*session)->review(), (*session)->playbook(), (*session)->assessment(), after,
                           (*session)->submission(), h.walk.clock.today());
    EXPECT_TRUE(std::any_of(problems.begin(), problems.end(), [](const SendProblem& sp) {
        return sp.stop && said(sp.text).find("date of birth") != std::string::npos;
    }));
}

TEST(Repair, AnUnreadableSubmissionKeepsItsFilmsCountsAsPainAndIsLookedAtAgain) {
    Harmed h;
    const Submission before = h.walk.submission;
    h.sql("UPDATE submissions SET document = '{'");
    const Problem p = h.only(before.id.value);
    EXPECT_EQ(p.repair, Repair::Salvage);
    h.repaired(p);
    const auto opened =
        ReviewSession::open(*h.walk.library, test::playbook(), h.walk.clock, h.walk.ids, h.walk.review.id);
    ASSERT_TRUE(opened) << said(opened.error().text);
    ReviewSession& session = **opened;
    EXPECT_TRUE(session.pain());
    EXPECT_NE(said(session.submission().painWords()).find("ask before any throwing"), std::string::npos);
    ASSERT_TRUE(session.clip().unseen());
    const auto looked = lookAtFilm(h.walk.library->mediaPath(session.clip()));
    ASSERT_TRUE(looked);
    ASSERT_TRUE(session.lookedAgain(session.clip().id, *looked));
    EXPECT_EQ(session.clip().frames, before.clips[0].frames);
    EXPECT_EQ(session.clip().width, before.clips[0].width);
    EXPECT_TRUE(h.found().empty());
}

TEST(Repair, ALostTakeIsSaidAgain) {
    Harmed h;
    const auto before = h.walk.library->review(h.walk.review.id);
    ASSERT_FALSE(before->takes.empty());
    fs::resize_file(h.walk.library->takePath(before->takes.begin()->second.file), 100);
    const Problem p = h.only("cut short");
    EXPECT_EQ(p.repair, Repair::SayAgain);
    h.repaired(p);
    EXPECT_EQ(h.walk.library->review(h.walk.review.id)->takes.size(), before->takes.size() - 1);
    EXPECT_EQ(h.setAside(), 1U);
}

TEST(Repair, AMailWithoutItsFileCountsAsNotSent) {
    Harmed h;
    ASSERT_TRUE(test::put(
        *h.walk.library,
        OutboxItem{
            "mail-1", h.walk.review.id, "a@example.org", "Letter", "lost.eml", MailState::Ready, {}, 5}));
    h.repaired(h.only("lost.eml"));
    const auto outbox = h.walk.library->outbox();
    EXPECT_EQ(outbox->front().state, MailState::Refused);
    EXPECT_NE(said(outbox->front().reason).find("Send it again"), std::string::npos);
}

/// A file that has rested for two hours.
void rested(const fs::path& path) {
    std::ofstream(path) << "left over";
    fs::last_write_time(path, fs::file_time_type::clock::now() - std::chrono::hours(2));
}

TEST(Repair, WhatBelongsToNothingIsPutAside) {
    Harmed h;
    rested(h.folder / "takes" / "nobody.wav");
    std::ofstream(h.folder / "media" / "at-work.mp4") << "young";
    h.repaired(h.only("nobody.wav"));
    EXPECT_EQ(h.setAside(), 1U);
    EXPECT_TRUE(fs::exists(h.folder / "media" / "at-work.mp4"));
}

// The film of an intake that broke off, put aside, is not missed afterwards.
TEST(Repair, AFilmThatNoClipIsOfIsPutAsideForGood) {
    Harmed h;
    std::ofstream(h.walk.folder / "film.mp4") << "a film";
    const auto hash = h.walk.library->addMedia(h.walk.folder / "film.mp4");
    ASSERT_TRUE(hash);
    fs::last_write_time(h.folder / "media" / *hash, fs::file_time_type::clock::now() - std::chrono::hours(2));
    h.repaired(h.only(*hash));
    EXPECT_TRUE(fs::exists(h.folder / "set-aside" / *hash));
}

// A version may be taken again; what was said in it is nobody's left-over.
TEST(Repair, TheTakesOfAVersionBesideItsReviewStay) {
    Harmed h;
    Review mine = *h.walk.library->review(h.walk.review.id), theirs = mine;
    ASSERT_FALSE(mine.takes.empty());
    theirs.takes.clear();
    ASSERT_TRUE(h.walk.library->save(theirs));
    ASSERT_FALSE(h.walk.library->save(mine)); // stale: it is kept beside
    for (const auto& [stop, take] : mine.takes)
        fs::last_write_time(h.walk.library->takePath(take.file),
                            fs::file_time_type::clock::now() - std::chrono::hours(2));
    EXPECT_TRUE(h.found().empty());
}

TEST(Repair, AFilmThatIsGoneIsForAPersonToPutBack) {
    Harmed h;
    fs::remove(h.walk.library->mediaPath(h.walk.submission.clips[0]));
    const Problem p = h.only("missing");
    EXPECT_EQ(p.repair, Repair::None);
    EXPECT_FALSE(h.walk.library->repair(p));
    EXPECT_NE(said(repairOf(p)).find("backup"), std::string::npos);
}

TEST(Sweep, PartsOfAKilledProgramGoAndWhatMayBeAtWorkStays) {
    Harmed h;
    rested(h.folder / "media" / ".part-999999-1-film.mp4");
    rested(h.folder / "media" / (".part-" + std::to_string(::getpid()) + "-1-film.mp4"));
    rested(h.folder / "takes" / ".part-rev-1-stop-1-take.wav"); // sound that can still be kept
    std::ofstream(h.folder / "sent" / ".part-999999-1-letter.eml") << "young";
    EXPECT_TRUE(h.walk.library->sweep().empty());
    EXPECT_FALSE(fs::exists(h.folder / "media" / ".part-999999-1-film.mp4"));
    EXPECT_TRUE(fs::exists(h.folder / "media" / (".part-" + std::to_string(::getpid()) + "-1-film.mp4")));
    EXPECT_TRUE(fs::exists(h.folder / "takes" / ".part-rev-1-stop-1-take.wav"));
    EXPECT_TRUE(fs::exists(h.folder / "sent" / ".part-999999-1-letter.eml"));
}

TEST(Sweep, AnIntakeThatBrokeOffIsUndoneAndTold) {
    Harmed h;
    std::ofstream(h.walk.folder / "film.mp4") << "a film";
    const auto hash = h.walk.library->addMedia(h.walk.folder / "film.mp4"); // and the program was killed
    ASSERT_TRUE(hash);
    const fs::path kept = h.folder / "media" / *hash;
    EXPECT_TRUE(h.walk.library->sweep().empty()); // it may be at work still
    fs::last_write_time(kept, fs::file_time_type::clock::now() - std::chrono::hours(2));
    const auto told = h.walk.library->sweep();
    ASSERT_EQ(told.size(), 1U);
    EXPECT_NE(said(told[0]).find("broke off"), std::string::npos) << said(told[0]);
    EXPECT_FALSE(fs::exists(kept));
    EXPECT_TRUE(fs::exists(h.walk.folder / "film.mp4"));
    EXPECT_TRUE(h.found().empty());
}

} // namespace
} // namespace jg
