// SPDX-License-Identifier: GPL-3.0-or-later
// The command line as a user meets it: output, exit codes and refusals.
#include "tests/support/harm.h"
#include "tests/support/walk.h"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <fstream>

namespace jg {
namespace {

using nlohmann::json;
using test::TempFolder;

struct Ran {
    int code = -1;
    std::string out;
    std::string err;
};

Ran cli(const std::string& arguments) {
    const TempFolder folder;
    Ran r;
    r.out = test::shell("'" + (test::binFolder() / "juxtagraph-cli").string() + "' " + arguments + " 2>'" +
                            (folder / "err").string() + "'",
                        &r.code);
    r.err = *readFile(folder / "err");
    // The platform's own remark about its runtime folder is not ours.
    const auto remark = r.err.find("QStandardPaths");
    if (remark != std::string::npos) r.err.erase(remark, r.err.find('\n', remark) - remark + 1);
    return r;
}

/// Exit 1, one sentence on stderr, nothing on stdout.
void expectRefusal(const Ran& r, const std::string& words) {
    EXPECT_EQ(r.code, 1) << r.err;
    EXPECT_TRUE(r.out.empty()) << r.out;
    EXPECT_NE(r.err.find(words), std::string::npos) << r.err;
    EXPECT_EQ(std::count(r.err.begin(), r.err.end(), '\n'), 1) << r.err;
}

TEST(Cli, HelpAndVersion) {
    EXPECT_EQ(cli("--version").code, 0);
    EXPECT_NE(cli("--version").out.find("juxtagraph-cli 0."), std::string::npos);
    EXPECT_NE(cli("--help").out.find("film probe FILE"), std::string::npos);
    EXPECT_NE(cli("film probe --help").out.find("film probe FILE"), std::string::npos);
}

TEST(Cli, AnOutputThatCannotBeWrittenIsSaid) {
    const Ran r = cli("measures --json > /dev/full");
    EXPECT_EQ(r.code, 1);
    EXPECT_NE(r.err.find("output can't be written"), std::string::npos) << r.err;
}

TEST(Cli, ADeviceIsNotReplacedByAPicture) {
    const TempFolder folder;
    ASSERT_TRUE(makeFilm(test::smallOrder(), folder / "a.mp4"));
    expectRefusal(cli("film frame '" + (folder / "a.mp4").string() + "' 0 --png /dev/null"),
                  "no ordinary file");
    EXPECT_TRUE(std::filesystem::is_character_file("/dev/null"));
}

TEST(Cli, WrongUseShowsTheRightUseAndExits2) {
    for (const char* wrong :
         {"", "nothing", "film", "film probe", "film frame a.mp4", "film frame a.mp4 x --png o.png",
          "measure", "measure back-knee --points hip", "judge --approach load-and-drive",
          "film probe a.mp4 --loud", "demo --films d --count many", "measure back-knee --sigma nan"}) {
        const Ran r = cli(wrong);
        EXPECT_EQ(r.code, 2) << wrong << ": " << r.err;
        EXPECT_TRUE(r.out.empty()) << wrong;
        EXPECT_NE(r.err.find("juxtagraph-cli"), std::string::npos) << wrong;
    }
}

TEST(Cli, MeasureAnswersFromPoints) {
    const Ran r = cli("measure back-knee --points 'hip=310,402;knee=352,498;ankle=330,610' --sigma 2 --json");
    ASSERT_EQ(r.code, 0) << r.err;
    const json j = json::parse(r.out);
    EXPECT_EQ(j["id"], "back-knee");
    // By hand: atan2(42,96) and atan2(22,112) from vertical, 180 minus their sum.
    EXPECT_NEAR(j["value"].get<double>(), 180 - 23.6294 - 11.1136, 1e-3);
    EXPECT_EQ(j["state"], "measured");
    EXPECT_LT(j["low95"].get<double>(), j["value"].get<double>());
    EXPECT_NEAR(j["high95"].get<double>() - j["value"].get<double>(), 1.95996 * j["sd"].get<double>(), 1e-3);
    const Ran time = cli("measure plant-to-release --frames 'plant=48,release=57' --rate 60 --json");
    EXPECT_NEAR(json::parse(time.out)["value"].get<double>(), 150, 1e-9);
    const Ran front = cli("measure back-knee --view front --points 'hip=1,2;knee=3,4;ankle=5,6' --json");
    EXPECT_EQ(front.code, 0);
    EXPECT_EQ(json::parse(front.out)["state"], "notVisible");
    EXPECT_TRUE(json::parse(front.out)["value"].is_null());
    const Ran stride = cli(
        "measure stride --points 'back-ankle=200,500;lead-ankle=520,500;crown=1,100;ground=1,500' --json");
    EXPECT_NEAR(json::parse(stride.out)["value"].get<double>(), 80, 1e-9);
}

TEST(Cli, MeasureRefusesInWords) {
    expectRefusal(cli("measure nothing --points 'a=1,2'"), "no measure");
    expectRefusal(cli("measure back-knee --points 'hip=310,402;knee=352,498' --json"), "back ankle");
    expectRefusal(cli("measure back-knee --points 'nose=310,402'"), "no point \"nose\"");
    expectRefusal(cli("measure back-knee --points 'hip=1,1;knee=1,1;ankle=3,3'"), "same spot");
    expectRefusal(cli("measure stride --points 'back-ankle=200,500;lead-ankle=520,500'"), "size");
    expectRefusal(cli("measure leg-spread --yaw 85 --points 'back-ankle=1,1;pelvis=2,0;lead-ankle=3,1'"),
                  "80 degrees");
}

TEST(Cli, PlaybookCommandsGiveOneJsonEach) {
    const json measures = json::parse(cli("measures --json").out);
    EXPECT_GE(measures.size(), 12U);
    for (const auto& m : measures)
        for (const char* field : {"id", "name", "unit", "group", "positions", "views", "landmarks", "formula",
                                  "needsScale", "source"})
            EXPECT_TRUE(m.contains(field)) << m["id"] << field;
    const json approaches = json::parse(cli("approaches --json").out);
    EXPECT_EQ(approaches.size(), 10U);
    EXPECT_TRUE(std::any_of(approaches.begin(), approaches.end(),
                            [](const json& a) { return a["id"] == "load-and-drive"; }));
    const auto seen = [](const char* answer) {
        return json::parse(
            cli(std::string("judge --approach arm-care-first --measure palm-facing --seen \"") + answer +
                "\" --json")
                .out);
    };
    EXPECT_EQ(seen("the chest's side")["verdict"], "keep");
    EXPECT_EQ(seen("second base")["verdict"], "protect");
    EXPECT_EQ(cli("judge --approach arm-care-first --measure palm-facing --seen moon --json").code, 1);
    EXPECT_EQ(
        cli("judge --approach load-and-drive --measure release-ahead --value 25 --sd 1 --unit cm --json")
            .code,
        0);
    EXPECT_EQ(
        cli("judge --approach load-and-drive --measure release-ahead --value 25 --sd 1 --unit % --json").code,
        1);
    const json verdict =
        json::parse(cli("judge --approach load-and-drive --measure leg-spread --value 88 --sd 2 --json").out);
    EXPECT_EQ(verdict["verdict"], "change");
    EXPECT_EQ(verdict["state"], "graded");
    EXPECT_NEAR(verdict["gap"].get<double>(), -18, 1e-9);
    EXPECT_EQ(
        json::parse(
            cli("judge --approach load-and-drive --measure front-knee-release --value 129 --sd 3.5 --json")
                .out)["state"],
        "cannotTell");
    const json causes = json::parse(cli("causes --findings leg-spread:below,back-knee:above --json").out);
    EXPECT_EQ(causes["roots"][0]["id"], "back-knee");
    EXPECT_EQ(causes["roots"][0]["side"], "above");
    EXPECT_EQ(causes["links"][0]["to"], "leg-spread:below");
    EXPECT_EQ(verdict["side"], "below");
    // The other way round nothing explains the other.
    const json other = json::parse(cli("causes --findings leg-spread:above,back-knee:above --json").out);
    EXPECT_TRUE(other["links"].empty());
    expectRefusal(cli("causes --findings leg-spread"), "leg-spread:below or leg-spread:above");
    expectRefusal(cli("causes --findings load-shared:below"), "in one way only");
    const json drills = json::parse(cli("plan --findings leg-spread:above --age 15 --json").out)["drills"];
    ASSERT_FALSE(drills.empty());
    EXPECT_EQ(drills[0]["id"], "short-stride");
    EXPECT_TRUE(drills[0]["made"].get<bool>());
    for (const json& item : json::parse(cli("items --json").out)) EXPECT_FALSE(item["sides"].empty());
    for (const json& drill : json::parse(cli("drills --json").out)) EXPECT_TRUE(drill["trains"].is_array());
    const json plan = json::parse(cli("plan --findings trunk-forward:below --age 15 --pain --json").out);
    for (const auto& d : plan["drills"]) EXPECT_FALSE(d["ball"].get<bool>());
    EXPECT_FALSE(plan["blocked"].empty());
    expectRefusal(cli("judge --approach other --measure leg-spread --value 1 --sd 1"), "no approach");
    expectRefusal(cli("causes --findings nothing"), "neither");
}

TEST(Cli, FilmsAreProbedListedAndCutToFrames) {
    const TempFolder folder;
    const std::string film = (folder / "a.mp4").string();
    test::shell("ffmpeg -v error -y -f lavfi -i testsrc2=s=320x180:r=30:d=1 -c:v libx264 '" + film + "'");
    const Ran probe = cli("film probe '" + film + "' --json");
    ASSERT_EQ(probe.code, 0) << probe.err;
    const json j = json::parse(probe.out);
    EXPECT_EQ(j["width"], 320);
    EXPECT_EQ(j["frames"], 30);
    EXPECT_EQ(j["playRate"]["num"], 30);
    EXPECT_EQ(j["codec"], "h264");
    EXPECT_TRUE(j["complete"].get<bool>());
    const Ran pts = cli("film pts '" + film + "'");
    EXPECT_EQ(std::count(pts.out.begin(), pts.out.end(), '\n'), 30);
    const std::string png = (folder / "f.png").string();
    ASSERT_EQ(cli("film frame '" + film + "' 17 --png '" + png + "'").code, 0);
    // ffprobe reads the picture back.
    EXPECT_NE(
        test::shell("ffprobe -v error -show_entries stream=width,height,pix_fmt -of csv=p=0 '" + png + "'")
            .find("320,180,rgb24"),
        std::string::npos);
    EXPECT_EQ(json::parse(cli("film bench '" + film + "' --json").out).contains("decodeMsPerFrame"), true);
    expectRefusal(cli("film frame '" + film + "' 99 --png '" + (folder / "g.png").string() + "'"),
                  "frames 0 to 29");
    EXPECT_FALSE(std::filesystem::exists(folder / "g.png"));
}

TEST(Cli, BadFilmsAreRefusedEachWithItsSentence) {
    const TempFolder folder;
    std::ofstream(folder / "empty.mp4");
    std::ofstream(folder / "text.mp4") << "a letter\n";
    test::shell("ffmpeg -v error -y -f lavfi -i sine=d=1 '" + (folder / "sound.m4a").string() + "'");
    expectRefusal(cli("film probe '" + (folder / "empty.mp4").string() + "' --json"), "is empty");
    expectRefusal(cli("film probe '" + (folder / "text.mp4").string() + "' --json"), "not a film");
    expectRefusal(cli("film probe '" + (folder / "sound.m4a").string() + "' --json"), "no moving picture");
    expectRefusal(cli("film probe '" + (folder / "none.mp4").string() + "' --json"), "no file");
    expectRefusal(cli("film probe '" + folder.path().string() + "' --json"), "folder");
}

TEST(Cli, DemoFilmsComeWithTruth) {
    const TempFolder folder;
    const Ran r = cli("demo --films '" + (folder / "films").string() + "' --count 1 --seed 4 --truth '" +
                      (folder / "t.json").string() + "'");
    ASSERT_EQ(r.code, 0) << r.err;
    const json truth = json::parse(*readFile(folder / "t.json"));
    ASSERT_EQ(truth["films"].size(), 1U);
    EXPECT_TRUE(std::filesystem::exists(folder / "films" / truth["films"][0]["file"].get<std::string>()));
    const Ran probe = cli("film probe '" + (folder / "films/delivery-0.mp4").string() + "' --json");
    EXPECT_EQ(json::parse(probe.out)["frames"], truth["films"][0]["frames"]);
}

TEST(Cli, ReviewsAreListedShownExportedAndVerified) {
    test::Walk walk;
    const std::string lib = "'" + walk.library->folder().string() + "'";
    const json list = json::parse(cli("review list " + lib + " --json").out);
    ASSERT_EQ(list.size(), 1U);
    EXPECT_EQ(list[0]["athlete"], "Odalys Brandt");
    EXPECT_EQ(list[0]["stage"], "send");
    const std::string id = list[0]["id"];
    const json shown = json::parse(cli("review show " + lib + " " + id + " --json").out);
    EXPECT_TRUE(shown["positions"].contains("plant"));
    EXPECT_GE(shown["measures"].size(), 12U);
    EXPECT_EQ(cli("review export " + lib + " " + id + " --out '" + (walk.folder / "out").string() +
                  "' --letter --csv")
                  .code,
              0);
    EXPECT_TRUE(std::filesystem::exists(walk.folder / "out/Odalys-2026-11-25.pdf"));
    EXPECT_TRUE(std::filesystem::exists(walk.folder / "out/Odalys-2026-11-25.csv"));
    EXPECT_TRUE(json::parse(cli("verify " + lib + " --json").out)["ok"].get<bool>());
    expectRefusal(cli("review show " + lib + " rev-none --json"), "no review");
    expectRefusal(cli("review list '" + (walk.folder / "nowhere").string() + "'"), "no library");
    std::filesystem::remove(walk.library->mediaPath(walk.submission.clips[0]));
    const json broken = json::parse(cli("verify " + lib + " --json").out);
    EXPECT_FALSE(broken["ok"].get<bool>());
    EXPECT_NE(broken["problems"][0].get<std::string>().find("missing"), std::string::npos);
}

// What a repair would do is said; it is done when that is agreed to.
TEST(Cli, VerifySaysWhatARepairWouldDoBeforeItDoesIt) {
    test::Walk walk(Stage::Measure);
    const std::string lib = "'" + walk.library->folder().string() + "'";
    test::harm(walk.library->folder(),
               "UPDATE athletes SET document = replace(document, 'Odalys', 'Odalyt')");
    const Ran told = cli("verify " + lib + " --repair");
    EXPECT_NE(told.code, 0);
    EXPECT_NE((told.out + told.err).find("counts as it reads now"), std::string::npos)
        << told.out << told.err;
    EXPECT_NE((told.out + told.err).find("--repair --yes"), std::string::npos) << told.out << told.err;
    EXPECT_FALSE(walk.library->verify().empty()); // nothing was done yet
    const Ran done = cli("verify " + lib + " --repair --yes");
    EXPECT_EQ(done.code, 0) << done.out << done.err;
    EXPECT_TRUE(walk.library->verify().empty());
}

// A real full disk: /dev/full refuses every byte (ENOSPC).
TEST(Cli, AFullDiskWhileExportingLeavesNothing) {
    test::Walk walk;
    std::filesystem::create_directories(walk.folder / "out");
    if (test::shell("mount -t tmpfs -o size=64k tmpfs '" + (walk.folder / "out").string() +
                    "' 2>&1 && echo mounted")
            .find("mounted") == std::string::npos) {
        // Not allowed to mount here: the seam's own test (AFullDiskLeavesNoHalfPdf) covers the case.
        EXPECT_EQ(writeError("x", ENOSPC).code, ErrorCode::DiskFull);
        return;
    }
    const std::string id = walk.review.id.value;
    const Ran r = cli("review export '" + walk.library->folder().string() + "' " + id + " --out '" +
                      (walk.folder / "out").string() + "' --letter --film");
    EXPECT_EQ(r.code, 1);
    EXPECT_NE(r.err.find("disk is full"), std::string::npos) << r.err;
    EXPECT_TRUE(std::filesystem::is_empty(walk.folder / "out"));
    test::shell("umount '" + (walk.folder / "out").string() + "'");
}

TEST(Cli, SendingIsCheckedBeforeItHappens) {
    test::Walk walk;
    const std::string lib = "'" + walk.library->folder().string() + "'";
    const std::string id = walk.review.id.value;
    const Ran dry = cli("send " + lib + " " + id + " --smtp smtp://127.0.0.1:1 --dry-run");
    EXPECT_EQ(dry.code, 0) << dry.err;
    EXPECT_NE(dry.out.find("odalys.home@example.org"), std::string::npos);
    Review open = *walk.library->review(walk.review.id);
    open.judging().grades.clear();
    ASSERT_TRUE(walk.library->save(open));
    expectRefusal(cli("send " + lib + " " + id + " --smtp smtp://127.0.0.1:1"), "not looked at");
}

json tell(const json& document) {
    const TempFolder folder;
    std::ofstream(folder / "tell.json") << document.dump();
    const auto said = cli("tell '" + (folder / "tell.json").string() + "' --json");
    EXPECT_EQ(said.code, 0) << said.err;
    return said.code == 0 ? json::parse(said.out) : json();
}

// The cases that letters once had wrong, through the code behind the letter.
TEST(Cli, TellKeepsToTheSideOfANumber) {
    json d = {{"format", "juxtagraph-tell-1"},
              {"approach", "load-and-drive"},
              {"age", 15},
              {"hand", "R"},
              {"reader", "player"},
              {"language", "en"}};
    d["results"] = {{{"measure", "elbow-height"}, {"value", 14}, {"sd", 2}},
                    {{"measure", "front-knee-plant"}, {"value", 150}, {"sd", 2}}};
    const json high = tell(d);
    ASSERT_EQ(high["corrections"].size(), 1U) << high.dump(1);
    const json& elbow = high["corrections"][0];
    EXPECT_EQ(elbow["side"], "above");
    EXPECT_EQ(elbow["title"], "Keep the elbow at or below the shoulders");
    EXPECT_EQ(elbow["shownAt"], "plant");
    EXPECT_EQ(elbow["cue"], "Carry the elbow no higher than your shoulders.");
    EXPECT_NE(elbow["told"].get<std::string>().find("above your shoulders"), std::string::npos) << elbow;
    d["results"][0]["value"] = -12; // a little below: what is wanted, and no minus sign
    const json good = tell(d);
    EXPECT_TRUE(good["corrections"].empty()) << good.dump(1);
    EXPECT_EQ(good.dump().find("-12"), std::string::npos) << good.dump(1);
    d["results"][0]["value"] = -57; // not good, were it below the shoulders
    const json low = tell(d);
    ASSERT_EQ(low["corrections"].size(), 1U) << low.dump(1);
    EXPECT_EQ(low["corrections"][0]["side"], "below");
    d["results"] = {{{"measure", "leg-spread"}, {"value", 88}, {"sd", 2}},
                    {{"measure", "back-knee"}, {"value", 150}, {"sd", 2}}};
    const json shortStride = tell(d);
    ASSERT_FALSE(shortStride["corrections"].empty());
    EXPECT_EQ(shortStride["corrections"][0]["row"], "back-knee"); // the root of both
    EXPECT_EQ(shortStride["corrections"][0]["why"]["from"]["row"], "back-knee");
    EXPECT_EQ(shortStride["corrections"][0]["why"]["owner"], "Load and drive");
    d["pain"] = "my elbow hurts";
    const json hurts = tell(d);
    EXPECT_FALSE(hurts["cautions"].empty());
    EXPECT_NE(hurts["nextLook"].get<std::string>().find("doctor"), std::string::npos) << hurts["nextLook"];
    d["language"] = "es";
    EXPECT_NE(tell(d)["nextLook"].get<std::string>().find("m\u00e9dico"), std::string::npos);
}

TEST(Cli, TellRefusesInWords) {
    const TempFolder folder;
    for (const auto& [text, words] :
         {std::pair{std::string("{"), "can't be read"},
          {std::string("{\"format\":\"other\"}"), "format"},
          {std::string("{\"format\":\"juxtagraph-tell-1\",\"approach\":\"none\"}"), "no approach"}}) {
        std::ofstream(folder / "tell.json") << text;
        expectRefusal(cli("tell '" + (folder / "tell.json").string() + "'"), words);
    }
}

} // namespace
} // namespace jg
