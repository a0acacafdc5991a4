// SPDX-License-Identifier: GPL-3.0-or-later
// What strangers may send: films of every size, pixel format, codec and wrapper, damaged ones, and what only
// bears a film's name. Each ends in a picture or a sentence, soon and in little memory. Made by ffmpeg.
#include "tests/support/fixtures.h"

#include <chrono>
#include <fcntl.h>
#include <sys/resource.h>
#include <sys/wait.h>
#include <unistd.h>

namespace jg {
namespace {

namespace fs = std::filesystem;
using test::shell;

/// A name for the report, and the shell command that makes "odd" with some ending in the current folder.
using Recipe = std::string;

std::string ffmpeg(const std::string& source, const std::string& rest) {
    return "ffmpeg -v quiet -y -f lavfi -i " + source + " " + rest;
}

void addSizes(std::vector<Recipe>& all) {
    for (const char* size : {"16x16", "17x4000", "7680x16", "2048x2048", "320x240", "2x2", "1x1", "99x101",
                             "3840x2160", "640x640", "1080x1920"})
        for (const char* format :
             {"yuv420p", "yuv444p", "gray", "yuv422p10le", "yuva420p", "rgb24", "gbrp16le", "yuv410p"})
            all.push_back(ffmpeg(std::string("testsrc2=s=") + size + ":r=10:d=0.4",
                                 std::string("-c:v ffv1 -pix_fmt ") + format + " odd.mkv"));
}

void addWrappers(std::vector<Recipe>& all) {
    for (const char* codec :
         {"libx264", "libx264 -bf 3 -g 250", "libx265 -x265-params log-level=none",
          "libvpx-vp9 -deadline realtime", "mpeg4", "mpeg2video", "mjpeg", "huffyuv", "flv1", "png", "qtrle",
          "rawvideo", "libvpx -deadline realtime", "prores_ks", "dnxhd -profile:v dnxhr_lb", "msmpeg4v2"})
        for (const char* wrapper : {"mp4", "mov", "mkv", "avi", "ts", "webm", "flv", "mpg", "wmv", "nut"})
            for (const char* source :
                 {"testsrc2=s=320x240:r=30:d=0.3", "testsrc2=s=256x120:r=30000/1001:d=0.2"})
                all.push_back(ffmpeg(source, std::string("-c:v ") + codec + " odd." + wrapper));
}

void addRates(std::vector<Recipe>& all) {
    for (const char* rate : {"1", "0.01", "1000", "30000/1001", "240", "7"})
        for (const char* rest : {"-c:v libx264 odd.mp4", "-c:v mpeg4 odd.avi", "-c:v ffv1 odd.mkv"})
            all.push_back(
                ffmpeg(std::string("testsrc2=s=64x64:r=") + rate, std::string("-frames:v 3 ") + rest));
    for (const char* turn : {"90", "180", "270", "45", "7"})
        all.push_back(ffmpeg("testsrc2=s=160x96:r=30:d=0.2",
                             "-c:v libx264 plain.mp4 && ffmpeg -v quiet -y -display_rotation " +
                                 std::string(turn) + " -i plain.mp4 -c copy odd.mp4"));
    for (const char* shape : {"1/10", "10/1", "400/1", "1/2000", "4/3"})
        all.push_back(ffmpeg("testsrc2=s=160x96:r=30:d=0.2",
                             std::string("-vf setsar=") + shape + " -c:v libx264 odd.mp4"));
    all.push_back(
        ffmpeg("testsrc2=s=4096x2160:r=30:d=0.2", "-c:v libx265 -x265-params log-level=none odd.mp4"));
    all.push_back(ffmpeg("sine=d=0.5", "-c:a aac odd.mp4"));
    all.push_back(ffmpeg("testsrc2=s=64x64:r=30", "-frames:v 1 -c:v mjpeg odd.mp4"));
}

void addNoFilms(std::vector<Recipe>& all) {
    for (const char* picture : {"png", "bmp", "gif", "jpg", "tiff", "webp", "tga", "ppm"})
        all.push_back(ffmpeg("testsrc2=s=64x64:r=30", std::string("-frames:v 1 -update 1 p.") + picture +
                                                          " && mv p." + picture + " odd.mp4"));
    for (const char* make : {": > odd.mp4",
                             "printf x > odd.mp4",
                             "head -c 100000 /dev/zero > odd.mp4",
                             "head -c 100000 /dev/urandom > odd.mp4",
                             "mkfifo odd.mp4",
                             "ln -s /dev/zero odd.mp4",
                             "ln -s /nowhere/at/all odd.mp4",
                             "ln -s odd.mp4 odd.mp4",
                             "mkdir odd.mp4",
                             "ln -s / odd.mp4",
                             "ln -s /proc/self/mem odd.mp4",
                             "truncate -s 3G odd.mp4",
                             "truncate -s 60G odd.mkv",
                             "printf '#EXTM3U\\n#EXTINF:1,\\n/etc/passwd\\n' > odd.mp4",
                             "printf 'ffconcat version 1.0\\nfile a.mp4\\n' > odd.mp4",
                             "printf '<?xml version=\"1.0\"?><MPD></MPD>' > odd.mp4",
                             "printf '1\\n00:00:00,000 --> 00:00:09,000\\nHello\\n' > odd.mp4",
                             "printf 'WEBVTT\\n\\n00:00.000 --> 00:09.000\\nHello\\n' > odd.mkv",
                             "printf 'hello' | gzip > odd.mp4",
                             "printf hello > a && tar cf odd.mp4 a",
                             "printf '%%PDF-1.7\\n' > odd.mp4",
                             "printf 'RIFF\\377\\377\\377\\377AVI LIST' > odd.avi",
                             "printf '\\0\\0\\0\\030ftypmp42\\0\\0\\0\\0mp42isom' > odd.mp4",
                             "printf '\\0\\0\\0\\001ftyp\\377\\377\\377\\377\\377\\377\\377\\377' > odd.mp4"})
        all.push_back(make);
}

/// One film with its bytes changed, cut and doubled at places that differ from one to the next.
void addBitRot(std::vector<Recipe>& all) {
    const std::string film = ffmpeg("testsrc2=s=320x240:r=30:d=0.5", "-c:v libx264 -g 6 odd.mp4 && ");
    const auto fresh = [&](int i, const std::string& rest) {
        const std::string at = std::to_string(i * 389 % 7000);
        all.push_back(film + "printf '\\377' | dd of=odd.mp4 bs=1 conv=notrunc status=none seek=" + at +
                      rest);
    };
    for (int i = 0; i < 24; ++i) fresh(i, "");
    for (int i = 0; i < 12; ++i)
        fresh(i + 24, " && truncate -s -" + std::to_string(100 + i * 500) + " odd.mp4");
    for (int i = 0; i < 6; ++i) fresh(i + 36, " && cat odd.mp4 odd.mp4 > b && mv b odd.mp4");
}

std::vector<Recipe> oddFilms() {
    std::vector<Recipe> all;
    addSizes(all);
    addWrappers(all);
    addRates(all);
    addNoFilms(all);
    addBitRot(all);
    return all;
}

struct Ended {
    int code = -1;
    double tookS = 0; ///< by the clock or of the processor, whichever is less
    double residentMb = 0;
};

/// The first picture of a film as PNG, by the command line: 4 GB of addresses, 20 s whatever the machine
/// does.
Ended showFirst(const fs::path& film, const fs::path& png) {
    const auto began = std::chrono::steady_clock::now();
    const std::string program = (test::binFolder() / "juxtagraph-cli").string();
    const pid_t child = ::fork();
    if (child == 0) {
        const rlimit addresses{4'000'000'000, 4'000'000'000};
        ::setrlimit(RLIMIT_AS, &addresses);
        ::alarm(20);
        const int nowhere = ::open("/dev/null", O_WRONLY);
        ::dup2(nowhere, 1), ::dup2(nowhere, 2);
        ::execl(program.c_str(), program.c_str(), "film", "frame", film.c_str(), "0", "--png", png.c_str(),
                static_cast<char*>(nullptr));
        ::_exit(127);
    }
    int status = 0;
    rusage used{};
    ::wait4(child, &status, 0, &used);
    const std::chrono::duration<double> took = std::chrono::steady_clock::now() - began;
    const auto seconds = [](timeval t) {
        return static_cast<double>(t.tv_sec) + static_cast<double>(t.tv_usec) * 1e-6;
    };
    return {WIFEXITED(status) ? WEXITSTATUS(status) : -WTERMSIG(status),
            std::min(took.count(), seconds(used.ru_utime) + seconds(used.ru_stime)),
            static_cast<double>(used.ru_maxrss) / 1024};
}

double ffmpegSeconds(const fs::path& film) {
    const auto began = std::chrono::steady_clock::now();
    shell("timeout 20 ffmpeg -v quiet -i '" + film.string() + "' -f null - < /dev/null");
    return std::chrono::duration<double>(std::chrono::steady_clock::now() - began).count();
}

/// A film's name in a folder in which a recipe was followed; nothing when this ffmpeg can't make it.
std::optional<fs::path> made(const fs::path& folder) {
    for (const auto& entry : fs::directory_iterator(folder))
        if (entry.path().stem() == "odd") return entry.path();
    return std::nullopt;
}

// Less of clock and processor: other programs take of the one, threads add up in the other.
TEST(OddFilms, EndInAPictureOrASentenceSoonAndInLittleMemory) {
    if (test::kMemoryIsTheSanitizers) GTEST_SKIP() << "a sanitizer takes more than the limit for itself";
    const bool all = std::getenv("JUXTAGRAPH_LONG") != nullptr;
    const auto recipes = oddFilms();
    ASSERT_GE(recipes.size(), 500U);
    int shown = 0, refused = 0, notMade = 0;
    double longest = 0, largest = 0;
    for (std::size_t i = 0; i < recipes.size(); i += all ? 1 : 13) {
        const test::TempFolder folder;
        shell("cd '" + folder.path().string() + "' && { " + recipes[i] + "; } > /dev/null 2>&1");
        const auto film = made(folder.path());
        if (!film) {
            ++notMade; // a codec and a wrapper that do not go together
            continue;
        }
        const fs::path png = folder / "out.png";
        const Ended ended = showFirst(*film, png);
        EXPECT_TRUE(ended.code == 0 || ended.code == 1) << recipes[i] << " ended with " << ended.code;
        EXPECT_EQ(fs::exists(png), ended.code == 0) << recipes[i];
        // What a decoder needs for pictures that large is no hang.
        EXPECT_TRUE(ended.tookS < 2 || ended.tookS < 3 * ffmpegSeconds(*film))
            << recipes[i] << " took " << ended.tookS << " s";
        EXPECT_LT(ended.residentMb, 1024) << recipes[i];
        longest = std::max(longest, ended.tookS);
        largest = std::max(largest, ended.residentMb);
        (ended.code == 0 ? shown : refused) += 1;
    }
    std::printf("%d shown, %d refused, %d not made; at most %.2f s and %.0f MB\n", shown, refused, notMade,
                longest, largest);
    EXPECT_GT(shown, all ? 200 : 15);
    EXPECT_GT(refused, all ? 50 : 3);
    EXPECT_LT(notMade, static_cast<int>(recipes.size()) / 4);
}

} // namespace
} // namespace jg
