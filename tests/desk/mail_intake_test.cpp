// SPDX-License-Identifier: GPL-3.0-or-later
// Films out of mails: into files of our own naming, for the athlete whose address it is, offered once.
#include "desk/intake/intake.h"
#include "desk/intake/mail_intake.h"
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

TEST(MailIntake, OneMailIsTakenInOnceHoweverItComes) {
    Walk walk(Stage::Look);
    Library& library = *walk.library;
    const Athlete one = withAddresses(library, "one", "", "home@example.org");
    const std::string film = *readFile(walk.folder / "film.mp4") + "x"; // not the walk's own
    const fs::path first = mailIn(walk.folder / "first.eml", "home@example.org", "Look, please.",
                                  {{"a.mp4", "video/mp4", film}});
    // The same mail along another way: another file, another head.
    std::ofstream(walk.folder / "second.eml", std::ios::binary) << "Received: by relay.example.org\r\n"
                                                                << *readFile(first);
    const auto opened = openMail(library, first);
    ASSERT_TRUE(opened) << said(opened.error().text);
    IntakeForm form;
    form.athlete = one.id;
    form.films = {{opened->films.front(), View::Open, 60}};
    form.mail = opened->key;
    IdSource ids{5};
    const auto looked = lookAtFilm(form.films.front().path);
    ASSERT_TRUE(looked);
    ASSERT_TRUE(takeIn(library, form, {*looked}, walk.clock, ids));
    for (const char* name : {"first.eml", "second.eml"}) {
        const auto again = openMail(library, walk.folder / name);
        ASSERT_FALSE(again) << name;
        EXPECT_NE(said(again.error().text).find("taken in before"), std::string::npos);
    }
    // Two programs that opened it before either had kept it.
    form.onceMore = true;
    const auto twice = takeIn(library, form, {*looked}, walk.clock, ids);
    ASSERT_FALSE(twice);
    EXPECT_EQ(twice.error().code, ErrorCode::Refused) << said(twice.error().text);
    EXPECT_EQ(library.submissions()->size(), 2U);
}

TEST(MailIntake, ALaterMailUnderASettledNameIsOffered) {
    Walk walk(Stage::Look);
    Library& library = *walk.library;
    fs::create_directories(walk.folder / "box");
    ASSERT_TRUE(watchFolder(library, (walk.folder / "box").string()));
    const fs::path mail = mailIn(walk.folder / "box" / "film.eml", "a@example.org", "One.", {});
    ASSERT_TRUE(settleIncoming(library, mail));
    EXPECT_TRUE(mailsWaiting(library).empty());
    mailIn(mail, "a@example.org", "Another mail, saved under the same name.", {});
    EXPECT_EQ(mailsWaiting(library).size(), 1U);
}

TEST(MailIntake, OneFilmTwiceForOneAthleteIsAskedAbout) {
    Walk walk(Stage::Look);
    IntakeForm form;
    form.athlete = walk.athlete.id;
    form.films = {{walk.folder / "film.mp4", View::Open, 60}};
    const auto looked = lookAtFilm(form.films.front().path);
    ASSERT_TRUE(looked);
    IdSource ids{6};
    const auto asked = takeIn(*walk.library, form, {*looked}, walk.clock, ids);
    ASSERT_FALSE(asked);
    EXPECT_EQ(asked.error().code, ErrorCode::NeedsYes) << said(asked.error().text);
    EXPECT_TRUE(fs::exists(walk.library->mediaPath(walk.submission.clips[0]))) << "the first one's film went";
    form.onceMore = true;
    EXPECT_TRUE(takeIn(*walk.library, form, {*looked}, walk.clock, ids));
    form.films.push_back(form.films.front());
    const auto both = takeIn(*walk.library, form, {*looked, *looked}, walk.clock, ids);
    ASSERT_FALSE(both);
    EXPECT_EQ(both.error().code, ErrorCode::BadInput);
}

TEST(MailIntake, ASenderWhoMayBeSomebodyElseIsAskedAbout) {
    Walk walk(Stage::Look);
    const Athlete one = withAddresses(*walk.library, "one", "", "home@example.org");
    const fs::path plain =
        mailIn(walk.folder / "m.eml", "home@example.org", "Hi.", {{"a.mp4", "video/mp4", "film"}});
    ASSERT_EQ(openMail(*walk.library, plain)->athlete, one.id);
    const std::string bytes = *readFile(plain);
    for (const std::string head :
         {"Authentication-Results: mx.example.org; spf=pass; dmarc=fail header.from=example.org\r\n",
          "Authentication-Results: mx.example.org; dkim=fail\r\n", "Resent-From: other@example.org\r\n",
          "Reply-To: someone.else@example.org\r\n", "Sender: list@example.org\r\n"}) {
        std::ofstream(walk.folder / "doubt.eml", std::ios::binary) << head << bytes;
        const auto mail = openMail(*walk.library, walk.folder / "doubt.eml");
        ASSERT_TRUE(mail) << head;
        EXPECT_FALSE(mail->athlete) << head;
        EXPECT_FALSE(mail->doubts.empty()) << head;
    }
    Mail forward = test::mailFrom("home@example.org", "See below.", {{"a.mp4", "video/mp4", "film"}});
    forward.subject = "Fwd: my pitches";
    std::ofstream(walk.folder / "fwd.eml", std::ios::binary) << *toBytes(forward);
    EXPECT_FALSE(openMail(*walk.library, walk.folder / "fwd.eml")->athlete);
}

TEST(MailIntake, PainIsHeardInEveryPartAndAnOlderMailsIsToldAsThat) {
    Walk walk(Stage::Look);
    const auto opened = [&](const std::string& subject, const std::string& text, const std::string& html) {
        Mail m = test::mailFrom("home@example.org", text, {{"a.mp4", "video/mp4", "film"}});
        m.subject = subject;
        m.html = html;
        std::ofstream(walk.folder / "m.eml", std::ios::binary) << *toBytes(m);
        auto mail = openMail(*walk.library, walk.folder / "m.eml");
        EXPECT_TRUE(mail) << said(mail.error().text);
        return *std::move(mail);
    };
    EXPECT_FALSE(opened("sore elbow", "See the film.", "").pain.empty());
    EXPECT_FALSE(opened("Film", "See the page.", "<p>His <b>elbow</b> hurts.</p>").pain.empty());
    for (const char* older :
         {"Thanks!\n\nOn 1 May Ilse wrote:\n> Is the elbow still sore?\n",
          "Thanks!\n\n-----Original Message-----\nFrom: Ruth\nSent: Monday\n\nHis elbow is sore.\n",
          "Thanks!\n\nEl lunes Ilse escribi\u00f3:\nLe duele el codo.\n"}) {
        const MailIntake mail = opened("Re: film", older, "");
        EXPECT_TRUE(mail.pain.empty()) << older << mail.pain;
        EXPECT_FALSE(mail.olderPain.empty()) << older;
        EXPECT_NE(painOf(mail).find("older mail"), std::string::npos); // the field is never empty for it
    }
    const MailIntake page =
        opened("Re: film", " ", "<p>Thanks!</p><blockquote><p>His elbow is sore.</p></blockquote>");
    EXPECT_TRUE(page.pain.empty()) << page.pain;
    EXPECT_FALSE(page.olderPain.empty());
}

} // namespace
} // namespace jg
