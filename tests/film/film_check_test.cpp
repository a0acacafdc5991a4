#include "film/film_check.h"

#include "film/encoder.h"
#include "tests/support/fixtures.h"

#include <algorithm>

namespace jg {
namespace {

using test::shell;
using test::TempFolder;

bool says(const FilmCheck& check, const std::string& id) {
    return std::any_of(check.lines.begin(), check.lines.end(),
                       [&](const CheckLine& l) { return l.id == id; });
}

FilmCheck checkOf(const std::filesystem::path& film) {
    auto reader = Reader::open(film);
    EXPECT_TRUE(reader);
    auto check = checkFilm(**reader);
    EXPECT_TRUE(check);
    return *check;
}

TEST(FilmCheck, AFastCleanFilmHasOnlyItsRateToNote) {
    const TempFolder folder;
    FilmOrder order = test::smallOrder(120);
    order.camera.width = 640;
    order.camera.height = 360;
    order.cutAfterS = -0.2;
    ASSERT_TRUE(makeFilm(order, folder / "a.mp4"));
    const FilmCheck c = checkOf(folder / "a.mp4");
    for (const CheckLine& l : c.lines) EXPECT_EQ(l.level, CheckLevel::Note) << l.text;
    EXPECT_TRUE(says(c, "rate-assumed"));
    EXPECT_EQ(c.repeatPattern, "none");
}

TEST(FilmCheck, FindsDarknessSlownessAndSmallness) {
    const TempFolder folder;
    FilmOrder order = test::smallOrder(30);
    order.brightness = 0.12;
    ASSERT_TRUE(makeFilm(order, folder / "a.mp4"));
    const FilmCheck c = checkOf(folder / "a.mp4");
    EXPECT_TRUE(says(c, "dark"));
    EXPECT_TRUE(says(c, "rate-low"));
    EXPECT_TRUE(says(c, "small"));
    // The hand moves about 16 in a frame at 60 a second (common practice, no source): 32 at 30.
    for (const CheckLine& l : c.lines)
        if (l.id == "rate-low") {
            EXPECT_NE(l.text.find("32 in"), std::string::npos);
        }
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

TEST(FilmCheck, LocationDataIsNoticed) {
    const TempFolder folder;
    shell("ffmpeg -v error -y -f lavfi -i testsrc2=s=640x360:r=30:d=1 -c:v libx264 -metadata "
          "location='+54.0000+010.0000/' '" +
          (folder / "a.mp4").string() + "'");
    EXPECT_TRUE(says(checkOf(folder / "a.mp4"), "location"));
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

TEST(Encoder, RefusesOddSizes) {
    const TempFolder folder;
    EncodeSettings settings;
    settings.width = 321;
    const auto opened = Encoder::open(folder / "a.mp4", settings);
    ASSERT_FALSE(opened);
    EXPECT_NE(opened.error().text.find("even"), std::string::npos);
}

TEST(Encoder, SaysWhenItCannotWrite) {
    const TempFolder folder;
    const auto opened = Encoder::open(folder / "no/such/folder/a.mp4", EncodeSettings{});
    EXPECT_FALSE(opened);
}

} // namespace
} // namespace jg
