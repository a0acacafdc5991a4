// SPDX-License-Identifier: GPL-3.0-or-later
// Blocks for decoded frames: used again, given back, and kept as long as a frame needs them.
#include "film/frame_memory.h"

#include <gtest/gtest.h>

#include <cstring>
#include <thread>

namespace jg {
namespace {

constexpr std::size_t kFrame = std::size_t{3} << 20; // 21 of them in a stretch of 64 MiB

struct Unref {
    void operator()(AVBufferRef* b) const { av_buffer_unref(&b); }
};
using Block = std::unique_ptr<AVBufferRef, Unref>;

std::vector<Block> take(FrameMemory& memory, int count) {
    std::vector<Block> blocks;
    for (int i = 0; i < count; ++i) {
        blocks.emplace_back(memory.take(kFrame));
        std::memset(blocks.back()->data, i, kFrame);
    }
    return blocks;
}

TEST(FrameMemory, NoTwoBlocksOverlap) {
    const auto memory = std::make_shared<FrameMemory>();
    const auto blocks = take(*memory, 50);
    for (std::size_t i = 0; i < blocks.size(); ++i) {
        ASSERT_GE(blocks[i]->size, kFrame);
        EXPECT_EQ(blocks[i]->data[0], i);
        EXPECT_EQ(blocks[i]->data[kFrame - 1], i);
        EXPECT_EQ(reinterpret_cast<std::uintptr_t>(blocks[i]->data) % 64, 0U);
    }
}

TEST(FrameMemory, WhatIsGivenBackIsUsedAgainBeforeMoreIsAsked) {
    const auto memory = std::make_shared<FrameMemory>();
    auto blocks = take(*memory, 30);
    const std::size_t mapped = memory->mapped();
    for (int i = 0; i < 300; ++i) {
        blocks.erase(blocks.begin());
        blocks.push_back(std::move(take(*memory, 1).front()));
    }
    EXPECT_EQ(memory->mapped(), mapped);
    blocks.clear();
    EXPECT_LE(memory->mapped(), std::size_t{64} << 20); // all but one stretch went back
}

TEST(FrameMemory, ABlockOutlivesItsMemorysOwner) {
    auto memory = std::make_shared<FrameMemory>();
    const auto blocks = take(*memory, 2);
    const std::weak_ptr<FrameMemory> watch = memory;
    memory.reset();
    EXPECT_FALSE(watch.expired());
    EXPECT_EQ(blocks[1]->data[kFrame / 2], 1);
}

TEST(FrameMemory, ManyThreadsTakeAndGiveBack) {
    const auto memory = std::make_shared<FrameMemory>();
    std::vector<std::jthread> threads;
    std::atomic<int> wrong = 0;
    for (int t = 0; t < 4; ++t)
        threads.emplace_back([&, t] {
            for (int i = 0; i < 40; ++i) {
                const Block b(memory->take(kFrame));
                b->data[0] = b->data[kFrame - 1] = static_cast<std::uint8_t>(t);
                std::this_thread::yield();
                if (b->data[0] != t || b->data[kFrame - 1] != t) ++wrong;
            }
        });
    threads.clear();
    EXPECT_EQ(wrong, 0);
}

TEST(FrameMemory, MoreThanThereIsIsRefused) {
    const auto memory = std::make_shared<FrameMemory>();
    EXPECT_EQ(memory->take(std::size_t{1} << 60), nullptr);
    EXPECT_NE(Block(memory->take(kFrame)), nullptr);
}

} // namespace
} // namespace jg
