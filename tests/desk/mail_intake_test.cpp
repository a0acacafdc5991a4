// Films out of mails: into files of our own naming, for the athlete whose address it is, offered once.
#include "desk/intake.h"
#include "desk/mail_intake.h"
#include "tests/support/mails.h"
#include "tests/support/walk.h"

#include <fstream>
#include <set>

namespace jg {
namespace {

namespace fs = std::filesystem;
using test::Walk;

/// A mail in a file, from an address, with films.
fs::path mailIn(const fs::path& path, const std::string& from, const std::string& text,
                std::vector<Attachment> films) {
    FileStore files;
    EXPECT_TRUE(files.write(path, *toBytes(test::mailFrom(from, text, std::move(films)))));
    return path;
}

Athlete withAddresses(Library& library, const std::string& id, const std::string& own,
                      const std::string& home) {
    Athlete a;
    a.id = {id};
    a.firstName = id;
    a.born = *parseIsoDate("2010-05-05");
    a.email = own;
    a.guardianEmail = home;
    EXPECT_TRUE(test::put(library, a));
    return a;
}

TEST(MailIntake, FindsTheAthleteByTheirAddressOrTheirGuardiansAndNobodyByTwo) {
    Walk walk(Stage::Look);
    const Athlete one = withAddresses(*walk.library, "one", "one@example.org", "home@example.org");
    withAddresses(*walk.library, "two", "two@example.org", "shared@example.org");
    withAddresses(*walk.library, "three", "", "Shared@example.org");
    const auto from = [&](const std::string& address) {
        auto mail =
            openMail(*walk.library, mailIn(walk.folder / "m.eml", address, "Is it late? His elbow is sore.",
                                           {{"a.mp4", "video/mp4", "film"}}));
        EXPECT_TRUE(mail) << said(mail.error().text);
        return std::move(*mail);
    };
    EXPECT_EQ(from("HOME@example.org").athlete, one.id);
    EXPECT_EQ(from("one@example.org").athlete, one.id);
    const MailIntake shared = from("shared@example.org");
    EXPECT_FALSE(shared.athlete);
    EXPECT_EQ(shared.known, 2U);
    const MailIntake stranger = from("stranger@example.org");
    EXPECT_FALSE(stranger.athlete);
    EXPECT_EQ(stranger.known, 0U);
    EXPECT_EQ(stranger.asked, "Is it late?");
    EXPECT_EQ(stranger.pain, "His elbow is sore.");
}

TEST(MailIntake, FilmsLieUnderNamesOfOurOwnInAFolderThatGoes) {
    Walk walk(Stage::Look);
    fs::path folder;
    {
        const auto mail = openMail(*walk.library, mailIn(walk.folder / "m.eml", "a@example.org", "",
                                                         {{"../../../tmp/evil.mp4", "video/mp4", "one"},
                                                          {"same.mov", "video/quicktime", "two"},
                                                          {"same.mov", "video/quicktime", "three"},
                                                          {"", "video/mp4", "four"},
                                                          {"x.m p4\n", "video/mp4", "five"}}));
        ASSERT_TRUE(mail) << said(mail.error().text);
        folder = mail->folder->path();
        ASSERT_EQ(mail->films.size(), 5U);
        std::set<fs::path> names;
        for (const fs::path& film : mail->films) {
            EXPECT_EQ(film.parent_path(), folder) << film;
            EXPECT_TRUE(names.insert(film).second) << film;
            EXPECT_EQ(fs::status(film).permissions() & fs::perms::group_read, fs::perms::none);
        }
        EXPECT_EQ(*readFile(mail->films[3]), "four");
    }
    EXPECT_FALSE(fs::exists(folder));
}

TEST(MailIntake, AMailWithoutAFilmSaysSo) {
    Walk walk(Stage::Look);
    const auto mail = openMail(*walk.library, mailIn(walk.folder / "m.eml", "a@example.org", "Thanks!", {}));
    ASSERT_FALSE(mail);
    EXPECT_EQ(mail.error().code, ErrorCode::BadInput);
    EXPECT_NE(said(mail.error().text).find("a@example.org"), std::string::npos);
    EXPECT_FALSE(openMail(*walk.library, walk.folder / "nothing.eml"));
    EXPECT_FALSE(openMail(*walk.library, "/dev/zero"));
}

TEST(MailIntake, AWatchedFolderOrMaildirOffersEachMailUntilItIsSettled) {
    Walk walk(Stage::Look);
    Library& library = *walk.library;
    EXPECT_TRUE(mailsWaiting(library).empty());
    const fs::path box = walk.folder / "box";
    EXPECT_FALSE(watchFolder(library, box.string())); // not there
    for (const char* sub : {"new", "cur", "tmp"}) fs::create_directories(box / sub);
    ASSERT_TRUE(watchFolder(library, box.string()));
    const auto put = [&](const fs::path& at) { std::ofstream(box / at) << "From: a@example.org\n\nx\n"; };
    put("new/171.M1.house");
    put("cur/170.M0.house:2,S");
    put("tmp/172.half");
    put("plain.eml");
    put("notes.txt");
    fs::create_symlink("/etc/passwd", box / "new" / "link");
    std::vector<std::string> keys;
    for (const fs::path& mail : mailsWaiting(library)) keys.push_back(mailKey(mail));
    EXPECT_EQ(keys, (std::vector<std::string>{"170.M0.house", "171.M1.house", "plain.eml"}));
    ASSERT_TRUE(settleIncoming(library, box / "new" / "171.M1.house"));
    fs::rename(box / "new/171.M1.house", box / "cur/171.M1.house:2,RS"); // read in a mail program
    EXPECT_EQ(mailsWaiting(library).size(), 2U);
    ASSERT_TRUE(settleIncoming(library, walk.folder / "plain.eml")); // another one of that name
    EXPECT_EQ(mailsWaiting(library).size(), 2U);
    ASSERT_TRUE(watchFolder(library, ""));
    EXPECT_TRUE(mailsWaiting(library).empty());
}

} // namespace
} // namespace jg
