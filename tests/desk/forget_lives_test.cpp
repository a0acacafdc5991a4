// SPDX-License-Identifier: GPL-3.0-or-later
// An athlete's life in a library, at random, and then deleted: nothing of them is left in any file or row.
#include "desk/intake/scrub_maker.h"
#include "desk/own/phrases.h"
#include "desk/sending/due_mails.h"
#include "desk/sending/outgoing.h"
#include "library/backup.h"
#include "tests/support/harm.h"
#include "tests/support/walk.h"
#include "voice/audio_file.h"

#include <fstream>
#include <random>

namespace jg {
namespace {

namespace fs = std::filesystem;
using test::Walk;

/// Everything by which the athlete could be known afterwards.
std::vector<std::string> marksOf(const Walk& walk) {
    std::vector<std::string> marks = {walk.athlete.id.value, walk.submission.id.value, walk.review.id.value,
                                      walk.athlete.lastName, walk.athlete.guardianEmail};
    for (const Clip& c : walk.submission.clips) marks.insert(marks.end(), {c.id.value, c.mediaHash});
    std::erase_if(marks, [](const std::string& m) { return m.size() < 5; });
    return marks;
}

/// The first file below a folder whose name or bytes hold a mark.
std::optional<std::string> trace(const fs::path& folder, const std::vector<std::string>& marks) {
    for (const auto& e : fs::recursive_directory_iterator(folder)) {
        const std::string name = e.path().filename().string();
        const auto bytes = e.is_regular_file() ? readFile(e.path()) : Result<std::string>(std::string());
        for (const std::string& mark : marks)
            if (name.find(mark) != name.npos || (bytes && bytes->find(mark) != bytes->npos))
                return e.path().string() + " holds " + mark;
    }
    return std::nullopt;
}

/// Something that happens in a library, by number.
void happen(Walk& walk, unsigned what, const fs::path& backup) {
    Library& library = *walk.library;
    const fs::path lib = library.folder();
    const Clip& clip = walk.submission.clips[0];
    const std::string stop = walk.review.stops.front().id.value;
    const auto leave = [](const fs::path& file, const std::string& text) {
        fs::create_directories(file.parent_path());
        std::ofstream(file) << text;
    };
    switch (what) {
    case 0: // a take was broken off by a kill
        return leave(library.unfinishedTakePath(walk.review.id.value + "-" + stop + "-7-1.wav"), "RIFF");
    case 1: // a take of a state that nobody has any more
        return leave(library.takePath(walk.review.id.value + "-" + stop + "-7-2.wav"), "RIFF");
    case 2: // a repair set things aside
        leave(lib / "set-aside" / ("reviews-" + walk.review.id.value + ".json"), "{}");
        return leave(lib / "set-aside" / "text.json", "{\"athlete\": \"" + walk.athlete.fullName() + "\"}");
    case 3: // the stand-in post office took a mail
        return leave(lib / "post-office" / "20261201-1.eml",
                     "Message-ID: <" + walk.review.id.value + ".1@juxtagraph.invalid>");
    case 4: // a letter lies in the outbox, due later
        leave(library.sentPath("mail-1.eml"), "To: " + walk.athlete.guardianEmail);
        ASSERT_TRUE(test::put(library, OutboxItem{"mail-1",
                                                  walk.review.id,
                                                  walk.athlete.guardianEmail,
                                                  walk.athlete.firstName,
                                                  "mail-1.eml",
                                                  MailState::Ready,
                                                  {},
                                                  5}));
        ASSERT_TRUE(setDue(library, "mail-1", {99, 0}));
        return;
    case 5: // a mail whose row was lost
        return leave(library.sentPath("mail-lost.eml"),
                     "Message-ID: <" + walk.review.id.value + ".2@juxtagraph.invalid>");
    case 6: // a scrub copy stands, and a second one by another ending was left
        leave(library.scrubPath(clip), "mjpeg");
        return leave(lib / "media" / (clip.mediaHash + ".MOV"), "film");
    case 7: // a phrase speaks of them
        ASSERT_TRUE(
            rememberPhrase(library, "why:front-knee", walk.athlete.lastName + ", your leg is the wall."));
        ASSERT_TRUE(rememberPhrase(library, "why:front-knee", "Your leg is the wall."));
        return;
    case 8: // a version beside the review
        ASSERT_FALSE(library.save(walk.review));
        return;
    case 9:
        ASSERT_TRUE(library.add(
            Promise{walk.athlete.id, asIs("Front view of " + walk.athlete.lastName), test::today()}));
        return;
    case 10: // a program was killed at work
        return leave(lib / "work" / "job-gone" / (walk.athlete.lastName + ".pdf"), "letter");
    case 11: // a row whose file name leads elsewhere
        leave(lib.parent_path() / "precious.txt", "precious");
        ASSERT_TRUE(test::put(library, OutboxItem{"mail-2",
                                                  walk.review.id,
                                                  "a@example.org",
                                                  "x",
                                                  "../../precious.txt",
                                                  MailState::Sent,
                                                  {},
                                                  5}));
        return;
    default:
        ASSERT_TRUE(backUp(library, backup, 1796000000 + what));
    }
}

TEST(ForgetLives, NothingOfAnAthleteIsLeftWhateverHappened) {
    const int lives = std::getenv("JUXTAGRAPH_LONG") ? 100 : 6;
    std::mt19937 dice(8);
    for (int life = 0; life < lives; ++life) {
        Walk walk{Stage::Send};
        walk.athlete = *walk.library->change(walk.athlete.id, [](Athlete& a) -> Status {
            a.lastName = "Merrickson";
            a.guardianEmail = "guardian.of.merrickson@example.org";
            return Done{};
        });
        Athlete other = walk.athlete; // who stays
        other.id = {"ath-other"};
        other.firstName = "Pia";
        other.lastName = "Thorsgaard";
        other.guardianEmail = "pia.guardian@example.org";
        ASSERT_TRUE(walk.library->add(other));
        Review next = walk.review;
        next.revision = walk.library->review(walk.review.id)->revision;
        ASSERT_TRUE(walk.library->save(next)); // what is held is an older state from here on
        std::vector<std::string> story;
        const bool all = life == 0;
        for (unsigned what = 0; what < 13; ++what)
            if (all || dice() % 2 == 0) {
                happen(walk, what, walk.folder / "backup");
                story.push_back(std::to_string(what));
            }
        const auto left = walk.library->forgetAthlete(walk.athlete.id, test::today());
        ASSERT_TRUE(left) << said(left.error().text);
        const auto found = trace(walk.library->folder(), marksOf(walk));
        EXPECT_FALSE(found) << *found << " in life " << life << " of " << story.size();
        EXPECT_TRUE(walk.library->athlete(other.id));
        EXPECT_TRUE(walk.library->verify().empty());
        if (fs::exists(walk.library->folder().parent_path() / "precious.txt")) {
            EXPECT_EQ(*readFile(walk.library->folder().parent_path() / "precious.txt"), "precious");
        }
        if (all) {
            EXPECT_EQ(phrasesFor(*walk.library, "why:front-knee"),
                      (std::vector<std::string>{"Your leg is the wall."}));
        }
    }
}

TEST(ForgetLives, AProgramThatIsKilledInTheMiddleIsFinishedByTheNext) {
    Walk walk{Stage::Send};
    // As a kill between the rows and the files leaves it: the rows are gone, the files are owed.
    const auto b = walk.library->belongingsOf(walk.athlete.id);
    ASSERT_TRUE(b);
    std::map<std::string, std::string> files;
    for (const std::string& file : b->files)
        if (fs::exists(walk.library->folder() / file)) files[file] = *readFile(walk.library->folder() / file);
    ASSERT_TRUE(walk.library->forgetAthlete(walk.athlete.id, test::today()));
    nlohmann::json owed = nlohmann::json::array({"../../precious", "/etc/hostname"});
    for (const auto& [file, bytes] : files) {
        std::ofstream(walk.library->folder() / file, std::ios::binary) << bytes;
        owed.push_back(file);
    }
    ASSERT_FALSE(files.empty());
    ASSERT_TRUE(walk.library->setSetting("forget.owed", owed.dump()));
    EXPECT_TRUE(walk.library->sweep().empty());
    for (const auto& [file, bytes] : files) EXPECT_FALSE(fs::exists(walk.library->folder() / file)) << file;
    EXPECT_EQ(walk.library->setting("forget.owed"), "");
    EXPECT_TRUE(fs::exists("/etc/hostname"));
}

TEST(ForgetLives, AScrubCopyThatIsFinishedLaterGoesWithItsFilm) {
    Walk walk{Stage::Look};
    const fs::path scrub = walk.library->scrubPath(walk.submission.clips[0]);
    ScrubMaker maker(std::make_shared<FileStore>());
    ASSERT_TRUE(maker.makeMissing(*walk.library));
    ASSERT_TRUE(walk.library->forgetAthlete(walk.athlete.id, test::today())); // while it is being made
    EXPECT_TRUE(test::turnUntil([&] { return maker.waiting() == 0; }));
    EXPECT_FALSE(fs::exists(scrub));
    std::ofstream(scrub) << "left by a kill";
    EXPECT_TRUE(walk.library->sweep().empty());
    EXPECT_FALSE(fs::exists(scrub));
}

TEST(ForgetLives, ARestoredBackupTellsWhomItBringsBack) {
    Walk walk{Stage::Look};
    const fs::path backup = walk.folder / "backup";
    const auto state = backUp(*walk.library, backup, 1796000000);
    ASSERT_TRUE(state);
    ASSERT_TRUE(walk.library->forgetAthlete(walk.athlete.id, test::today()));
    FileStore files;
    const auto back =
        restoreBackup(backup, *state, (walk.folder / "back").string() + "/", files); // "DIR/" is DIR
    ASSERT_TRUE(back) << said(back.error().text);
    ASSERT_EQ(back->notes.size(), 1U);
    EXPECT_NE(said(back->notes[0]).find(walk.athlete.fullName()), std::string::npos) << said(back->notes[0]);
    EXPECT_TRUE(fs::exists(walk.folder / "back" / "library.sqlite"));
    // What lies beside under the name of a part of old is the user's.
    fs::create_directories(walk.folder / "again.part");
    std::ofstream(walk.folder / "again.part" / "mine.txt") << "mine";
    ASSERT_TRUE(restoreBackup(backup, *state, walk.folder / "again", files));
    EXPECT_EQ(*readFile(walk.folder / "again.part" / "mine.txt"), "mine");
}

TEST(Backup, OneDamagedStateBlocksOnlyItself) {
    Walk walk{Stage::Look};
    const fs::path backup = walk.folder / "backup";
    ASSERT_TRUE(backUp(*walk.library, backup, 1796000000));
    ASSERT_TRUE(backUp(*walk.library, backup, 1796000060));
    std::ofstream(backup / "states" / "2026-11-30T23-59-59Z.json") << std::string(100000, '[');
    const auto states = backupStates(backup);
    ASSERT_TRUE(states);
    EXPECT_EQ(states->size(), 2U);
    EXPECT_EQ(states->unreadable.size(), 1U);
    ASSERT_TRUE(backUp(*walk.library, backup, 1796000120));
    // A film that is gone is told, and the rest is kept.
    fs::remove(walk.library->mediaPath(walk.submission.clips[0]));
    const auto without = backUp(*walk.library, backup, 1796000180);
    ASSERT_TRUE(without) << said(without.error().text);
    EXPECT_EQ(without->missing.size(), 1U);
    // Links are said.
    fs::create_directory_symlink(backup, walk.folder / "link");
    EXPECT_EQ(backUp(*walk.library, walk.folder / "link", 1796000240).error().code, ErrorCode::Refused);
}

} // namespace
} // namespace jg
