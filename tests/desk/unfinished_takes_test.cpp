// SPDX-License-Identifier: GPL-3.0-or-later
// A take that a killed program left: found once nobody writes it any more, kept with its sound, or thrown
// away.
#include "desk/session/unfinished_takes.h"

#include "tests/support/walk.h"
#include "voice/audio_file.h"
#include "voice/microphone.h"

namespace jg {
namespace {

namespace fs = std::filesystem;

/// As a killed recorder leaves it: its head is as old as the last flush.
fs::path leavePart(test::Walk& walk, const std::string& file, int seconds) {
    const fs::path part = walk.library->unfinishedTakePath(file);
    auto writer = WavWriter::open(part);
    EXPECT_TRUE(writer);
    const std::vector<std::int16_t> sound(
        static_cast<std::size_t>(kSampleRate) * static_cast<std::size_t>(seconds), 1000);
    EXPECT_TRUE(writer->write(sound));
    return part; // never finished
}

struct Left {
    test::Walk walk{Stage::Send};
    const Stop& stop = walk.review.stops.front();
    std::string file = walk.review.id.value + "-" + stop.id.value + "-99-1.wav";
    std::int64_t later(int seconds) const { return static_cast<std::int64_t>(std::time(nullptr)) + seconds; }
};

TEST(UnfinishedTakes, AreFoundOnceNobodyWritesThemAndKept) {
    Left l;
    const fs::path part = leavePart(l.walk, l.file, 3);
    EXPECT_TRUE(
        unfinishedTakes(*l.walk.library, l.walk.review, l.later(2)).empty()); // perhaps another window's
    const auto found = unfinishedTakes(*l.walk.library, l.walk.review, l.later(60));
    ASSERT_EQ(found.size(), 1U);
    EXPECT_EQ(found[0].stop, l.stop.id);
    EXPECT_NEAR(found[0].seconds(), 3, 0.1);
    const auto take = keepUnfinished(*l.walk.library, found[0], l.stop);
    ASSERT_TRUE(take) << said(take.error().text);
    EXPECT_NEAR(take->seconds(), 3, 1.01); // what the head knows: at most a second less
    EXPECT_FALSE(fs::exists(part));
    const auto sound = readSound(l.walk.library->takePath(take->file));
    ASSERT_TRUE(sound);
    EXPECT_EQ(sound->size(), static_cast<std::size_t>(take->samples));
    EXPECT_EQ(take->events.at(0).frame, l.stop.frame);
    EXPECT_TRUE(unfinishedTakes(*l.walk.library, l.walk.review, l.later(60)).empty());
}

TEST(UnfinishedTakes, AreThrownAwayAndThoseOfOthersLeft) {
    Left l;
    leavePart(l.walk, l.file, 1);
    const fs::path other = leavePart(l.walk, "rev-other-stop-1-1.wav", 1);
    const auto found = unfinishedTakes(*l.walk.library, l.walk.review, l.later(60));
    ASSERT_EQ(found.size(), 1U);
    EXPECT_TRUE(dropUnfinished(*l.walk.library, found[0]));
    EXPECT_TRUE(fs::exists(other));
    std::ofstream(l.walk.library->unfinishedTakePath(l.file)) << "RIFF"; // no sound at all
    EXPECT_TRUE(unfinishedTakes(*l.walk.library, l.walk.review, l.later(60)).empty());
}

TEST(UnfinishedTakes, OneThatCantBeHeardIsRefusedInWords) {
    Left l;
    std::ofstream(l.walk.library->unfinishedTakePath(l.file)) << std::string(5000, 'x');
    const auto found = unfinishedTakes(*l.walk.library, l.walk.review, l.later(60));
    ASSERT_EQ(found.size(), 1U);
    const auto take = keepUnfinished(*l.walk.library, found[0], l.stop);
    EXPECT_FALSE(take);
    EXPECT_FALSE(said(take.error().text).empty());
    EXPECT_TRUE(fs::exists(l.walk.library->unfinishedTakePath(l.file))); // still there to be thrown away
}

} // namespace
} // namespace jg
