// SPDX-License-Identifier: GPL-3.0-or-later
// Sheet, log, backup, bundle and forget from the command line: what comes out, and what is refused.
#include "demo/library/demo_review.h"
#include "tests/support/mails.h"
#include "tests/support/walk.h"

#include <nlohmann/json.hpp>

#include <filesystem>
#include <fstream>

namespace jg {
namespace {

namespace fs = std::filesystem;
using nlohmann::json;
using test::Walk;

struct Said {
    int code = 0;
    std::string out, err;
};

/// One library for all, with two reviews of one athlete.
class Keep : public testing::Test {
protected:
    Said cli(const std::string& arguments) {
        Said s;
        const fs::path err = walk().folder / "err";
        s.out = test::shell("'" + (test::binFolder() / "juxtagraph-cli").string() + "' " + arguments +
                                " 2>'" + err.string() + "'",
                            &s.code);
        s.err = *readFile(err);
        return s;
    }
    static Walk& walk() {
        static Walk walk(Stage::Send);
        static const bool made = [] {
            Review later = *walk.library->review(walk.review.id);
            later.id = {"rev-later"};
            later.revision = 0;
            later.date = addDays(later.date, 20);
            return walk.library->save(later).ok();
        }();
        EXPECT_TRUE(made);
        return walk;
    }
    std::string lib() { return "'" + walk().library->folder().string() + "'"; }
    std::string at(const char* name) { return "'" + (walk().folder / name).string() + "'"; }
};

TEST_F(Keep, ASheetTakesDeliveriesByNumberAndTellsDifferences) {
    const std::string two = lib() + " " + walk().review.id.value + ":1 rev-later";
    const Said csv = cli("juxta " + two + " --out " + at("s.csv") + " --positions plant");
    ASSERT_EQ(csv.code, 0) << csv.err;
    const std::string table = *readFile(walk().folder / "s.csv");
    EXPECT_NE(table.find("difference,error,change"), std::string::npos);
    EXPECT_NE(table.find("inside the error"), std::string::npos);
    ASSERT_EQ(cli("juxta " + two + " --out " + at("s.json") + " --positions plant").code, 0);
    const json d = json::parse(*readFile(walk().folder / "s.json"));
    EXPECT_EQ(d["rows"].size(), 2U);
    EXPECT_EQ(d["rows"][1]["review"], "rev-later");
    ASSERT_FALSE(d["columns"][0]["changes"].empty());
    EXPECT_EQ(d["columns"][0]["changes"][0]["change"], "inside the error");
    ASSERT_EQ(cli("juxta " + two + " --out " + at("s.html") + " --positions plant").code, 0);
    EXPECT_NE(readFile(walk().folder / "s.html")->find("data:image/png;base64,"), std::string::npos);
    EXPECT_EQ(cli("juxta " + two + ":7 --out " + at("s.csv")).code, 1); // no such delivery
    EXPECT_EQ(cli("juxta " + two + ":x --out " + at("s.csv")).code, 2);
}

TEST_F(Keep, RowsAndColumnsOfASheetStandAsTheyAreGivenAndGoIntoSeveralFilesAtOnce) {
    const std::string rows = "juxta " + lib() + " --rows rev-later," + walk().review.id.value;
    const Said all = cli(rows + ":1 --columns release,front-knee,plant --png " + at("r.png") + " --pdf " +
                         at("r.pdf") + " --json");
    ASSERT_EQ(all.code, 0) << all.err;
    const json d = json::parse(all.out);
    EXPECT_EQ(d["rows"][0]["review"], "rev-later");
    ASSERT_EQ(d["columns"].size(), 3U);
    EXPECT_EQ(d["columns"][0]["position"], "release");
    EXPECT_EQ(d["columns"][1]["position"], "front-knee");
    EXPECT_EQ(d["columns"][1]["cells"][0]["why"], said(msg("curve.too-few"))); // nothing is followed there
    EXPECT_EQ(d["columns"][2]["position"], "plant");
    EXPECT_NE(test::shell("ffprobe -v error -show_entries stream=codec_name " + at("r.png")).find("png"),
              std::string::npos);
    EXPECT_NE(test::shell("pdfinfo " + at("r.pdf")).find("Pages:           1"), std::string::npos);
    EXPECT_EQ(cli(rows + " --columns nowhere --json").code, 2);
    EXPECT_EQ(cli(rows).code, 2) << "nowhere to go";
    EXPECT_EQ(cli(rows + " --png " + at("r.pdf")).code, 2);
    EXPECT_EQ(cli("juxta " + lib() + " --rows rev-later --json").code, 1) << "one is no sheet";
}

TEST_F(Keep, TheLogIsToldByNameOrIdAndAsJson) {
    const Said log = cli("log " + lib() + " " + walk().athlete.firstName + " --json");
    ASSERT_EQ(log.code, 0) << log.err;
    const json d = json::parse(log.out);
    EXPECT_EQ(d["athlete"]["id"], walk().athlete.id.value);
    ASSERT_FALSE(d["measures"].empty());
    EXPECT_EQ(d["measures"][0]["points"].size(), 2U);
    EXPECT_FALSE(d["findings"].empty());
    EXPECT_EQ(cli("log " + lib() + " " + walk().athlete.id.value).code, 0);
    const Said nobody = cli("log " + lib() + " Nobody --json");
    EXPECT_EQ(nobody.code, 1);
    EXPECT_EQ(nobody.out, "");
    EXPECT_NE(nobody.err.find("Nobody"), std::string::npos);
}

TEST_F(Keep, ABackupComesBackAndASecondOneIsSmall) {
    const Said first = cli("backup " + lib() + " " + at("disk") + " --check --json");
    ASSERT_EQ(first.code, 0) << first.err;
    EXPECT_GT(json::parse(first.out)["copiedBytes"], 100000);
    ASSERT_EQ(cli("restore " + at("disk") + " " + at("back")).code, 0);
    const Said list = cli("review list " + at("back") + " --json");
    ASSERT_EQ(list.code, 0) << list.err;
    EXPECT_EQ(json::parse(list.out).size(), 2U);
    EXPECT_EQ(cli("restore " + at("disk") + " " + at("back")).code, 1); // holds something now
    EXPECT_EQ(cli("restore " + at("nowhere") + " " + at("back2")).code, 1);
    EXPECT_EQ(cli("restore " + at("disk") + " " + at("back2") + " --at 1999").code, 1);
}

TEST_F(Keep, ABundleGoesIntoAnotherLibraryAndAnAthleteCanBeForgottenThere) {
    ASSERT_EQ(
        cli("bundle export " + lib() + " --athlete " + walk().athlete.id.value + " --out " + at("a.zip"))
            .code,
        0);
    ASSERT_EQ(cli("bundle export " + lib() + " --review rev-later --out " + at("r.zip")).code, 0);
    EXPECT_LE(fs::file_size(walk().folder / "r.zip"), fs::file_size(walk().folder / "a.zip"));
    auto other = Library::open(walk().folder / "other", true, std::make_shared<FileStore>());
    ASSERT_TRUE(other);
    other->reset();
    const Said in = cli("bundle import " + at("other") + " " + at("a.zip") + " --json");
    ASSERT_EQ(in.code, 0) << in.err;
    EXPECT_EQ(json::parse(in.out)["added"], 4);
    EXPECT_EQ(cli("bundle import " + at("other") + " " + at("err")).code, 1);
    ASSERT_EQ(cli("review export " + lib() + " rev-later --out " + at("out") + " --bundle").code, 0);
    for (const auto& e : fs::directory_iterator(walk().folder / "out")) {
        const Said again = cli("review import " + at("other") + " '" + e.path().string() + "' --json");
        ASSERT_EQ(again.code, 0) << again.err;
        EXPECT_EQ(json::parse(again.out)["added"], 0); // all of it came with the athlete
    }
    const Said asked = cli("forget " + at("other") + " " + walk().athlete.firstName);
    ASSERT_EQ(asked.code, 0) << asked.err;
    EXPECT_NE(asked.out.find("--yes"), std::string::npos);
    EXPECT_EQ(json::parse(cli("review list " + at("other") + " --json").out).size(), 2U);
    ASSERT_EQ(cli("forget " + at("other") + " " + walk().athlete.firstName + " --yes").code, 0);
    EXPECT_EQ(json::parse(cli("review list " + at("other") + " --json").out).size(), 0U);
    EXPECT_EQ(cli("verify " + at("other")).code, 0);
}

// Three runs over a folder of mails are one submission, and a mail that speaks of pain never comes without
// it.
TEST_F(Keep, MailsAreTakenInOnceWithTheirPain) {
    Walk own(Stage::Look);
    const std::string box = "'" + (own.folder / "box").string() + "'",
                      library = "'" + own.library->folder().string() + "'";
    fs::create_directories(own.folder / "box");
    Mail mail = test::mailFrom("odalys.home@example.org", "New film. Not throwing today, sore elbow.",
                               {{"a.mp4", "video/mp4", *readFile(own.folder / "film.mp4") + "x"}});
    std::ofstream(own.folder / "box" / "1.eml", std::ios::binary) << *toBytes(mail);
    for (int run = 0; run < 3; ++run) {
        const Said said = cli("intake " + library + " " + box + " --json");
        EXPECT_EQ(said.code, 0) << said.err << said.out;
        const json rows = json::parse(said.out);
        ASSERT_EQ(rows.size(), 1U);
        EXPECT_EQ(rows[0].contains("submission"), run == 0);
        EXPECT_EQ(rows[0].value("before", false), run > 0);
        if (run == 0) {
            EXPECT_NE(rows[0]["pain"].get<std::string>().find("sore elbow"), std::string::npos);
        }
    }
    EXPECT_EQ(own.library->submissions()->size(), 2U);
    // Only the mail that it answers speaks of pain: that stands in the field, said to be that.
    mail.text = "Thanks!\n\nOn Monday Ilse wrote:\n> How is the sore elbow?\n";
    mail.messageId = "m2@example.org";
    mail.attachments[0].bytes += "y";
    std::ofstream(own.folder / "box" / "2.eml", std::ios::binary) << *toBytes(mail);
    const Said older = cli("intake " + library + " " + box + " --json");
    EXPECT_NE(older.out.find("older mail"), std::string::npos) << older.out;
    // Whoever may be somebody else is the coach's to ask.
    mail.messageId = "m3@example.org";
    mail.subject = "Fwd: film";
    mail.attachments[0].bytes += "z";
    std::ofstream(own.folder / "box" / "3.eml", std::ios::binary) << *toBytes(mail);
    const Said doubt = cli("intake " + library + " " + box + " --json");
    EXPECT_EQ(doubt.code, 1) << doubt.out;
    EXPECT_EQ(own.library->submissions()->size(), 3U);
}

} // namespace
} // namespace jg
