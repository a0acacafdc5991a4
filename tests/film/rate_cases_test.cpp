// SPDX-License-Identifier: GPL-3.0-or-later
// Capture rate, repeats and gaps on made films: what each is known to hold, and what may be claimed of it.
#include "desk/keeping/places.h"
#include "film/film_check.h"
#include "tests/support/fixtures.h"

#include <algorithm>
#include <map>

namespace jg {
namespace {

using test::shell;

/// How a film is made from the delivery `base` (60 a second), and all that may be said of it.
struct RateCase {
    const char* name;
    const char* extension;
    FilmOrder (*order)();
    const char* ffmpeg; ///< options that make the film from the generated one; empty = as generated
    double fps;
    RateSource source;
    int held;
    std::vector<std::string> lines; ///< of those in kClaims
};

const std::vector<std::string> kClaims = {"repeats", "blended", "frames-missing", "frames-cut",
                                          "rate-varies"};

FilmOrder plain() {
    FilmOrder order = test::smallOrder(60);
    order.camera.width = 480;
    order.camera.height = 270;
    return order;
}
template <int Fps>
FilmOrder atRate() {
    FilmOrder order = plain();
    order.fps = Fps;
    return order;
}
template <int Times>
FilmOrder held() {
    FilmOrder order = plain();
    order.repeat = Times;
    return order;
}
FilmOrder mixed() {
    FilmOrder order = plain();
    order.mixed = true;
    return order;
}
FilmOrder withGaps() {
    FilmOrder order = plain();
    order.lost = 3;
    return order;
}
FilmOrder cutInSilence() {
    FilmOrder order = plain();
    order.lost = 6;
    order.lostClosed = true;
    return order;
}

constexpr RateSource kTag = RateSource::Metadata, kAssumed = RateSource::Assumed;

const RateCase kCases[] = {
    {"as filmed at 60", ".mp4", plain, "", 60, kAssumed, 1, {}},
    {"as filmed at 30", ".mp4", atRate<30>, "", 30, kAssumed, 1, {}},
    {"as filmed at 120", ".mp4", atRate<120>, "", 120, kAssumed, 1, {}},
    {"slow copy with its tag",
     ".mp4",
     plain,
     "-itsscale 4 -i IN -c copy -movflags use_metadata_tags -metadata com.android.capture.fps=240",
     240,
     kTag,
     1,
     {}},
    {"tag as a fraction",
     ".mp4",
     plain,
     "-i IN -c copy -movflags use_metadata_tags -metadata com.android.capture.fps=119.88",
     119.88,
     kTag,
     1,
     {}},
    {"tag in a Matroska file", ".mkv", plain, "-i IN -c copy -metadata CAPTURE_FPS=240", 240, kTag, 1, {}},
    {"tag of another spelling",
     ".mov",
     plain,
     "-i IN -c copy -movflags use_metadata_tags -metadata com.larkmoor.captureFrameRate=240",
     240,
     kTag,
     1,
     {}},
    {"an attribute in a block of text",
     ".mkv",
     plain,
     "-i IN -c copy -metadata 'NOTE=<VideoFrame captureFps=\"120p\" formatFps=\"30p\"/>'",
     120,
     kTag,
     1,
     {}},
    {"a tag that is no number",
     ".mp4",
     plain,
     "-i IN -c copy -movflags use_metadata_tags -metadata com.android.capture.fps=fast",
     60,
     kAssumed,
     1,
     {}},
    {"a tag of nothing",
     ".mp4",
     plain,
     "-i IN -c copy -movflags use_metadata_tags -metadata com.android.capture.fps=0",
     60,
     kAssumed,
     1,
     {}},
    {"each picture twice", ".mp4", held<2>, "", 120, kAssumed, 2, {"repeats"}},
    {"each picture three times", ".mp4", held<3>, "", 180, kAssumed, 3, {"repeats"}},
    {"each picture four times", ".mp4", held<4>, "", 240, kAssumed, 4, {"repeats"}},
    {"each picture five times", ".mp4", held<5>, "", 300, kAssumed, 5, {"repeats"}},
    {"each picture eight times", ".mp4", held<8>, "", 480, kAssumed, 8, {"repeats"}},
    {"coded again and poorly, each twice",
     ".mp4",
     held<2>,
     "-i IN -c:v libx264 -crf 30",
     120,
     kAssumed,
     2,
     {"repeats"}},
    {"rate raised by mixing", ".mp4", mixed, "", 120, kAssumed, 1, {"blended"}},
    {"pictures dropped, time kept", ".mp4", withGaps, "", 60, kAssumed, 1, {"frames-missing"}},
    {"pictures cut out, time closed up", ".mp4", cutInSilence, "", 60, kAssumed, 1, {"frames-cut"}},
    {"an uneven rate",
     ".mkv",
     plain,
     "-i IN -vf setpts='PTS+0.3*random(1)/60/TB' -fps_mode vfr -enc_time_base 1:1000 -c:v libx264",
     60,
     kAssumed,
     1,
     {"rate-varies"}},
    {"24 a second shown at 30", ".mp4", atRate<24>, "-i IN -vf fps=30 -c:v libx264", 30, kAssumed, 1, {}},
    {"nothing moves",
     ".mp4",
     plain,
     "-i IN -vf trim=end_frame=1,loop=60:1 -c:v libx264",
     60,
     kAssumed,
     1,
     {}},
    {"one picture", ".mp4", plain, "-i IN -frames:v 1 -c:v libx264", 60, kAssumed, 1, {}},
};

TEST(RateCases, EveryClaimIsRightAndNoneIsMadeUp) {
    const auto limits = readCheckLimits(dataFolder() / "film" / "check-limits.json");
    ASSERT_TRUE(limits);
    const test::TempFolder folder;
    std::map<FilmOrder (*)(), std::filesystem::path> made; // a delivery is generated once
    for (const RateCase& c : kCases) {
        std::filesystem::path& base = made[c.order];
        if (base.empty()) {
            base = folder / ("base-" + std::to_string(made.size()) + ".mp4");
            ASSERT_TRUE(makeFilm(c.order(), base));
        }
        auto film = base;
        if (std::string options = c.ffmpeg; !options.empty()) {
            film = folder / ("film" + std::string(c.extension));
            options.replace(options.find("IN"), 2, "'" + base.string() + "'");
            const std::string said = shell("ffmpeg -v error -y " + options + " '" + film.string() + "' 2>&1");
            ASSERT_TRUE(std::filesystem::exists(film)) << c.name << ": " << said;
        }
        auto reader = Reader::open(film, {.watchErrors = true});
        ASSERT_TRUE(reader) << c.name;
        const auto check = checkFilm(**reader, *limits);
        ASSERT_TRUE(check) << c.name;
        EXPECT_NEAR((*reader)->info().captureRate.fps, c.fps, 0.06 * c.fps) << c.name;
        EXPECT_EQ((*reader)->info().captureRate.source, c.source) << c.name;
        EXPECT_EQ(check->heldTimes, c.held) << c.name;
        for (const std::string& claim : kClaims) {
            const bool said = std::any_of(check->lines.begin(), check->lines.end(),
                                          [&](const CheckLine& l) { return l.id == claim; });
            const bool due = std::find(c.lines.begin(), c.lines.end(), claim) != c.lines.end();
            EXPECT_EQ(said, due) << c.name << ": " << claim;
        }
    }
}

} // namespace
} // namespace jg
