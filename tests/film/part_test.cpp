// SPDX-License-Identifier: GPL-3.0-or-later
// A part of a frame at another size, as pixels and as planes, against FFmpeg's own crop and zscale filters
// (the ffmpeg command).
#include "film/encoder.h"
#include "film/ffmpeg_handles.h"
#include "film/reader.h"

#include "review/record/deliveries.h"
#include "tests/film/colours.h"
#include "tests/support/fixtures.h"

namespace jg {
namespace {

using test::shell;
using test::TempFolder;
namespace fs = std::filesystem;

/// BGRX pixels of a size, and where they are written.
struct Pixels {
    Pixels(int width, int height)
        : bytes(std::size_t{4} * static_cast<std::size_t>(width) * static_cast<std::size_t>(height), 7)
        , room{bytes.data(), width * 4, width, height} {}
    std::vector<std::uint8_t> bytes;
    PictureRoom room;
};

std::vector<std::uint8_t> bytesOf(const std::string& text) {
    return {text.begin(), text.end()};
}

fs::path filmOf(const TempFolder& folder, const char* name, const std::string& options) {
    const fs::path film = folder / name;
    shell("ffmpeg -v error -y " + options + " '" + film.string() + "' 2>&1");
    return film;
}

const std::string kSource = "-f lavfi -i testsrc2=s=320x180:r=10:d=1 ";

/// The part of a picture that begins and ends between pixels nowhere.
std::vector<std::uint8_t> cropped(const Picture& p, int left, int top, int width, int height) {
    std::vector<std::uint8_t> part;
    for (int y = top; y < top + height; ++y) {
        const std::uint8_t* row = p.row(y) + std::ptrdiff_t{4} * left;
        part.insert(part.end(), row, row + std::ptrdiff_t{4} * width);
    }
    return part;
}

// Whichever way it is stored: turned, with other colours, with planes that are not known.
TEST(Part, AtItsOwnSizeIsThatPartOfThePicture) {
    const TempFolder folder;
    const fs::path flat = filmOf(folder, "flat.mp4", kSource + "-c:v libx264");
    const std::pair<const char*, std::string> kFilms[] = {
        {"a.mp4", kSource + "-c:v libx264 -colorspace bt709"},
        {"r90.mp4", "-i '" + flat.string() + "' -c copy -metadata:s:v rotate=90"},
        {"r180.mp4", "-i '" + flat.string() + "' -c copy -metadata:s:v rotate=180"},
        {"r270.mp4", "-i '" + flat.string() + "' -c copy -metadata:s:v rotate=270"},
        {"ten.mp4", kSource + "-c:v libx264 -pix_fmt yuv420p10le"},
        {"hlg.mp4", kSource +
                        "-c:v libx265 -pix_fmt yuv420p10le -color_trc arib-std-b67 -colorspace bt2020nc "
                        "-x265-params log-level=none"},
        {"odd.mp4",
         "-f lavfi -i testsrc2=s=321x181:r=10:d=1 -vf scale=321:181,setsar=1 -c:v ffv1 -f matroska"},
        {"palette.gif", kSource},
    };
    for (const auto& [name, options] : kFilms) {
        auto reader = Reader::open(filmOf(folder, name, options));
        ASSERT_TRUE(reader) << name << ": " << said(reader.error().text);
        const auto picture = (*reader)->picture(FrameNumber{3});
        ASSERT_TRUE(picture) << name;
        Pixels part(84, 62);
        ASSERT_TRUE((*reader)->part(FrameNumber{3}, {31, 44, 84, 62}, part.room)) << name;
        const auto reference = cropped(*picture, 31, 44, 84, 62);
        // Colour is interpolated from another place on: a step, which a curve of brightness widens.
        const test::Difference d = test::between(part.bytes.data(), reference.data(), 84, 62, 0);
        EXPECT_LE(d.largest, (*reader)->info().transfer == Transfer::Standard ? 1 : 64) << name;
        EXPECT_LE(d.mean, 0.1) << name;
        Pixels whole(picture->width, picture->height);
        const PicturePart all{0, 0, double(picture->width), double(picture->height)};
        ASSERT_TRUE((*reader)->part(FrameNumber{3}, all, whole.room)) << name;
        EXPECT_LE(
            test::between(whole.bytes.data(), picture->pixels->data(), picture->width, picture->height, 0)
                .largest,
            1)
            << name;
    }
}

TEST(Part, IsScaledAsFfmpegScalesIt) {
    const TempFolder folder;
    const fs::path film = filmOf(folder, "a.mp4", kSource + "-c:v libx264 -colorspace bt709");
    auto reader = Reader::open(film);
    ASSERT_TRUE(reader);
    struct Case {
        PicturePart part;
        int width, height;
    };
    for (const Case& c : {Case{{80, 40, 160, 90}, 400, 225}, Case{{0, 0, 320, 180}, 160, 90}}) {
        const auto n = [](double v) { return std::to_string(static_cast<int>(v)); };
        const auto reference = bytesOf(shell(
            "ffmpeg -v error -i '" + film.string() + "' -vf 'select=eq(n\\,3),crop=" + n(c.part.width) + ":" +
            n(c.part.height) + ":" + n(c.part.left) + ":" + n(c.part.top) + ",zscale=w=" + n(c.width) +
            ":h=" + n(c.height) +
            ":filter=bilinear:matrixin=709:matrix=gbr:range=full,format=gbrp' -pix_fmt bgra -frames:v 1 "
            "-f rawvideo - 2>/dev/null"));
        Pixels part(c.width, c.height);
        ASSERT_EQ(reference.size(), part.bytes.size());
        ASSERT_TRUE((*reader)->part(FrameNumber{3}, c.part, part.room));
        const test::Difference d = test::between(part.bytes.data(), reference.data(), c.width, c.height, 8);
        EXPECT_LE(d.largest, 3) << c.width;
        EXPECT_LE(d.mean, 0.3) << c.width;
    }
}

TEST(Part, ItsPlanesAreThoseThatFfmpegMakes) {
    const TempFolder folder;
    const fs::path film = filmOf(folder, "a.mp4", kSource + "-c:v libx264 -colorspace bt709");
    auto reader = Reader::open(film);
    ASSERT_TRUE(reader);
    const auto reference = bytesOf(shell(
        "ffmpeg -v error -i '" + film.string() +
        "' -vf 'select=eq(n\\,3),crop=160:90:80:40,zscale=w=320:h=180:filter=bilinear:matrixin=709:matrix="
        "709:rangein=limited:range=limited' -pix_fmt yuv420p -frames:v 1 -f rawvideo - 2>/dev/null"));
    ASSERT_EQ(reference.size(), 320U * 180U * 3 / 2);
    const auto planes = (*reader)->planes(FrameNumber{3}, {80, 40, 160, 90}, 320, 180);
    ASSERT_TRUE(planes && *planes);
    int largest = 0;
    std::size_t plane = 0;
    for (int p = 0; p < 3; ++p) {
        const int width = p == 0 ? 320 : 160, height = p == 0 ? 180 : 90, margin = 8;
        for (int y = margin; y < height - margin; ++y)
            for (int x = margin; x < width - margin; ++x)
                largest =
                    std::max(largest, std::abs((*planes)->data[p][y * (*planes)->linesize[p] + x] -
                                               reference[plane + static_cast<std::size_t>(y * width + x)]));
        plane += static_cast<std::size_t>(width * height);
    }
    EXPECT_LE(largest, 1);
}

// part() serves them.
TEST(Part, AFilmThatIsTurnedOrBrighterHasNoPlanes) {
    const TempFolder folder;
    const fs::path flat = filmOf(folder, "flat.mp4", kSource + "-c:v libx264");
    for (const fs::path& film :
         {filmOf(folder, "r90.mp4", "-i '" + flat.string() + "' -c copy -metadata:s:v rotate=90"),
          filmOf(folder, "pq.mp4",
                 kSource + "-c:v libx265 -pix_fmt yuv420p10le -color_trc smpte2084 -colorspace bt2020nc "
                           "-x265-params log-level=none"),
          filmOf(folder, "palette.gif", kSource)}) {
        auto reader = Reader::open(film);
        ASSERT_TRUE(reader) << film;
        const auto planes = (*reader)->planes(FrameNumber{0}, {0, 0, 64, 64}, 64, 64);
        ASSERT_TRUE(planes) << film;
        EXPECT_FALSE(*planes) << film;
    }
}

TEST(Part, BeyondThePictureIsRefused) {
    const TempFolder folder;
    auto reader = Reader::open(filmOf(folder, "flat.mp4", kSource + "-c:v libx264"));
    ASSERT_TRUE(reader);
    Pixels room(64, 36);
    for (const PicturePart& part :
         {PicturePart{-1, 0, 64, 36}, PicturePart{300, 0, 64, 36}, PicturePart{0, 150, 64, 36},
          PicturePart{0, 0, 0, 36}, PicturePart{0, 0, 64, NAN}}) {
        EXPECT_EQ((*reader)->part(FrameNumber{0}, part, room.room).error().code, ErrorCode::BadInput);
        EXPECT_EQ((*reader)->planes(FrameNumber{0}, part, 64, 36).error().code, ErrorCode::BadInput);
    }
    EXPECT_EQ((*reader)->planes(FrameNumber{0}, {0, 0, 64, 36}, 63, 36).error().code, ErrorCode::BadInput);
    EXPECT_EQ(room.bytes, std::vector<std::uint8_t>(room.bytes.size(), 7));
}

TEST(Encoder, PlanesAreLaidOverAPictureWhereTheyBelong) {
    const TempFolder folder;
    auto source = Reader::open(
        filmOf(folder, "soft.mp4",
               "-f lavfi -i gradients=s=320x180:r=10:d=1:seed=3 -c:v libx264 -colorspace bt709"));
    ASSERT_TRUE(source);
    const auto planes = (*source)->planes(FrameNumber{3}, {0, 0, 320, 180}, 96, 54);
    ASSERT_TRUE(planes && *planes);
    EncodeSettings settings;
    settings.width = 160;
    settings.height = 96;
    settings.quality = 4;
    auto encoder = Encoder::open(folder / "a.mp4", settings);
    ASSERT_TRUE(encoder);
    EXPECT_EQ((*encoder)->setPart(**planes, 0, 0).error().code,
              ErrorCode::Internal); // there is no picture yet
    const std::vector<std::uint8_t> grey(160 * 96 * 4, 90);
    (*encoder)->setPicture(grey.data(), 160 * 4);
    for (const auto& [left, top] : {std::pair{33, 20}, {32, 21}, {-2, 20}, {66, 20}, {32, 44}})
        EXPECT_EQ((*encoder)->setPart(**planes, left, top).error().code, ErrorCode::BadInput) << left << top;
    ASSERT_TRUE((*encoder)->setPart(**planes, 32, 20));
    ASSERT_TRUE((*encoder)->repeatPicture());
    ASSERT_TRUE((*encoder)->finish());
    auto made = Reader::open(folder / "a.mp4");
    ASSERT_TRUE(made);
    const auto picture = (*made)->picture(FrameNumber{0});
    ASSERT_TRUE(picture);
    Pixels small(96, 54);
    ASSERT_TRUE((*source)->part(FrameNumber{3}, {0, 0, 320, 180}, small.room));
    const auto inside = cropped(*picture, 32, 20, 96, 54), above = cropped(*picture, 0, 0, 160, 18);
    EXPECT_LE(test::between(inside.data(), small.bytes.data(), 96, 54, 2).mean, 3);
    EXPECT_LE(test::between(above.data(), grey.data(), 160, 18, 0).largest, 4);
}

} // namespace
} // namespace jg
