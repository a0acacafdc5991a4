// SPDX-License-Identifier: GPL-3.0-or-later
// Broken and hostile films: changed bytes, damaged stretches, claims of sizes and streams that are not there.
#include "base/file_store.h"
#include "desk/intake/intake.h"
#include "desk/keeping/places.h"
#include "film/film_check.h"
#include "tests/support/fixtures.h"

#include <fstream>
#include <map>

#include <sys/stat.h>

namespace jg {
namespace {

namespace fs = std::filesystem;
using test::shell;

/// Small films of several containers and codecs.
void makeSeeds(const fs::path& folder) {
    const char* source = "ffmpeg -v error -y -f lavfi -i testsrc2=s=96x64:r=30:d=0.6 ";
    for (const char* rest :
         {"-c:v libx264 -g 8 -bf 2 seed-a.mp4", "-c:v libx264 -g 8 seed-b.mkv",
          "-c:v mpeg4 -g 8 -bf 2 seed-c.avi", "-c:v mjpeg seed-d.mov",
          "-c:v libx265 -x265-params log-level=none:keyint=8 seed-e.mp4",
          "-c:v libvpx-vp9 -deadline realtime -g 8 seed-f.webm", "-c:v mpeg2video -g 8 seed-g.ts"})
        shell("cd '" + folder.string() + "' && " + source + rest + " 2>&1");
}

/// JUXTAGRAPH_MUTANTS sets how many; every mutant is the same in every run.
TEST(Broken, MutatedFilmsNeitherCrashNorHang) {
    const test::TempFolder folder;
    makeSeeds(folder.path());
    const char* asked = std::getenv("JUXTAGRAPH_MUTANTS");
    const int count = asked ? std::atoi(asked) : 400;
    int code = -1;
    const std::string said = shell("'" + (test::binFolder() / "mutants").string() + "' 0 " +
                                       std::to_string(count) + " '" + folder.path().string() + "' 2>&1",
                                   &code);
    EXPECT_EQ(code, 0) << said;
    EXPECT_NE(said.find(std::to_string(count) + " mutants"), std::string::npos) << said;
}

TEST(Broken, DamagedStretchesAreFoundAndTheRestCanBeSeen) {
    const test::TempFolder folder;
    FilmOrder order = test::smallOrder();
    order.damagedBytes = 6;
    ASSERT_TRUE(makeFilm(order, folder / "a.mp4"));
    const auto limits = readCheckLimits(dataFolder() / "film" / "check-limits.json");
    auto reader = Reader::open(folder / "a.mp4", {.watchErrors = true});
    ASSERT_TRUE(reader);
    const auto check = checkFilm(**reader, *limits);
    ASSERT_TRUE(check);
    ASSERT_FALSE(check->damaged.empty());
    for (const auto& [first, last] : check->damaged) {
        EXPECT_LE(first, last);
        EXPECT_LT(last, (*reader)->info().frames());
    }
    for (int again = 0; again < 8; ++again) { // frame threads told it only sometimes
        auto other = Reader::open(folder / "a.mp4", {.watchErrors = true});
        EXPECT_EQ(checkFilm(**other, *limits)->damaged, check->damaged) << again;
    }
    EXPECT_TRUE(std::any_of(check->lines.begin(), check->lines.end(),
                            [](const auto& l) { return l.id == "damaged"; }));
    EXPECT_TRUE((*reader)->picture(FrameNumber{0}));
}

/// Beside the same film unharmed: whatever looks different lies in a marked stretch.
TEST(Broken, EveryPictureThatLooksWrongIsMarked) {
    for (const std::uint64_t seed : {3U, 8U, 21U}) {
        const test::TempFolder folder;
        FilmOrder order = test::smallOrder();
        order.seed = seed;
        ASSERT_TRUE(makeFilm(order, folder / "whole.mp4"));
        order.damagedBytes = 40;
        ASSERT_TRUE(makeFilm(order, folder / "harmed.mp4"));
        auto whole = Reader::open(folder / "whole.mp4"),
             harmed = Reader::open(folder / "harmed.mp4", {.watchErrors = true});
        ASSERT_TRUE(whole && harmed);
        const auto limits = readCheckLimits(dataFolder() / "film" / "check-limits.json");
        const auto check = checkFilm(**harmed, *limits);
        ASSERT_TRUE(check);
        int wrong = 0;
        for (std::int64_t n = 0; n < (*harmed)->info().frames(); ++n) {
            const bool marked =
                std::any_of(check->damaged.begin(), check->damaged.end(),
                            [&](const FrameRange& r) { return r.first <= n && n <= r.second; });
            const auto a = (*whole)->grey(FrameNumber{n}, 96), b = (*harmed)->grey(FrameNumber{n}, 96);
            ASSERT_TRUE(a);
            if (!b) {
                EXPECT_TRUE(marked) << n;
                continue;
            }
            double off = 0;
            for (std::size_t i = 0; i < a->pixels.size(); ++i) off += std::abs(a->pixels[i] - b->pixels[i]);
            if (off / static_cast<double>(a->pixels.size()) < 3) continue;
            ++wrong;
            EXPECT_TRUE(marked) << "seed " << seed << ", picture " << n;
        }
        EXPECT_GT(wrong, 0) << seed;
    }
}

TEST(Broken, AFilmThatChangesItsSizeIsLookedThrough) {
    const test::TempFolder folder;
    const std::string f = folder.path().string();
    shell("cd '" + f +
          "' && for s in 96x64 320x180 64x96; do ffmpeg -v error -y -f lavfi -i testsrc2=s=$s:r=30:d=0.5 "
          "-c:v mpeg2video $s.ts; done; cat 96x64.ts 320x180.ts 64x96.ts > all.ts");
    const auto looked = lookAtFilm(folder / "all.ts");
    ASSERT_TRUE(looked) << said(looked.error().text);
    EXPECT_GT(looked->info.frames(), 15);
    auto reader = Reader::open(folder / "all.ts");
    ASSERT_TRUE(reader);
    for (std::int64_t n = 0; n < (*reader)->info().frames(); n += 7) {
        const auto picture = (*reader)->picture(FrameNumber{n});
        ASSERT_TRUE(picture);
        EXPECT_EQ(picture->width, 96); // all of one size for the marks
    }
}

TEST(Broken, ALongFilmIsLookedThroughInPartAndSaysSo) {
    const test::TempFolder folder;
    const fs::path film = folder / "long.mp4";
    shell("ffmpeg -v error -y -f lavfi -i testsrc2=s=96x64:r=30:d=3 -c:v mpeg4 '" + film.string() + "'");
    auto reader = Reader::open(film);
    ASSERT_TRUE(reader);
    auto limits = readCheckLimits(dataFolder() / "film" / "check-limits.json");
    ASSERT_TRUE(limits);
    const auto says = [&] {
        const auto check = checkFilm(**reader, *limits, {});
        return std::any_of(check->lines.begin(), check->lines.end(),
                           [](const CheckLine& l) { return std::string_view(l.id) == "long"; });
    };
    EXPECT_FALSE(says());
    limits->mostPictures = 40;
    EXPECT_TRUE(says());
    EXPECT_EQ(checkFilm(**reader, *limits, {})->survey.frames.size(), 40U);
}

/// So many thousand pictures, sixteen wide and high, copied from one thousand.
fs::path tinyFrames(const test::TempFolder& folder, int thousands) {
    const std::string a = (folder / "a.mkv").string(), many = (folder / "many.mp4").string();
    shell("ffmpeg -v error -y -f lavfi -i testsrc2=s=16x16:r=1000:d=1 -c:v mpeg4 -g 50 '" + a + "'");
    shell("ffmpeg -v error -y -stream_loop " + std::to_string(thousands - 1) + " -i '" + a + "' -c copy '" +
          many + "'");
    return many;
}

TEST(Broken, AMillionTinyPicturesTakeLittleMemoryAndShowTheLast) {
    const test::TempFolder folder;
    const fs::path many = tinyFrames(folder, 1000);
    const std::size_t before = test::statusBytes("VmRSS");
    auto reader = Reader::open(many);
    ASSERT_TRUE(reader) << said(reader.error().text);
    const std::int64_t frames = (*reader)->info().frames();
    EXPECT_GE(frames, 990'000);
    EXPECT_TRUE((*reader)->picture(FrameNumber{frames - 1}));
    EXPECT_TRUE((*reader)->picture(FrameNumber{frames / 2}));
    if (!test::kMemoryIsTheSanitizers) {
        EXPECT_LT(test::statusBytes("VmRSS") - before, 300'000'000U); // the file's table: 50 bytes a picture
    }
}

TEST(Broken, OpeningAMillionPicturesCanBeStopped) {
    const test::TempFolder folder;
    const fs::path many = tinyFrames(folder, 300);
    std::stop_source stop;
    stop.request_stop();
    const auto reader = Reader::open(many, {}, stop.get_token());
    ASSERT_FALSE(reader);
    EXPECT_EQ(reader.error().code, ErrorCode::Cancelled);
}

TEST(Broken, AFilmOfYearsInThreePicturesIsSeenAndChecked) {
    const test::TempFolder folder;
    shell("ffmpeg -v error -y -f lavfi -i testsrc2=s=96x64:r=30:d=0.1 -vf 'setpts=N*1e8/TB' -fps_mode "
          "passthrough "
          "-c:v mjpeg '" +
          (folder / "years.mkv").string() + "'");
    const auto looked = lookAtFilm(folder / "years.mkv");
    ASSERT_TRUE(looked) << said(looked.error().text);
    EXPECT_EQ(looked->info.frames(), 3);
    EXPECT_NEAR(looked->info.durationS, 2e8, 1e8 + 1);
    EXPECT_FALSE(looked->check.lines.empty());
}

TEST(Broken, ACleanFilmHasNoDamage) {
    const test::TempFolder folder;
    ASSERT_TRUE(makeFilm(test::smallOrder(), folder / "a.mp4"));
    auto reader = Reader::open(folder / "a.mp4");
    const auto limits = readCheckLimits(dataFolder() / "film" / "check-limits.json");
    EXPECT_TRUE(checkFilm(**reader, *limits)->damaged.empty());
}

/// Overwrites the picture's size in the sample description of an MP4.
TEST(Broken, AnImpossibleSizeIsRefusedInASentence) {
    const test::TempFolder folder;
    shell("ffmpeg -v error -y -f lavfi -i testsrc2=s=96x64:r=30:d=0.3 -c:v mjpeg '" +
          (folder / "a.mov").string() + "'");
    std::string bytes = *readFile(folder / "a.mov");
    const std::size_t entry = bytes.find("jpeg", bytes.find("stsd"));
    ASSERT_NE(entry, std::string::npos);
    for (std::size_t i = 0; i < 4; ++i) bytes[entry + 4 + 24 + i] = static_cast<char>(0xff);
    std::ofstream(folder / "bomb.mov", std::ios::binary) << bytes;
    const auto opened = Reader::open(folder / "bomb.mov");
    if (!opened) {
        EXPECT_FALSE(said(opened.error().text).empty());
        return;
    }
    EXPECT_LE((*opened)->info().width, 8192); // the pictures' own size was believed instead
}

TEST(Broken, ThousandsOfStreamsAreRefused) {
    const test::TempFolder folder;
    std::string inputs, maps;
    for (int i = 0; i < 70; ++i) maps += " -map 0";
    shell("ffmpeg -v error -y -f lavfi -i testsrc2=s=32x32:r=5:d=0.4" + maps + " -c:v mpeg4 '" +
          (folder / "many.mkv").string() + "'");
    ASSERT_TRUE(fs::exists(folder / "many.mkv"));
    EXPECT_FALSE(Reader::open(folder / "many.mkv"));
}

TEST(Broken, AListThatPointsAtOtherFilmsIsNoFilm) {
    const test::TempFolder folder;
    ASSERT_TRUE(makeFilm(test::smallOrder(), folder / "other.mp4"));
    const std::map<std::string, std::string> lists = {
        {"concat.mp4", "ffconcat version 1.0\nfile other.mp4\n"},
        {"playlist.mp4", "#EXTM3U\n#EXT-X-TARGETDURATION:5\n#EXTINF:5,\nother.mp4\n#EXT-X-ENDLIST\n"},
        {"dash.mp4",
         "<?xml version=\"1.0\"?><MPD xmlns=\"urn:mpeg:dash:schema:mpd:2011\" "
         "mediaPresentationDuration=\"PT4S\"><Period><AdaptationSet><Representation id=\"1\" "
         "bandwidth=\"1\"><BaseURL>other.mp4</BaseURL></Representation></AdaptationSet></Period></MPD>"}};
    for (const auto& [name, text] : lists) {
        std::ofstream(folder / name) << text;
        const auto opened = Reader::open(folder / name);
        ASSERT_FALSE(opened) << name;
        EXPECT_EQ(opened.error().code, ErrorCode::BadInput) << name;
    }
}

TEST(Broken, APipeOrADeviceIsNoFilmAndIsNotWaitedFor) {
    const test::TempFolder folder;
    ASSERT_EQ(::mkfifo((folder / "pipe.mp4").c_str(), 0600), 0);
    for (const auto& path : {folder / "pipe.mp4", std::filesystem::path("/dev/zero")}) {
        const auto opened = Reader::open(path);
        ASSERT_FALSE(opened);
        EXPECT_NE(said(opened.error().text).find("device or a pipe"), std::string::npos)
            << said(opened.error().text);
    }
}

/// A small film whose pixels are said to be of `aspect` ("400/1").
fs::path filmOfPixels(const test::TempFolder& folder, const std::string& aspect) {
    const fs::path film = folder / "pixels.mp4";
    shell("ffmpeg -v error -y -f lavfi -i testsrc2=s=320x240:r=30:d=0.3 -vf setsar=" + aspect +
          " -c:v libx264 '" + film.string() + "'");
    return film;
}

TEST(Broken, PixelsThatNoCameraWritesAreRefused) {
    for (const char* aspect : {"400/1", "200/1", "1/90", "5/1", "1/5"}) {
        const test::TempFolder folder;
        const auto opened = Reader::open(filmOfPixels(folder, aspect));
        ASSERT_FALSE(opened) << aspect;
        EXPECT_EQ(opened.error().code, ErrorCode::BadInput) << aspect;
        EXPECT_NE(said(opened.error().text).find("pixels are"), std::string::npos)
            << said(opened.error().text);
    }
    for (const char* aspect : {"4/3", "16/11", "2/1", "1/2"}) { // those of cameras and discs
        const test::TempFolder folder;
        const auto opened = Reader::open(filmOfPixels(folder, aspect));
        ASSERT_TRUE(opened) << aspect << said(opened.error().text);
    }
}

TEST(Broken, PicturesTooSmallToShowAnAthleteAreRefused) {
    const test::TempFolder folder;
    shell("ffmpeg -v error -y -f lavfi -i testsrc2=s=64x8:r=30:d=0.3 -c:v libx264 '" +
          (folder / "slit.mp4").string() + "'");
    const auto opened = Reader::open(folder / "slit.mp4");
    ASSERT_FALSE(opened);
    EXPECT_NE(said(opened.error().text).find("64 x 8"), std::string::npos) << said(opened.error().text);
}

} // namespace
} // namespace jg
