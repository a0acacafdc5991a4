// SPDX-License-Identifier: GPL-3.0-or-later
// What the film room holds: no more than its budget on a large film, and nothing of films that were closed.
#include "film/reader.h"
#include "tests/support/fixtures.h"

#include <malloc.h>
#include <random>

namespace jg {
namespace {

using test::shell;
using test::TempFolder;

constexpr std::size_t kMB = 1'000'000;

/// What the heap has given out and not got back, over all threads; what the allocator keeps in reserve is not
/// in it.
std::size_t heapBytes() {
    const auto heap = mallinfo2();
    return heap.uordblks + heap.hblkhd;
}

/// Every kind of movement: on, back, and jumps.
void goThrough(Reader& reader) {
    const std::int64_t frames = reader.info().frames();
    for (std::int64_t n = 0; n < frames; ++n) {
        reader.setTravel(FrameNumber{n}, 1);
        EXPECT_TRUE(reader.frame(FrameNumber{n}));
    }
    for (std::int64_t n = frames - 1; n >= 0; --n) {
        reader.setTravel(FrameNumber{n}, -1);
        EXPECT_TRUE(reader.frame(FrameNumber{n}));
        reader.decodeAhead({});
    }
    std::mt19937 engine(3);
    for (int i = 0; i < 12; ++i) {
        const FrameNumber n{static_cast<std::int64_t>(engine() % static_cast<unsigned>(frames))};
        reader.setTravel(n, 0);
        EXPECT_TRUE(reader.frame(n));
    }
}

TEST(Memory, ALargeFilmStaysWithinATenthOverTheBudget) {
    if (test::kMemoryIsTheSanitizers) GTEST_SKIP() << "measured without a sanitizer";
    const TempFolder folder;
    shell("ffmpeg -v error -y -f lavfi -i testsrc2=s=3840x2160:r=240:d=0.9 -c:v libx264 -preset ultrafast -g "
          "60 "
          "-pix_fmt yuv420p '" +
          (folder / "4k.mp4").string() + "'");
    const auto budget = std::make_shared<FrameBudget>(std::size_t{2} << 30);
    const std::size_t before = test::statusBytes("VmRSS");
    auto reader = Reader::open(folder / "4k.mp4", {budget});
    ASSERT_TRUE(reader);
    goThrough(**reader);
    EXPECT_GT((*reader)->cacheBytes(), budget->total() / 10 * 9); // the film is larger than the budget
    const std::size_t peak = test::statusBytes("VmHWM") - before;
    EXPECT_LT(peak, budget->total() + budget->total() / 10);
    RecordProperty("peakMB", static_cast<int>(peak / kMB));
}

TEST(Memory, TwentyFilmsOpenedAndClosedLeaveNothing) {
    if (test::kMemoryIsTheSanitizers) GTEST_SKIP() << "measured without a sanitizer";
    const TempFolder folder;
    shell("ffmpeg -v error -y -f lavfi -i testsrc2=s=640x360:r=60:d=1 -c:v libx264 -bf 2 -g 30 '" +
          (folder / "a.mp4").string() + "'");
    const auto openAndClose = [&] {
        auto reader = Reader::open(folder / "a.mp4");
        ASSERT_TRUE(reader);
        goThrough(**reader);
    };
    for (int i = 0; i < 5; ++i) openAndClose(); // what libraries keep for good comes with the first
    const std::size_t before = heapBytes();     // resident memory swings by 15 MB with the threads' reserves
    for (int i = 0; i < 20; ++i) openAndClose();
    EXPECT_LT(heapBytes(), before + kMB / 10); // one film's frames are 21 MB
    RecordProperty("grownBytes", static_cast<int>(heapBytes() - before));
}

} // namespace
} // namespace jg
