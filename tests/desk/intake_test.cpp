// SPDX-License-Identifier: GPL-3.0-or-later
// Films as they come in: kept whole, waited for, refused without a trace.
#include "desk/intake/intake.h"
#include "desk/intake/people_changes.h"
#include "desk/keeping/backup_reminder.h"
#include "library/backup.h"
#include "tests/support/walk.h"

#include <fstream>
#include <thread>

namespace jg {
namespace {

using test::TempFolder;
using test::Walk;

TEST(Intake, KeepsTheOriginalAndSaysWhatTheFilmCannotAnswer) {
    Walk walk(Stage::Look);
    const Clip& c = walk.submission.clips.at(0);
    EXPECT_EQ(*contentHash(walk.folder / "film.mp4"), c.mediaHash);
    EXPECT_EQ(*contentHash(walk.library->mediaPath(c)), c.mediaHash);
    EXPECT_EQ(c.captureSource, "stated");
    EXPECT_FALSE(c.check.empty());
    EXPECT_TRUE(std::filesystem::exists(walk.library->stillPath(c)));
    EXPECT_TRUE(walk.library->verify().empty());
}

TEST(Intake, NothingIsStoredWhenAFilmIsRefused) {
    Walk walk(Stage::Look);
    std::ofstream(walk.folder / "letter.mp4") << "no film";
    EXPECT_FALSE(lookAtFilm(walk.folder / "letter.mp4"));
    IntakeForm form;
    form.athlete = walk.athlete.id;
    EXPECT_EQ(takeIn(*walk.library, form, {}, walk.clock, walk.ids).error().code, ErrorCode::BadInput);
    form.films = {{walk.folder / "film.mp4", View::Open, 0}};
    form.athlete = {"nobody"};
    EXPECT_FALSE(takeIn(*walk.library, form, {*lookAtFilm(walk.folder / "film.mp4")}, walk.clock, walk.ids));
    EXPECT_EQ(walk.library->submissions()->size(), 1U);
}

TEST(Intake, AFilmOfAnotherAthleteIsAskedAboutAndNotTakenIn) {
    Walk walk(Stage::Look);
    Athlete other = walk.athlete;
    other.id = walk.ids.next<AthleteTag>("ath");
    other.firstName = "Wren";
    ASSERT_TRUE(test::put(*walk.library, other));
    const auto film = walk.folder / "film.mp4";
    IntakeForm form;
    form.athlete = other.id;
    form.films = {{film, View::Open, 60}};
    const auto refused = takeIn(*walk.library, form, {*lookAtFilm(film)}, walk.clock, walk.ids);
    ASSERT_FALSE(refused);
    EXPECT_NE(said(refused.error().text).find("Odalys Brandt"), std::string::npos)
        << said(refused.error().text);
    EXPECT_EQ(walk.library->submissions()->size(), 1U);
    EXPECT_TRUE(walk.library->verify().empty()); // the film of the first is still there
    form.athlete = walk.athlete.id; // for its own athlete it is asked about, and taken once more on a yes
    const auto asked = takeIn(*walk.library, form, {*lookAtFilm(film)}, walk.clock, walk.ids);
    ASSERT_FALSE(asked);
    EXPECT_EQ(asked.error().code, ErrorCode::NeedsYes);
    EXPECT_EQ(walk.library->submissions()->size(), 1U);
    form.onceMore = true;
    const auto again = takeIn(*walk.library, form, {*lookAtFilm(film)}, walk.clock, walk.ids);
    EXPECT_TRUE(again) << said(again.error().text);
}

TEST(Intake, NothingIsTakenInOfWhoMayNotBeFilmed) {
    Walk walk(Stage::Look);
    const auto film = walk.folder / "film.mp4";
    const auto looked = lookAtFilm(film);
    ASSERT_TRUE(looked);
    IntakeForm form;
    form.athlete = walk.athlete.id;
    form.films = {{film, View::Open, 60}};
    walk.athlete.consent->takenBack = test::today();
    ASSERT_TRUE(test::put(*walk.library, walk.athlete));
    const auto refused = takeIn(*walk.library, form, {*looked}, walk.clock, walk.ids);
    ASSERT_FALSE(refused);
    EXPECT_EQ(refused.error().code, ErrorCode::Refused);
    EXPECT_NE(said(refused.error().text).find("taken back"), std::string::npos) << said(refused.error().text);
    EXPECT_EQ(walk.library->submissions()->size(), 1U);
    walk.athlete.consent.reset(); // nothing on record is no refusal: it is asked for before sending
    ASSERT_TRUE(test::put(*walk.library, walk.athlete));
    form.onceMore = true; // the walk's own film
    const auto taken = takeIn(*walk.library, form, {*looked}, walk.clock, walk.ids);
    EXPECT_TRUE(taken) << said(taken.error().text);
}

/// Copies a film piece by piece, as over a slow cable; the first half is there at once.
class SlowCopy {
public:
    SlowCopy(const std::filesystem::path& from, std::filesystem::path to)
        : bytes_(bytesOf(from))
        , to_(std::move(to)) {
        write(0, bytes_.size() / 2);
        rest_ = std::thread([this] {
            constexpr std::size_t kPieces = 8;
            const std::size_t half = bytes_.size() / 2, left = bytes_.size() - half;
            for (std::size_t i = 0; i < kPieces; ++i) {
                std::this_thread::sleep_for(std::chrono::milliseconds(100));
                write(half + i * left / kPieces, half + (i + 1) * left / kPieces);
            }
        });
    }
    ~SlowCopy() { rest_.join(); }

private:
    static std::string bytesOf(const std::filesystem::path& path) {
        std::ifstream in(path, std::ios::binary);
        return {std::istreambuf_iterator<char>(in), {}};
    }
    void write(std::size_t first, std::size_t end) {
        std::ofstream(to_, std::ios::binary | std::ios::app)
            .write(bytes_.data() + first, static_cast<std::streamsize>(end - first));
    }

    std::string bytes_;
    std::filesystem::path to_;
    std::thread rest_;
};

TEST(Intake, AFilmThatIsStillBeingCopiedIsWaitedFor) {
    const TempFolder folder;
    ASSERT_TRUE(makeFilm(test::smallOrder(), folder / "whole.mp4"));
    const auto whole = lookAtFilm(folder / "whole.mp4");
    ASSERT_TRUE(whole);
    const SlowCopy copy(folder / "whole.mp4", folder / "coming.mp4");
    const auto looked = lookAtFilm(folder / "coming.mp4");
    ASSERT_TRUE(looked) << said(looked.error().text);
    EXPECT_EQ(looked->info.frames(), whole->info.frames());
    EXPECT_EQ(std::filesystem::file_size(folder / "coming.mp4"),
              std::filesystem::file_size(folder / "whole.mp4"));
}

TEST(Intake, WaitingForACopyCanBeStopped) {
    const TempFolder folder;
    ASSERT_TRUE(makeFilm(test::smallOrder(), folder / "whole.mp4"));
    std::stop_source stop;
    stop.request_stop();
    const SlowCopy copy(folder / "whole.mp4", folder / "coming.mp4");
    const auto looked = lookAtFilm(folder / "coming.mp4", {}, stop.get_token());
    ASSERT_FALSE(looked);
    EXPECT_EQ(looked.error().code, ErrorCode::Cancelled);
}

TEST(PeopleChanges, PainIsClosedOnceAndInTheFirstWords) {
    test::Walk walk(Stage::Look, Hand::Right, 15, "Elbow sore");
    ASSERT_TRUE(closePain(*walk.library, walk.submission.id, "Seen by her doctor", test::today()));
    ASSERT_TRUE(closePain(*walk.library, walk.submission.id, "Later words", addDays(test::today(), 1)));
    const auto now = walk.library->submission(walk.submission.id);
    ASSERT_TRUE(now && now->painClosed);
    EXPECT_EQ(now->painClosed->words, "Seen by her doctor");
    EXPECT_EQ(now->painClosed->on, test::today());
}

TEST(PeopleChanges, AFieldIsKeptAndAGuardianThatIsNoneRefused) {
    test::Walk walk(Stage::Look);
    AthleteEdit edit{walk.athlete, walk.athlete};
    edit.typed.level = "High school";
    ASSERT_TRUE(keepAthlete(*walk.library, edit, test::today()));
    EXPECT_EQ(walk.library->athlete(walk.athlete.id)->level, "High school");
    edit = {*walk.library->athlete(walk.athlete.id), *walk.library->athlete(walk.athlete.id)};
    Athlete child = walk.athlete;
    child.id = walk.ids.next<AthleteTag>("ath");
    child.email = "another.child@example.org";
    ASSERT_TRUE(test::put(*walk.library, child));
    edit.typed.guardianEmail = child.email;
    EXPECT_FALSE(keepAthlete(*walk.library, edit, test::today()));
    EXPECT_EQ(walk.library->athlete(walk.athlete.id)->guardianEmail, walk.athlete.guardianEmail);
}

TEST(BackupReminder, ComesWhenThereIsWorkToLose) {
    test::Walk walk(Stage::Judge);
    constexpr std::int64_t now = 1'795'000'000, day = 86400;
    EXPECT_TRUE(backupReminder(*walk.library, now).empty()); // one review
    for (const char* name : {"a", "b", "c", "d"}) test::keepEarlier(walk, name, 30);
    EXPECT_EQ(backupReminder(*walk.library, now).id, "backup-reminder.never");
    ASSERT_TRUE(backUp(*walk.library, walk.folder / "backup", now));
    EXPECT_TRUE(backupReminder(*walk.library, now + 14 * day).empty());
    EXPECT_EQ(backupReminder(*walk.library, now + 16 * day).id, "backup-reminder.old");
}

TEST(PromiseChoices, RiseAndAreSaid) {
    int last = -1;
    for (const PromiseChoice& c : promiseChoices()) {
        EXPECT_GT(c.days, last);
        last = c.days;
        EXPECT_EQ(said(c.words).find("\u2039"), std::string::npos) << said(c.words);
    }
}

} // namespace
} // namespace jg
