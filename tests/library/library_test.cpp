// SPDX-License-Identifier: GPL-3.0-or-later
#include "library/library.h"

#include "review/record/review_json.h"
#include "tests/support/fixtures.h"
#include "tests/support/harm.h"

#include <fstream>

namespace jg {
namespace {

using test::TempFolder;

std::unique_ptr<Library> make(const std::filesystem::path& folder,
                              std::shared_ptr<FileStore> files = std::make_shared<FileStore>()) {
    auto library = Library::open(folder, true, std::move(files));
    EXPECT_TRUE(library) << said(library.error().text);
    return std::move(*library);
}

Athlete wren() {
    Athlete a;
    a.id = {"ath-1"};
    a.firstName = "Wren";
    a.lastName = "Castellane";
    a.born = *parseIsoDate("2013-03-09");
    return a;
}

Submission submissionWith(Library& library, const std::filesystem::path& film) {
    EXPECT_TRUE(test::put(library, wren()));
    auto hash = library.addMedia(film);
    EXPECT_TRUE(hash);
    Submission s;
    s.id = {"sub-1"};
    s.athlete = {"ath-1"};
    s.received = test::today();
    Clip c;
    c.id = {"clip-1"};
    c.athlete = {"ath-1"};
    c.mediaHash = *hash;
    c.extension = film.extension().string();
    s.clips = {c};
    EXPECT_TRUE(test::put(library, s));
    return s;
}

Review reviewOf(const Submission& s) {
    Review r;
    r.id = {"rev-1"};
    r.submission = s.id;
    r.athlete = s.athlete;
    r.date = test::today();
    return r;
}

TEST(Library, KeepsWhatItIsGivenAcrossOpenings) {
    const TempFolder folder;
    std::ofstream(folder / "film.mp4") << "pretend film";
    const auto where = folder / "lib";
    Review r;
    {
        auto library = make(where);
        const Submission s = submissionWith(*library, folder / "film.mp4");
        r.id = {"rev-1"};
        r.submission = s.id;
        r.athlete = s.athlete;
        r.first().clip = s.clips[0].id;
        r.date = test::today();
        r.judging().approach = *test::playbook().approach("load-and-drive");
        ASSERT_TRUE(library->save(r));
        ASSERT_TRUE(test::put(*library, Promise{{"ath-1"}, asIs("Front view asked for"), test::today()}));
        ASSERT_TRUE(library->setSetting("house.place", "The Tram Shed"));
    }
    auto library = make(where);
    EXPECT_EQ(library->athlete({"ath-1"})->fullName(), "Wren Castellane");
    EXPECT_EQ(toJson(*library->review({"rev-1"})), toJson(r));
    EXPECT_EQ(library->reviewOf({"sub-1"})->value().id.value, "rev-1");
    EXPECT_EQ(library->promises()->at(0).text, "Front view asked for");
    EXPECT_EQ(library->setting("house.place"), "The Tram Shed");
    EXPECT_EQ(library->setting("nothing", "else"), "else");
    EXPECT_TRUE(library->verify().empty());
    EXPECT_EQ(library->athlete({"nobody"}).error().code, ErrorCode::NotFound);
}

TEST(Library, MediaLieUnderTheirContentHashAndTheOriginalIsUntouched) {
    const TempFolder folder;
    std::ofstream(folder / "film.mp4") << "abc";
    auto library = make(folder / "lib");
    const auto before = std::filesystem::last_write_time(folder / "film.mp4");
    const auto hash = library->addMedia(folder / "film.mp4");
    ASSERT_TRUE(hash);
    // SHA-256 of "abc": FIPS 180-2, appendix B.1.
    EXPECT_EQ(*hash, "ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad");
    EXPECT_EQ(std::filesystem::last_write_time(folder / "film.mp4"), before);
    EXPECT_EQ(*library->addMedia(folder / "film.mp4"), *hash); // twice is once
}

TEST(Library, VerifyFindsMissingAlteredAndLost) {
    const TempFolder folder;
    std::ofstream(folder / "film.mp4") << "abc";
    auto library = make(folder / "lib");
    const Submission s = submissionWith(*library, folder / "film.mp4");
    EXPECT_TRUE(library->verify().empty());
    std::ofstream(library->mediaPath(s.clips[0])) << "abX";
    ASSERT_EQ(library->verify().size(), 1U);
    EXPECT_NE(said(library->verify()[0]).find("altered"), std::string::npos);
    std::filesystem::remove(library->mediaPath(s.clips[0]));
    EXPECT_NE(said(library->verify().at(0)).find("missing"), std::string::npos);
    Review r = reviewOf(s);
    r.takes[{"stop-1"}] = {"gone.wav", 48000, 10, "", {}};
    ASSERT_TRUE(library->save(r));
    EXPECT_EQ(library->verify().size(), 2U);
}

TEST(Library, OneUnreadableRowHidesNoOtherAndIsNamed) {
    const TempFolder folder;
    auto library = make(folder / "lib");
    for (const char* name : {"Ada", "Bo", "Cy"}) {
        Athlete a;
        a.id = {std::string("ath-") + name};
        a.firstName = name;
        a.born = *parseIsoDate("2010-05-02");
        ASSERT_TRUE(test::put(*library, a));
    }
    test::harm(folder / "lib", "UPDATE athletes SET document = '{' WHERE id = 'ath-Bo'");
    const auto all = library->athletes();
    ASSERT_TRUE(all);
    EXPECT_EQ(all->size(), 2U);
    EXPECT_EQ(library->takeLeftOut().size(), 1U);
    EXPECT_TRUE(library->takeLeftOut().empty()) << "told once";
    const auto rows = library->athleteRows("");
    ASSERT_TRUE(rows);
    EXPECT_EQ(rows->size(), 2U);
    const auto why = library->takeLeftOut();
    ASSERT_EQ(why.size(), 1U);
    EXPECT_NE(said(why[0]).find("Bo"), std::string::npos) << said(why[0]);
    const auto problems = library->verify();
    ASSERT_EQ(problems.size(), 1U);
    EXPECT_NE(said(problems[0]).find("ath-Bo"), std::string::npos) << said(problems[0]);
}

TEST(Library, VerifyFindsEmptyAndShortTakesAndAnAlteredPlaybook) {
    const TempFolder folder;
    std::ofstream(folder / "film.mp4") << "abc";
    auto library = make(folder / "lib");
    const Submission s = submissionWith(*library, folder / "film.mp4");
    Review r = reviewOf(s);
    r.takes[{"stop-1"}] = {"empty.wav", 48000, 10, "", {}};
    r.takes[{"stop-2"}] = {"short.wav", 48000, 10, "", {}};
    ASSERT_TRUE(library->save(r));
    std::ofstream(library->takePath("empty.wav")) << "";
    // A head that promises 1,000 bytes, and 100 that came.
    std::string head("RIFF\xe8\x03\0\0WAVE", 12);
    std::ofstream(library->takePath("short.wav"), std::ios::binary) << head << std::string(100, ' ');
    ASSERT_TRUE(library->keepPlaybook("{}"));
    auto problems = library->verify();
    ASSERT_EQ(problems.size(), 2U);
    EXPECT_NE(said(problems[0]).find("empty"), std::string::npos) << said(problems[0]);
    EXPECT_NE(said(problems[1]).find("cut short"), std::string::npos) << said(problems[1]);
    test::harm(folder / "lib", "UPDATE playbooks SET document = '[]'");
    problems = library->verify();
    ASSERT_EQ(problems.size(), 3U);
    EXPECT_NE(said(problems[0]).find("playbook of a review was altered"), std::string::npos)
        << said(problems[0]);
}

TEST(Library, RefusesFoldersThatAreNone) {
    const TempFolder folder;
    std::ofstream(folder / "other.txt") << "x";
    EXPECT_EQ(Library::open(folder.path(), true, std::make_shared<FileStore>()).error().code,
              ErrorCode::Refused);
    EXPECT_EQ(Library::open(folder / "none", false, std::make_shared<FileStore>()).error().code,
              ErrorCode::NotFound);
    std::filesystem::create_directory(folder / "bad");
    std::ofstream(folder / "bad/library.sqlite") << "this is no database at all, it only has its name";
    EXPECT_EQ(Library::open(folder / "bad", false, std::make_shared<FileStore>()).error().code,
              ErrorCode::Damaged);
}

TEST(Library, ANewerLibraryIsNotTouched) {
    const TempFolder folder;
    make(folder / "lib");
    test::harm(folder / "lib", "PRAGMA user_version = 99");
    const auto opened = Library::open(folder / "lib", false, std::make_shared<FileStore>());
    ASSERT_FALSE(opened);
    EXPECT_NE(said(opened.error().text).find("newer version"), std::string::npos);
}

TEST(Library, AFullDiskTakesNoFilmAndKeepsNothingHalf) {
    const TempFolder folder;
    std::ofstream(folder / "film.mp4") << "abc";
    auto library = make(folder / "lib", std::make_shared<test::FullDisk>());
    const auto added = library->addMedia(folder / "film.mp4");
    ASSERT_FALSE(added);
    EXPECT_EQ(added.error().code, ErrorCode::DiskFull);
    EXPECT_TRUE(std::filesystem::is_empty(folder / "lib/media"));
    EXPECT_TRUE(library->verify().empty());
}

TEST(Library, UnreadableFilmsAreRefused) {
    const TempFolder folder;
    auto library = make(folder / "lib");
    EXPECT_EQ(library->addMedia(folder / "none.mp4").error().code, ErrorCode::Unreadable);
}

TEST(Library, AReviewOfAnUnknownAthleteIsRefusedByTheDatabase) {
    const TempFolder folder;
    auto library = make(folder / "lib");
    Review r;
    r.id = {"rev-1"};
    r.submission = {"none"};
    r.athlete = {"none"};
    r.date = test::today();
    EXPECT_FALSE(library->save(r));
}

TEST(Library, OutboxItemsChangeTheirState) {
    const TempFolder folder;
    std::ofstream(folder / "film.mp4") << "abc";
    auto library = make(folder / "lib");
    const Submission s = submissionWith(*library, folder / "film.mp4");
    Review r = reviewOf(s);
    ASSERT_TRUE(library->save(r));
    OutboxItem item{"mail-1", r.id, "a@example.org", "Hello", "mail-1.eml", MailState::Ready, {}, 5};
    ASSERT_TRUE(test::put(*library, item));
    item.state = MailState::Refused;
    item.reason = asIs("Nobody answers");
    ASSERT_TRUE(test::put(*library, item));
    const auto all = library->outbox();
    ASSERT_EQ(all->size(), 1U);
    EXPECT_EQ(all->at(0).state, MailState::Refused);
    EXPECT_EQ(all->at(0).reason, "Nobody answers");
}

TEST(Library, NobodyElseOnTheMachineLooksIn) {
    const test::TempFolder folder;
    const auto place = folder / "library";
    std::filesystem::create_directories(place);
    std::filesystem::permissions(place, std::filesystem::perms::all);
    ASSERT_TRUE(Library::open(place, true, std::make_shared<FileStore>()));
    EXPECT_EQ(std::filesystem::status(place).permissions(), std::filesystem::perms::owner_all);
}

} // namespace
} // namespace jg
