// SPDX-License-Identifier: GPL-3.0-or-later
// What the cache keeps and drops, and what high dynamic range becomes.
#include "film/convert.h"
#include "film/frame_cache.h"

#include <gtest/gtest.h>

#include <thread>

namespace jg {
namespace {

constexpr int kSide = 64; // a grey frame of 64 x 64

FrameHandle frame() {
    AVFrame* f = av_frame_alloc();
    f->format = AV_PIX_FMT_GRAY8;
    f->width = f->height = kSide;
    av_frame_get_buffer(f, 0);
    return {f, [](AVFrame* p) { av_frame_free(&p); }};
}

std::size_t bytesOfOne() {
    FrameCache cache(std::make_shared<FrameBudget>(std::size_t{1} << 20));
    cache.put(0, frame());
    return cache.bytes();
}

/// A cache with room for `room` frames, filled with the frames given.
struct Filled {
    Filled(std::size_t room, std::int64_t playhead, int direction, std::int64_t first, std::int64_t last)
        : cache(std::make_shared<FrameBudget>(room * bytesOfOne())) {
        cache.setTravel(playhead, direction);
        for (std::int64_t n = first; n <= last; ++n) cache.put(n, frame());
    }
    bool holds(std::int64_t n) const { return cache.find(n) != nullptr; }
    FrameCache cache;
};

TEST(FrameCache, NeverHoldsMoreThanItsShare) {
    const Filled f(10, 50, 0, 0, 99);
    EXPECT_LE(f.cache.bytes(), 10 * bytesOfOne());
    EXPECT_EQ(f.cache.capacity(), 10);
}

TEST(FrameCache, LeavesRoomToTheDecoderButNeverMoreThanAQuarter) {
    for (const auto& [left, held] : {std::pair{3, 13}, std::pair{100, 12}}) {
        FrameCache cache(std::make_shared<FrameBudget>(16 * bytesOfOne()));
        cache.leaveRoom(static_cast<std::size_t>(left) * bytesOfOne());
        for (std::int64_t n = 0; n < 40; ++n) cache.put(n, frame());
        EXPECT_EQ(cache.bytes(), static_cast<std::size_t>(held) * bytesOfOne());
        EXPECT_EQ(cache.capacity(), held);
    }
}

TEST(FrameCache, AfterAJumpItKeepsWhatLiesNearestOnBothSides) {
    const Filled f(11, 50, 0, 0, 99);
    for (std::int64_t n = 46; n <= 54; ++n) EXPECT_TRUE(f.holds(n)) << n;
    EXPECT_FALSE(f.holds(0));
    EXPECT_FALSE(f.holds(99));
}

TEST(FrameCache, GoingBackItKeepsADozenPassedAndTheRestAhead) {
    const Filled f(40, 50, -1, 0, 99);
    EXPECT_TRUE(f.holds(62));
    EXPECT_FALSE(f.holds(70));
    EXPECT_TRUE(f.holds(30));
    EXPECT_FALSE(f.holds(5));
}

TEST(FrameCache, GoingOnItDropsWhatWasPassedFirst) {
    Filled f(40, 0, 1, 0, 39);
    f.cache.setTravel(30, 1);
    for (std::int64_t n = 40; n < 50; ++n) f.cache.put(n, frame());
    EXPECT_FALSE(f.holds(0));
    EXPECT_TRUE(f.holds(30));
    EXPECT_TRUE(f.holds(49));
}

TEST(FrameCache, TellsTheFirstMissingInADirection) {
    Filled f(40, 10, -1, 5, 10);
    EXPECT_EQ(f.cache.firstMissing(10, 0, -1), 4);
    EXPECT_EQ(f.cache.firstMissing(5, 8, 1), 9); // all held: one past the end
    EXPECT_EQ(f.cache.firstMissing(5, 20, 1), 11);
}

TEST(FrameCache, OneFrameIsAlwaysKept) {
    const Filled f(0, 3, 0, 3, 3);
    EXPECT_TRUE(f.holds(3));
}

TEST(FrameBudget, IsSharedByAllOpenFilms) {
    const auto budget = std::make_shared<FrameBudget>(12 * bytesOfOne());
    FrameCache first(budget);
    for (std::int64_t n = 0; n < 12; ++n) first.put(n, frame());
    EXPECT_EQ(first.bytes(), 12 * bytesOfOne());
    {
        FrameCache second(budget);
        EXPECT_EQ(budget->share(), 6 * bytesOfOne());
        first.put(12, frame());
        EXPECT_LE(first.bytes(), 6 * bytesOfOne());
    }
    EXPECT_EQ(budget->share(), 12 * bytesOfOne());
}

TEST(FrameBudget, OfThisMachineIsAtMostTwoGiB) {
    EXPECT_LE(FrameBudget::ofThisMachine()->total(), std::size_t{2} << 30);
    EXPECT_GE(FrameBudget::ofThisMachine()->total(), std::size_t{64} << 20);
    EXPECT_EQ(FrameBudget::ofThisMachine(), FrameBudget::ofThisMachine());
}

TEST(FrameCache, MayBeReadWhileItIsFilled) {
    FrameCache cache(std::make_shared<FrameBudget>(16 * bytesOfOne()));
    std::jthread filler([&] {
        for (std::int64_t n = 0; n < 400; ++n) cache.put(n, frame());
    });
    for (int i = 0; i < 2000; ++i) {
        cache.setTravel(i / 5, 1);
        if (const auto f = cache.find(i / 5)) {
            ASSERT_EQ(f->width, kSide);
        }
    }
    filler.join();
    EXPECT_LE(cache.bytes(), 16 * bytesOfOne());
}

std::uint8_t shownGrey(std::uint8_t coded, Transfer transfer) {
    std::vector<std::uint8_t> bgrx{coded, coded, coded, 255};
    toneMap({bgrx.data(), 4, 1, 1}, transfer);
    EXPECT_NEAR(bgrx[0], bgrx[2], 2); // grey stays grey
    return bgrx[1];
}

TEST(ToneMap, ReferenceWhiteIsBrightAndOrderIsKept) {
    // BT.2408 puts reference white at 58 % of PQ's code and 75 % of HLG's (from memory).
    EXPECT_GT(shownGrey(148, Transfer::Pq), 200);
    EXPECT_GT(shownGrey(191, Transfer::Hlg), 200);
    for (const Transfer t : {Transfer::Pq, Transfer::Hlg}) {
        EXPECT_EQ(shownGrey(0, t), 0);
        int last = -1;
        for (int v = 0; v < 256; v += 15) {
            const int shown = shownGrey(static_cast<std::uint8_t>(v), t);
            EXPECT_GE(shown, last);
            last = shown;
        }
    }
    EXPECT_EQ(shownGrey(137, Transfer::Standard), 137);
}

} // namespace
} // namespace jg
