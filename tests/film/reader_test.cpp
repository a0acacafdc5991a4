// SPDX-License-Identifier: GPL-3.0-or-later
// Every frame against FFmpeg's own decoding (the ffmpeg command, -f framemd5 and rawvideo), forward,
// backward, at random.
#include "film/encoder.h"
#include "film/reader.h"

#include "base/file_store.h"
#include "tests/film/colours.h"
#include "tests/support/fixtures.h"

#include <algorithm>
#include <fstream>
#include <map>
#include <random>
#include <sstream>

namespace jg {
namespace {

using test::shell;
using test::TempFolder;
namespace fs = std::filesystem;

struct Made {
    const char* name;
    const char* file;
    const char* command; ///< %s = target
};

// Ten kinds of film; testsrc2 carries a running picture, so that no two frames are alike.
const Made kFilms[] = {
    {"short groups", "a.mp4", "-f lavfi -i testsrc2=s=320x180:r=30:d=2 -c:v libx264 -g 10 -bf 0"},
    {"long group with B pictures", "b.mp4",
     "-f lavfi -i testsrc2=s=320x180:r=60:d=2 -c:v libx264 -g 250 -bf 3"},
    {"open groups", "c.mp4",
     "-f lavfi -i testsrc2=s=320x180:r=30:d=3 -c:v libx264 -x264-params open-gop=1:keyint=15:bframes=3"},
    {"HEVC", "d.mp4",
     "-f lavfi -i testsrc2=s=320x180:r=30:d=2 -c:v libx265 -x265-params log-level=none:keyint=30"},
    {"VP9", "e.webm", "-f lavfi -i testsrc2=s=320x180:r=30:d=1 -c:v libvpx-vp9 -deadline realtime -g 15"},
    {"MPEG-4 in AVI", "f.avi", "-f lavfi -i testsrc2=s=320x180:r=25:d=2 -c:v mpeg4 -g 12 -bf 2"},
    {"MJPEG", "g.mov", "-f lavfi -i testsrc2=s=320x180:r=30:d=1 -c:v mjpeg -q:v 4"},
    {"one frame", "h.mp4", "-f lavfi -i testsrc2=s=320x180:r=30:d=1 -frames:v 1 -c:v libx264"},
    {"variable rate", "i.mp4",
     "-f lavfi -i testsrc2=s=320x180:r=30:d=2 -vf select='not(mod(n\\,3))+not(mod(n\\,7))' -fps_mode vfr "
     "-c:v libx264 -g 12"},
};

/// BGRX pictures as ffmpeg itself decodes them and its zscale filter colours them, then turned by the filters
/// of `turn`; BT.601 where the film says nothing.
std::vector<std::string> referencePictures(const std::filesystem::path& film, int width, int height,
                                           const std::string& turn = "") {
    const bool tagged = shell("ffprobe -v error -select_streams v -show_entries stream=color_space -of "
                              "default=nw=1:nk=1 '" +
                              film.string() + "'")
                            .starts_with("bt709");
    const std::string raw =
        shell("ffmpeg -v error -noautorotate -i '" + film.string() +
              "' -map 0:v:0 -fps_mode passthrough -vf zscale=matrixin=" + (tagged ? "709" : "170m") +
              ":matrix=gbr:range=full,format=gbrp" + turn + " -pix_fmt bgra -f rawvideo - 2>/dev/null");
    const std::size_t size = static_cast<std::size_t>(width) * static_cast<std::size_t>(height) * 4;
    std::vector<std::string> frames;
    for (std::size_t at = 0; at + size <= raw.size(); at += size) frames.push_back(raw.substr(at, size));
    return frames;
}

/// Largest difference of any colour; another size is further off than any.
int largestDifference(const Picture& p, const std::string& reference) {
    if (p.pixels->size() != reference.size()) return 256;
    const auto* theirs = reinterpret_cast<const std::uint8_t*>(reference.data());
    return test::between(p.pixels->data(), theirs, p.width, p.height, 0).largest;
}

void compareEverywhere(const std::filesystem::path& film, const char* name) {
    auto reader = Reader::open(film);
    ASSERT_TRUE(reader) << name << ": " << said(reader.error().text);
    const FilmInfo& info = (*reader)->info();
    const auto reference = referencePictures(film, info.width, info.height);
    ASSERT_EQ(info.frames(), static_cast<std::int64_t>(reference.size())) << name;
    std::vector<std::int64_t> order;
    for (std::int64_t n = 0; n < info.frames(); ++n) order.push_back(n);
    for (std::int64_t n = info.frames(); n-- > 0;) order.push_back(n);
    std::mt19937_64 engine(3);
    for (int i = 0; i < 60; ++i)
        order.push_back(static_cast<std::int64_t>(engine() % static_cast<std::uint64_t>(info.frames())));
    for (const std::int64_t n : order) {
        const auto picture = (*reader)->picture(FrameNumber{n});
        ASSERT_TRUE(picture) << name << " frame " << n << ": " << said(picture.error().text);
        ASSERT_LE(largestDifference(*picture, reference[static_cast<std::size_t>(n)]), 1)
            << name << " frame " << n;
    }
}

TEST(Reader, EveryFrameOfFfmpegsFilmsForwardBackwardAndAtRandom) {
    const TempFolder folder;
    for (const Made& m : kFilms) {
        const auto film = folder / m.file;
        shell(std::string("ffmpeg -v error -y ") + m.command + " '" + film.string() + "' 2>&1");
        ASSERT_TRUE(std::filesystem::exists(film)) << m.name;
        compareEverywhere(film, m.name);
    }
}

TEST(Reader, TheFirstPictureIsDecodedOnceFromItsOnePacket) {
    const TempFolder folder;
    for (const Made& m : kFilms) {
        const auto film = folder / m.file;
        shell(std::string("ffmpeg -v error -y ") + m.command + " '" + film.string() + "' 2>&1");
        bool shown = false;
        auto reader = Reader::open(film, {.onFirst = [&](const Picture&) { shown = true; }});
        ASSERT_TRUE(reader) << m.name;
        EXPECT_TRUE(shown) << m.name;
        ASSERT_TRUE((*reader)->frame(FrameNumber{0})) << m.name;
        // Without a table of its pictures the end is decoded too, to know that it is there.
        if (film.extension() == ".avi" || film.extension() == ".webm") continue;
        EXPECT_EQ((*reader)->packetsDecoded(), 1) << m.name;
    }
}

TEST(Reader, EveryFrameOfAGeneratedDelivery) {
    const TempFolder folder;
    FilmOrder order = test::smallOrder(60);
    order.cutAfterS = -0.4;
    order.frameNumbers = true;
    ASSERT_TRUE(makeFilm(order, folder / "x.mp4"));
    compareEverywhere(folder / "x.mp4", "generated");
    // The number burned into each picture is the frame's own.
    auto reader = Reader::open(folder / "x.mp4");
    for (std::int64_t n = (*reader)->info().frames(); n-- > 0;) {
        const auto p = (*reader)->picture(FrameNumber{n});
        ASSERT_TRUE(p);
        ASSERT_EQ(burnedNumber(p->pixels->data(), p->stride(), p->width), n);
    }
}

TEST(Reader, ATinyCacheStillGivesTheRightFrames) {
    const TempFolder folder;
    shell("ffmpeg -v error -y -f lavfi -i testsrc2=s=320x180:r=60:d=1 -c:v libx264 -g 250 -bf 3 '" +
          (folder / "a.mp4").string() + "'");
    auto reader = Reader::open(folder / "a.mp4", {std::make_shared<FrameBudget>(200000)});
    ASSERT_TRUE(reader);
    const auto reference = referencePictures(folder / "a.mp4", 320, 180);
    for (std::int64_t n = (*reader)->info().frames(); n-- > 0;) {
        const auto p = (*reader)->picture(FrameNumber{n});
        ASSERT_TRUE(p);
        ASSERT_LE(largestDifference(*p, reference[static_cast<std::size_t>(n)]), 1) << n;
        ASSERT_LE((*reader)->cacheBytes(), 300000U);
    }
}

// Rotations: the picture turned as its tag says, by ffmpeg's own filters.
TEST(Reader, RotatedFilmsStandUpright) {
    const TempFolder folder;
    const auto flat = folder / "flat.mp4";
    shell("ffmpeg -v error -y -f lavfi -i testsrc2=s=320x180:r=10:d=1 -c:v libx264 '" + flat.string() + "'");
    const std::map<int, std::string> kTurns = {
        {90, ",transpose=cclock"}, {180, ",hflip,vflip"}, {270, ",transpose=clock"}};
    for (const auto& [turn, filters] : kTurns) {
        const auto film = folder / ("r" + std::to_string(turn) + ".mp4");
        shell("ffmpeg -v error -y -i '" + flat.string() +
              "' -c copy -metadata:s:v rotate=" + std::to_string(turn) + " '" + film.string() + "'");
        auto reader = Reader::open(film);
        ASSERT_TRUE(reader);
        const FilmInfo& info = (*reader)->info();
        EXPECT_EQ(info.width, turn == 180 ? 320 : 180);
        const auto reference = referencePictures(film, info.width, info.height, filters);
        ASSERT_FALSE(reference.empty());
        EXPECT_LE(largestDifference(*(*reader)->picture(FrameNumber{3}), reference[3]), 1) << turn;
    }
}

TEST(Reader, PtsAgreeWithFfprobe) {
    const TempFolder folder;
    shell("ffmpeg -v error -y -f lavfi -i testsrc2=s=320x180:r=30:d=2 -c:v libx264 -bf 3 '" +
          (folder / "a.mp4").string() + "'");
    auto reader = Reader::open(folder / "a.mp4");
    std::istringstream lines(
        shell("ffprobe -v error -select_streams v -show_entries packet=pts -of default=nw=1:nk=1 '" +
              (folder / "a.mp4").string() + "' | sort -n"));
    std::int64_t expected = 0;
    for (const Pts pts : (*reader)->info().pts) {
        ASSERT_TRUE(lines >> expected);
        EXPECT_EQ(pts.value, expected);
    }
    EXPECT_FALSE(lines >> expected);
}

// ---- refusals ----

TEST(Reader, RefusesWhatIsNoFilmInOneSentence) {
    const TempFolder folder;
    std::ofstream(folder / "empty.mp4");
    std::ofstream(folder / "text.mp4") << "this is only a letter to the coach\n";
    shell("ffmpeg -v error -y -f lavfi -i sine=d=1 '" + (folder / "sound.m4a").string() + "'");
    const struct {
        std::filesystem::path path;
        ErrorCode code;
        const char* words;
    } cases[] = {{folder / "none.mp4", ErrorCode::NotFound, "no file"},
                 {folder / "empty.mp4", ErrorCode::BadInput, "is empty"},
                 {folder / "text.mp4", ErrorCode::BadInput, "not a film"},
                 {folder / "sound.m4a", ErrorCode::BadInput, "no moving picture"},
                 {folder.path(), ErrorCode::BadInput, "is a folder"}};
    for (const auto& c : cases) {
        const auto opened = Reader::open(c.path);
        ASSERT_FALSE(opened) << c.path;
        EXPECT_EQ(opened.error().code, c.code) << c.path;
        EXPECT_NE(said(opened.error().text).find(c.words), std::string::npos) << said(opened.error().text);
    }
}

TEST(Reader, AFolderOrFileThatMayNotBeReadIsNamed) {
    test::TempFolder folder;
    const fs::path locked = folder / "locked", film = locked / "a.mp4";
    fs::create_directory(locked);
    std::ofstream(film) << "x";
    fs::permissions(folder.path(), fs::perms(0755));
    fs::permissions(locked, fs::perms::none);
    fs::permissions(film, fs::perms::none);
    {
        const test::AsNobody nobody;
        const auto hidden = Reader::open(film);
        ASSERT_FALSE(hidden);
        EXPECT_EQ(hidden.error().code, ErrorCode::Unreadable);
        EXPECT_NE(said(hidden.error().text).find("Check the folder's permissions"), std::string::npos);
    }
    fs::permissions(locked, fs::perms(0755));
    const test::AsNobody nobody;
    const auto shut = Reader::open(film);
    ASSERT_FALSE(shut);
    EXPECT_EQ(shut.error().code, ErrorCode::Unreadable);
    EXPECT_NE(said(shut.error().text).find("may not be read"), std::string::npos);
}

TEST(Reader, AFilmCutShortOpensAsFarAsItGoes) {
    const TempFolder folder;
    const auto whole = folder / "whole.mp4";
    shell("ffmpeg -v error -y -f lavfi -i testsrc2=s=320x180:r=30:d=4 -c:v libx264 -g 15 -movflags "
          "+faststart '" +
          whole.string() + "'");
    const auto size = std::filesystem::file_size(whole);
    auto bytes = readFile(whole);
    ASSERT_TRUE(bytes);
    std::ofstream(folder / "cut.mp4", std::ios::binary) << bytes->substr(0, size * 6 / 10);
    auto reader = Reader::open(folder / "cut.mp4");
    ASSERT_TRUE(reader) << said(reader.error().text);
    const FilmInfo& info = (*reader)->info();
    EXPECT_FALSE(info.complete);
    EXPECT_GT(info.frames(), 20);
    EXPECT_LT(info.frames(), 120);
    EXPECT_TRUE((*reader)->picture(FrameNumber{info.frames() - 1}));
    EXPECT_FALSE((*reader)->picture(FrameNumber{info.frames()}));
}

TEST(Reader, AFrameOutsideTheFilmIsRefused) {
    const TempFolder folder;
    shell("ffmpeg -v error -y -f lavfi -i testsrc2=s=320x180:r=30:d=1 -c:v libx264 '" +
          (folder / "a.mp4").string() + "'");
    auto reader = Reader::open(folder / "a.mp4");
    for (const std::int64_t n : {-1L, 30L, 100000L}) {
        const auto p = (*reader)->picture(FrameNumber{n});
        ASSERT_FALSE(p);
        EXPECT_NE(said(p.error().text).find("frames 0 to 29"), std::string::npos);
    }
}

TEST(Reader, StopsWhenAsked) {
    const TempFolder folder;
    shell("ffmpeg -v error -y -f lavfi -i testsrc2=s=320x180:r=60:d=2 -c:v libx264 -g 250 '" +
          (folder / "a.mp4").string() + "'");
    auto reader = Reader::open(
        folder / "a.mp4",
        {std::make_shared<FrameBudget>(200000)}); // a small cache, so that the frame must be decoded
    std::stop_source stop;
    stop.request_stop();
    const auto stopped = (*reader)->picture(FrameNumber{60}, stop.get_token());
    ASSERT_FALSE(stopped);
    EXPECT_EQ(stopped.error().code, ErrorCode::Cancelled);
    EXPECT_TRUE((*reader)->picture(FrameNumber{60})); // and works again afterwards
}

} // namespace
} // namespace jg
