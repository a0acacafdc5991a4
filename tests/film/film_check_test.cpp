// SPDX-License-Identifier: GPL-3.0-or-later
#include "film/film_check.h"

#include "demo/films/figure.h"
#include "desk/keeping/places.h"
#include "film/encoder.h"
#include "film/scrub_copy.h"
#include "tests/support/fixtures.h"

#include <algorithm>
#include <fstream>

namespace jg {
namespace {

using test::shell;
using test::TempFolder;

const CheckLine* lineOf(const FilmCheck& check, const std::string& id) {
    const auto it =
        std::find_if(check.lines.begin(), check.lines.end(), [&](const CheckLine& l) { return l.id == id; });
    return it == check.lines.end() ? nullptr : &*it;
}

bool says(const FilmCheck& check, const std::string& id) {
    return lineOf(check, id) != nullptr;
}

const CheckLimits& limits() {
    static const CheckLimits shipped = [] {
        auto read = readCheckLimits(dataFolder() / "film" / "check-limits.json");
        EXPECT_TRUE(read) << said(read.error().text);
        return *read;
    }();
    return shipped;
}

FilmCheck checkOf(const std::filesystem::path& film, const CheckQuestion& question = {}) {
    auto reader = Reader::open(film, {.watchErrors = true});
    EXPECT_TRUE(reader);
    auto check = checkFilm(**reader, limits(), question);
    EXPECT_TRUE(check);
    return *check;
}

FilmOrder sideOrder(int fps = 60) {
    FilmOrder order = test::smallOrder(fps);
    order.camera.width = 640;
    order.camera.height = 360;
    return order;
}

FilmCheck checkOf(const FilmOrder& order, const CheckQuestion& question = {}) {
    const TempFolder folder;
    EXPECT_TRUE(makeFilm(order, folder / "a.mp4"));
    return checkOf(folder / "a.mp4", question);
}

const CheckQuestion kRightFromOpenSide{120, 1, asIs("a right-hander seen from the open side"), true};

TEST(FilmCheck, CleanFilmsHaveNothingToWarnOf) {
    for (const std::uint64_t seed : {1U, 5U, 9U}) {
        FilmOrder order = sideOrder();
        order.seed = seed;
        order.knobs.heightM = 1.5 + 0.04 * static_cast<double>(seed);
        const FilmCheck c = checkOf(order, kRightFromOpenSide);
        for (const CheckLine& l : c.lines) ADD_FAILURE() << l.id << ": " << l.text;
        EXPECT_EQ(c.repeatPattern, "none");
        EXPECT_TRUE(c.damaged.empty());
    }
}

/// A film made with one fault, and the line that must say so. Nothing else may warn.
struct Fault {
    const char* id;
    void (*make)(FilmOrder&);
};

const Fault kFaults[] = {
    {"dark", [](FilmOrder& o) { o.brightness = 0.12; }},
    {"blurred", [](FilmOrder& o) { o.shutter = 0.9; }},
    {"frames-missing", [](FilmOrder& o) { o.lost = 3; }},
    {"frames-cut", [](FilmOrder& o) { o.lost = 6, o.lostClosed = true; }},
    {"shake", [](FilmOrder& o) { o.shakePx = 7; }},
    {"tilt", [](FilmOrder& o) { o.camera.rollDeg = -4; }},
    {"not-square", [](FilmOrder& o) { o.camera.yawDeg = 18; }},
    {"athlete-small", [](FilmOrder& o) { o.camera.fieldM = 9; }},
    {"athlete-cut", [](FilmOrder& o) { o.camera.fieldM = 2.4; }},
    {"ends-early", [](FilmOrder& o) { o.cutAfterS = 0.1; }},
    {"starts-late", [](FilmOrder& o) { o.startAtS = -0.12; }},
    {"no-stillness", [](FilmOrder& o) { o.startAtS = -0.86; }},
    {"mirrored", [](FilmOrder& o) { o.hand = Hand::Left; }},
    {"silent", [](FilmOrder& o) { o.sound = false; }},
};

TEST(FilmCheck, EachFaultIsFoundOnAFilmMadeWithIt) {
    for (const Fault& fault : kFaults) {
        FilmOrder order = sideOrder();
        fault.make(order);
        CheckQuestion question = kRightFromOpenSide;
        const FilmCheck c = checkOf(order, question);
        const CheckLine* line = lineOf(c, fault.id);
        ASSERT_TRUE(line) << fault.id;
        EXPECT_FALSE(line->text.empty());
        if (line->figure && line->limit) {
            EXPECT_NE(*line->figure, *line->limit) << fault.id;
        }
        if (line->frames) {
            EXPECT_LT(line->frames->second, static_cast<std::int64_t>(c.survey.frames.size())) << fault.id;
        }
    }
}

TEST(FilmCheck, TiltAndTurnAreNearTheCamerasOwn) {
    FilmOrder order = sideOrder(60);
    order.camera.rollDeg = 3;
    EXPECT_NEAR(checkOf(order).survey.lines.tiltDeg.value_or(0), 3, 0.5);
    order.camera.rollDeg = 0;
    order.camera.yawDeg = 20;
    const double turned = std::abs(checkOf(order).survey.lines.turnedDeg.value_or(0));
    EXPECT_GT(turned, 8); // the lens is not known: it may be twice as much
    EXPECT_LT(turned, 28);
}

TEST(FilmCheck, FindsDarknessSlownessAndSmallness) {
    FilmOrder order = test::smallOrder(30);
    order.brightness = 0.12;
    const FilmCheck c = checkOf(order);
    EXPECT_TRUE(says(c, "dark"));
    EXPECT_FALSE(says(c, "shake")); // the camera stands still; only noise moves
    EXPECT_TRUE(says(c, "small"));
    // The hand moves about 16 in a frame at 60 a second (common practice, no source): 32 at 30.
    ASSERT_TRUE(says(c, "rate-low"));
    EXPECT_NE(said(lineOf(c, "rate-low")->text).find("32 in"), std::string::npos);
}

TEST(FilmCheck, TheCoachsWordOnTheRateCounts) {
    const FilmOrder order = sideOrder(30);
    CheckQuestion slowMotion;
    slowMotion.statedFps = 240;
    EXPECT_FALSE(says(checkOf(order, slowMotion), "rate-low"));
    EXPECT_FALSE(says(checkOf(order, slowMotion), "rate-assumed"));
}

TEST(FilmCheck, ARateRaisedByMixingPicturesIsFound) {
    const TempFolder folder;
    ASSERT_TRUE(makeFilm(sideOrder(60), folder / "a.mp4"));
    shell("ffmpeg -v error -y -i '" + (folder / "a.mp4").string() +
          "' -vf minterpolate=fps=120:mi_mode=blend -c:v libx264 -crf 16 '" +
          (folder / "mixed.mp4").string() + "'");
    EXPECT_TRUE(says(checkOf(folder / "mixed.mp4"), "blended"));
    EXPECT_FALSE(says(checkOf(folder / "a.mp4"), "blended"));
}

TEST(FilmCheck, MissingLimitsAreNamed) {
    const TempFolder folder;
    std::ofstream(folder / "limits.json") << R"({"enoughRateFps": 110})";
    const auto read = readCheckLimits(folder / "limits.json");
    ASSERT_FALSE(read);
    EXPECT_NE(said(read.error().text).find("handInchesPerSecond"), std::string::npos);
}

TEST(FilmCheck, ASlowMotionCopyIsFoundAndAPlainFilmIsNotClaimed) {
    const TempFolder folder;
    ASSERT_TRUE(makeFilm(test::smallOrder(120), folder / "a.mp4"));
    shell("ffmpeg -v error -y -i '" + (folder / "a.mp4").string() +
          "' -an -vf setpts=4*PTS,fps=120 -c:v libx264 '" + (folder / "slow.mp4").string() + "'");
    EXPECT_EQ(checkOf(folder / "a.mp4").repeatPattern, "none");
    const FilmCheck slow = checkOf(folder / "slow.mp4");
    EXPECT_EQ(slow.repeatPattern, "each picture is shown 4 times");
    EXPECT_TRUE(says(slow, "silent"));
}

TEST(FilmCheck, PlaceAndDeviceAreShownAndNoScrubCopyCarriesThem) {
    const TempFolder folder;
    shell(
        "ffmpeg -v error -y -f lavfi -i testsrc2=s=640x360:r=30:d=1 -c:v libx264 -movflags use_metadata_tags "
        "-metadata location='+54.0000+010.0000/' -metadata make=Larkmoor -metadata model='Shed One' '" +
        (folder / "a.mp4").string() + "'");
    EXPECT_TRUE(says(checkOf(folder / "a.mp4"), "location"));
    auto reader = Reader::open(folder / "a.mp4");
    ASSERT_TRUE(reader);
    EXPECT_GE((*reader)->info().privateTags.size(), 3U);
    FileStore files;
    ASSERT_TRUE(makeScrubCopy(**reader, folder / "scrub.mov", files));
    const auto scrub = Reader::open(folder / "scrub.mov");
    ASSERT_TRUE(scrub);
    EXPECT_TRUE((*scrub)->info().privateTags.empty());
    EXPECT_FALSE((*scrub)->info().locationData);
}

TEST(FilmCheck, ACaptureRateInTheFileIsBelieved) {
    const TempFolder folder;
    EncodeSettings settings;
    settings.width = 64;
    settings.height = 64;
    settings.captureFps = 240;
    auto encoder = Encoder::open(folder / "a.mp4", settings);
    ASSERT_TRUE(encoder);
    const std::vector<std::uint8_t> pixels(64 * 64 * 4, 90);
    for (int i = 0; i < 12; ++i) ASSERT_TRUE((*encoder)->addPicture(pixels.data(), 64 * 4));
    ASSERT_TRUE((*encoder)->finish());
    auto reader = Reader::open(folder / "a.mp4");
    ASSERT_TRUE(reader);
    EXPECT_EQ((*reader)->info().captureRate.source, RateSource::Metadata);
    EXPECT_NEAR((*reader)->info().captureRate.fps, 240, 1e-3);
}

TEST(Encoder, APictureRepeatedIsThePictureAddedAgain) {
    const TempFolder folder;
    const std::vector<std::uint8_t> grey(64 * 64 * 4, 90), light(64 * 64 * 4, 200);
    const auto film = [&](const char* name, bool repeated) {
        EncodeSettings settings;
        settings.width = settings.height = 64;
        auto encoder = Encoder::open(folder / name, settings);
        EXPECT_TRUE(encoder);
        EXPECT_EQ((*encoder)->repeatPicture().error().code, ErrorCode::Internal); // there is none yet
        for (const auto* pixels : {&grey, &light})
            for (int i = 0; i < 5; ++i)
                EXPECT_TRUE(repeated && i > 0 ? (*encoder)->repeatPicture()
                                              : (*encoder)->addPicture(pixels->data(), 64 * 4));
        EXPECT_TRUE((*encoder)->finish());
        std::ifstream file(folder / name, std::ios::binary);
        return std::string(std::istreambuf_iterator<char>(file), {});
    };
    const std::string added = film("added.mp4", false);
    EXPECT_GT(added.size(), 1000U);
    EXPECT_EQ(added, film("repeated.mp4", true));
}

TEST(Encoder, RefusesOddSizes) {
    const TempFolder folder;
    EncodeSettings settings;
    settings.width = 321;
    const auto opened = Encoder::open(folder / "a.mp4", settings);
    ASSERT_FALSE(opened);
    EXPECT_NE(said(opened.error().text).find("even"), std::string::npos);
}

TEST(Encoder, SaysWhenItCannotWrite) {
    const TempFolder folder;
    const auto opened = Encoder::open(folder / "no/such/folder/a.mp4", EncodeSettings{});
    EXPECT_FALSE(opened);
}

} // namespace
} // namespace jg
