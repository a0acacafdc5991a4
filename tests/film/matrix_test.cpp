// SPDX-License-Identifier: GPL-3.0-or-later
// Many kinds of film: every frame's planes against FFmpeg's own decoding (the ffmpeg command, -f framemd5),
// forward, backward and at 200 random places; MD5 of both sides must be equal to the bit.
#include "base/file_store.h"
#include "film/decoded.h"
#include "film/reader.h"
#include "tests/support/fixtures.h"

#include <array>
#include <fstream>
#include <random>
#include <sstream>

namespace jg {
namespace {

namespace fs = std::filesystem;
using test::shell;

struct Kind {
    const char* name;
    const char* file;
    const char* options; ///< of the ffmpeg command
};

// testsrc2 carries a running picture, so that no two frames are alike.
#define SRC(size, rate, seconds) "-f lavfi -i testsrc2=s=" size ":r=" rate ":d=" seconds " "
const Kind kKinds[] = {
    {"ShortGroups", "a.mp4", SRC("320x180", "30", "2") "-c:v libx264 -g 10 -bf 0"},
    {"LongGroupWithB", "a.mp4", SRC("320x180", "60", "3") "-c:v libx264 -g 250 -bf 3"},
    {"BPyramid", "a.mp4",
     SRC("320x180", "60", "2") "-c:v libx264 -g 60 -bf 8 -x264-params b-pyramid=normal:b-adapt=2"},
    {"OpenGroups", "a.mp4",
     SRC("320x180", "30", "3") "-c:v libx264 -x264-params open-gop=1:keyint=15:bframes=3"},
    {"EveryPictureKey", "a.mp4", SRC("320x180", "30", "2") "-c:v libx264 -g 1"},
    {"TwoHundredForty", "a.mp4", SRC("320x180", "240", "1") "-c:v libx264 -g 240 -bf 2"},
    {"FourTwoTwo", "a.mp4", SRC("320x180", "30", "1") "-c:v libx264 -pix_fmt yuv422p"},
    {"FourFourFour", "a.mp4", SRC("320x180", "30", "1") "-c:v libx264 -pix_fmt yuv444p"},
    {"TenBitH264", "a.mp4", SRC("320x180", "30", "1") "-c:v libx264 -pix_fmt yuv420p10le"},
    {"Interlaced", "a.mp4", SRC("320x180", "30", "1") "-c:v libx264 -flags +ildct+ilme -x264-params tff=1"},
    {"FullRange", "a.mp4", SRC("320x180", "30", "1") "-c:v libx264 -pix_fmt yuvj420p"},
    {"Tagged709", "a.mp4",
     SRC("320x180", "30", "1") "-c:v libx264 -colorspace bt709 -color_primaries bt709 -color_trc bt709"},
    {"Tagged601", "a.mp4", SRC("320x180", "30", "1") "-c:v libx264 -colorspace smpte170m"},
    {"OddSize", "a.mp4", SRC("321x181", "30", "1") "-c:v libx264 -pix_fmt yuv444p"},
    {"SixteenSquare", "a.mp4", SRC("16x16", "30", "1") "-c:v libx264"},
    {"OneFrame", "a.mp4", SRC("320x180", "30", "1") "-frames:v 1 -c:v libx264"},
    {"TwoFrames", "a.mp4", SRC("320x180", "30", "1") "-frames:v 2 -c:v libx264 -bf 2"},
    {"WidePixels", "a.mp4", SRC("320x180", "30", "1") "-vf setsar=4/3 -c:v libx264"},
    {"VariableRate", "a.mp4",
     SRC("320x180", "30",
         "3") "-vf select='not(mod(n\\,3))+not(mod(n\\,7))' -fps_mode vfr -c:v libx264 -g 12 -bf 2"},
    {"LateStart", "a.mp4", SRC("320x180", "30", "1") "-c:v libx264 -output_ts_offset 1.5"},
    {"NtscRate", "a.mp4", SRC("320x180", "30000/1001", "2") "-c:v libx264 -bf 3"},
    {"CoarseTimeBase", "a.mp4", SRC("320x180", "60", "1") "-c:v libx264 -video_track_timescale 60"},
    {"Fragmented", "a.mp4",
     SRC("320x180", "30", "2") "-c:v libx264 -g 15 -movflags frag_keyframe+empty_moov"},
    {"WithSound", "a.mp4", SRC("320x180", "30", "2") "-f lavfi -i sine=d=2 -c:v libx264 -c:a aac -shortest"},
    {"SoundLonger", "a.mp4", SRC("320x180", "30", "1") "-f lavfi -i sine=d=4 -c:v libx264 -c:a aac"},
    {"TaggedHlg", "a.mp4",
     SRC("320x180", "30", "1") "-c:v libx265 -pix_fmt yuv420p10le -color_trc arib-std-b67 -color_primaries "
                               "bt2020 -colorspace bt2020nc -x265-params log-level=none"},
    {"TaggedPq", "a.mp4",
     SRC("320x180", "30", "1") "-c:v libx265 -pix_fmt yuv420p10le -color_trc smpte2084 -color_primaries "
                               "bt2020 -colorspace bt2020nc -x265-params log-level=none"},
    {"Hevc", "a.mp4", SRC("320x180", "30", "2") "-c:v libx265 -x265-params log-level=none:keyint=30"},
    {"HevcTenBit", "a.mov",
     SRC("320x180", "60",
         "2") "-c:v libx265 -pix_fmt yuv420p10le -x265-params log-level=none:keyint=60:bframes=4"},
    {"HevcOpenGroups", "a.mp4",
     SRC("320x180", "30", "2") "-c:v libx265 -x265-params log-level=none:open-gop=1:keyint=12:min-keyint=12"},
    {"Mkv", "a.mkv", SRC("320x180", "30", "2") "-c:v libx264 -g 20 -bf 3"},
    {"TransportStream", "a.ts", SRC("320x180", "30", "2") "-c:v libx264 -g 20 -bf 2"},
    {"Mpeg2Stream", "a.ts", SRC("320x180", "25", "2") "-c:v mpeg2video -g 12 -bf 2"},
    {"Mpeg1", "a.mpg", SRC("320x180", "25", "2") "-c:v mpeg1video -g 12 -bf 2"},
    {"Vp8", "a.webm", SRC("320x180", "30", "1") "-c:v libvpx -deadline realtime -g 15"},
    {"Vp9", "a.webm", SRC("320x180", "30", "1") "-c:v libvpx-vp9 -deadline realtime -g 15"},
    {"Vp9HiddenPictures", "a.webm",
     SRC("320x180", "30",
         "2") "-c:v libvpx-vp9 -deadline good -cpu-used 8 -auto-alt-ref 1 -lag-in-frames 16 -g 30"},
    {"Av1", "a.mp4", SRC("320x180", "30", "1") "-c:v libaom-av1 -cpu-used 8 -g 15"},
    {"Mpeg4Avi", "a.avi", SRC("320x180", "25", "2") "-c:v mpeg4 -g 12 -bf 2"},
    {"Mpeg4Mp4", "a.mp4", SRC("320x180", "25", "2") "-c:v mpeg4 -g 12 -bf 2"},
    {"MjpegMov", "a.mov", SRC("320x180", "30", "1") "-c:v mjpeg -q:v 4"},
    {"MjpegAvi", "a.avi", SRC("320x180", "30", "1") "-c:v mjpeg -q:v 4"},
    {"ProRes", "a.mov", SRC("320x180", "30", "1") "-c:v prores_ks"},
    {"Lossless", "a.mkv", SRC("320x180", "30", "1") "-c:v ffv1"},
    {"H263", "a.3gp", SRC("352x288", "30000/1001", "1") "-c:v h263"},
    {"AnimatedGif", "a.gif", SRC("320x180", "10", "2") ""},
};

void PrintTo(const Kind& kind, std::ostream* out) {
    *out << kind.name;
}

std::vector<std::string> ffmpegsHashes(const fs::path& film) {
    std::istringstream lines(shell("ffmpeg -v error -noautorotate -i '" + film.string() +
                                   "' -map 0:v:0 -fps_mode passthrough -f framemd5 - 2>/dev/null"));
    std::vector<std::string> hashes;
    for (std::string line; std::getline(lines, line);)
        if (!line.empty() && line[0] != '#') hashes.push_back(line.substr(line.rfind(' ') + 1));
    return hashes;
}

std::string hashAt(Reader& reader, std::int64_t n) {
    const auto frame = reader.frame(FrameNumber{n});
    return frame ? planesMd5(**frame) : said(frame.error().text);
}

/// Compares every frame with a small cache, so that groups are truly decoded again.
void expectTheSameFrames(const fs::path& film) {
    const auto hashes = ffmpegsHashes(film);
    ASSERT_FALSE(hashes.empty());
    auto opened = Reader::open(film, {std::make_shared<FrameBudget>(std::size_t{2} << 20)});
    ASSERT_TRUE(opened) << said(opened.error().text);
    Reader& reader = **opened;
    const auto frames = static_cast<std::int64_t>(hashes.size());
    ASSERT_EQ(reader.info().frames(), frames);
    for (std::int64_t n = 0; n < frames; ++n)
        ASSERT_EQ(hashAt(reader, n), hashes[static_cast<std::size_t>(n)]) << n;
    for (std::int64_t n = frames; n-- > 0;)
        ASSERT_EQ(hashAt(reader, n), hashes[static_cast<std::size_t>(n)]) << "backward " << n;
    std::mt19937_64 engine(7);
    for (int i = 0; i < 200; ++i) {
        const auto n = static_cast<std::int64_t>(engine() % static_cast<std::uint64_t>(frames));
        ASSERT_EQ(hashAt(reader, n), hashes[static_cast<std::size_t>(n)]) << "jump " << n;
    }
}

class Matrix : public testing::TestWithParam<Kind> {};

TEST_P(Matrix, EveryFrameIsFfmpegs) {
    const test::TempFolder folder;
    const fs::path film = folder / GetParam().file;
    const std::string said =
        shell(std::string("ffmpeg -v error -y ") + GetParam().options + " '" + film.string() + "' 2>&1");
    ASSERT_TRUE(fs::exists(film) && fs::file_size(film) > 0) << said;
    expectTheSameFrames(film);
}

INSTANTIATE_TEST_SUITE_P(Film, Matrix, testing::ValuesIn(kKinds),
                         [](const auto& info) { return std::string(info.param.name); });

TEST(MatrixCut, AnEditListHidesFramesAndTheRestKeepTheirNumbers) {
    const test::TempFolder folder;
    shell("ffmpeg -v error -y " SRC("320x180", "30", "3") "-c:v libx264 -g 60 -bf 3 '" +
          (folder / "a.mp4").string() + "'");
    for (const char* from : {"0.4", "0.9", "2.1"}) {
        const fs::path cut = folder / "cut.mp4";
        shell("ffmpeg -v error -y -ss " + std::string(from) + " -i '" + (folder / "a.mp4").string() +
              "' -c copy '" + cut.string() + "'");
        expectTheSameFrames(cut);
    }
}

TEST(MatrixCut, AStreamThatBeginsBetweenKeysCountsFromItsFirstWholePicture) {
    const test::TempFolder folder;
    const fs::path film = folder / "a.ts", cut = folder / "cut.ts";
    shell("ffmpeg -v error -y " SRC("320x180", "30", "3") "-c:v libx264 -x264-params "
                                                          "open-gop=1:keyint=15:bframes=3 '" +
          film.string() + "'");
    const std::string bytes = *readFile(film);
    for (const double part : {0.1, 0.25, 0.4}) {
        const auto packets = static_cast<std::size_t>(part * static_cast<double>(bytes.size()) / 188);
        std::ofstream(cut, std::ios::binary) << bytes.substr(packets * 188);
        expectTheSameFrames(cut);
    }
}

/// Writes one of the eight turns and mirrorings into the track header's display matrix.
void setDisplayMatrix(const fs::path& film, const std::array<int, 4>& turn) {
    std::string bytes = *readFile(film);
    const std::size_t box = bytes.find("tkhd");
    ASSERT_NE(box, std::string::npos);
    const std::size_t matrix =
        box + 4 + 4 + 4 * 5 + 8 + 8; // version 0: flags, times, id, duration, layer, volume
    const std::array<int, 9> m{turn[0], turn[1], 0, turn[2], turn[3], 0, 0, 0, 16384};
    for (std::size_t i = 0; i < m.size(); ++i) {
        const auto v = static_cast<std::uint32_t>(m[i] * 65536);
        for (std::size_t b = 0; b < 4; ++b) bytes[matrix + i * 4 + b] = static_cast<char>(v >> (24 - 8 * b));
    }
    std::ofstream(film, std::ios::binary) << bytes;
}

/// Corner of the shown picture that is white in the stored one's top left: 0 top left, 1 top right, 2 bottom
/// left, 3 bottom right.
int whiteCorner(const Picture& p) {
    int best = 0, bestValue = -1;
    for (int corner = 0; corner < 4; ++corner) {
        const int x = corner % 2 ? p.width - 5 : 4, y = corner / 2 ? p.height - 5 : 4;
        const int value = p.row(y)[x * 4 + 1];
        if (value > bestValue) best = corner, bestValue = value;
    }
    return best;
}

TEST(MatrixTurn, AllEightTurnsAndMirroringsStandAsTheMatrixSays) {
    const test::TempFolder folder;
    const fs::path film = folder / "a.mp4";
    // Matrix (a b / c d) maps stored (x, y) to shown (a x + c y, b x + d y): the corner is reckoned from
    // that.
    const std::array<std::array<int, 4>, 8> turns{{{1, 0, 0, 1},
                                                   {0, 1, -1, 0},
                                                   {-1, 0, 0, -1},
                                                   {0, -1, 1, 0},
                                                   {-1, 0, 0, 1},
                                                   {1, 0, 0, -1},
                                                   {0, 1, 1, 0},
                                                   {0, -1, -1, 0}}};
    for (const auto& t : turns) {
        shell("ffmpeg -v error -y -f lavfi -i color=black:s=320x180:d=0.2 -vf drawbox=0:0:40:40:white:fill "
              "-c:v libx264 '" +
              film.string() + "'");
        setDisplayMatrix(film, t);
        auto reader = Reader::open(film);
        ASSERT_TRUE(reader) << said(reader.error().text);
        const auto picture = (*reader)->picture(FrameNumber{0});
        ASSERT_TRUE(picture);
        const bool swapped = t[0] == 0;
        EXPECT_EQ(picture->width, swapped ? 180 : 320);
        const int left = t[0] + t[2] > 0 ? 0 : 1, top = t[1] + t[3] > 0 ? 0 : 1;
        EXPECT_EQ(whiteCorner(*picture), top * 2 + left) << t[0] << t[1] << t[2] << t[3];
    }
}

} // namespace
} // namespace jg
