// SPDX-License-Identifier: GPL-3.0-or-later
// What is told of the sound while somebody talks.
#include "tests/support/fixtures.h"
#include "voice/audio_file.h"
#include "voice/level_watch.h"
#include "voice/microphone.h"

#include <cmath>
#include <numbers>
#include <random>

namespace jg {
namespace {

using Sound = std::vector<std::int16_t>;

/// Seconds of a sound by its value at each time, full scale = 1, clipped as a microphone does.
template <typename Wave>
Sound sound(double seconds, const Wave& wave) {
    Sound all;
    for (int i = 0; i < static_cast<int>(seconds * kSampleRate); ++i)
        all.push_back(static_cast<std::int16_t>(
            std::lround(std::clamp(wave(static_cast<double>(i) / kSampleRate), -1.0, 1.0) * 32767)));
    return all;
}

double mainsTone(double t, double hz) {
    return std::sin(2 * std::numbers::pi * hz * t);
}

LevelTrouble judged(const Sound& heard) {
    LevelWatch watch;
    for (std::size_t i = 0; i < heard.size(); i += 777) // pieces as they come
        watch.hear(std::span(heard).subspan(i, std::min<std::size_t>(777, heard.size() - i)));
    return watch.now();
}

/// The shipped voice as it was spoken, so much louder.
Sound voice(double gain) {
    const auto files =
        std::filesystem::directory_iterator(std::filesystem::path(JG_SOURCE_DIR) / "data/voice");
    for (const auto& file : files)
        if (file.path().extension() == ".opus") {
            const auto read = readSound(file.path());
            EXPECT_TRUE(read);
            Sound all;
            for (const float x : *read)
                all.push_back(static_cast<std::int16_t>(std::clamp(x * gain, -1.0, 1.0) * 32767));
            EXPECT_GT(all.size(), 2.0 * kSampleRate);
            all.resize(std::min<std::size_t>(all.size(), 5 * kSampleRate));
            return all;
        }
    return {};
}

TEST(LevelWatch, AVoiceIsNoTrouble) {
    EXPECT_EQ(judged(voice(1)), LevelTrouble::None);
}

TEST(LevelWatch, SaysWhatIsWrong) {
    EXPECT_EQ(judged(sound(3, [](double) { return 0.0; })), LevelTrouble::Nothing);
    EXPECT_EQ(judged(voice(0.01)), LevelTrouble::Quiet);
    EXPECT_EQ(judged(voice(40)), LevelTrouble::Clipped);
    for (const double mains : {50.0, 60.0})
        EXPECT_EQ(judged(sound(3,
                               [&](double t) {
                                   return 0.05 * mainsTone(t, mains) + 0.02 * mainsTone(t, 2 * mains) +
                                          0.01 * mainsTone(t, 700);
                               })),
                  LevelTrouble::Hum)
            << mains;
}

TEST(LevelWatch, AVoiceOverAFaintHumIsNoTrouble) {
    Sound both = voice(1);
    for (std::size_t i = 0; i < both.size(); ++i)
        both[i] = static_cast<std::int16_t>(std::clamp(
            both[i] + 120 * mainsTone(static_cast<double>(i) / kSampleRate, 50), -32767.0, 32767.0));
    EXPECT_EQ(judged(both), LevelTrouble::None);
}

TEST(LevelWatch, TellsNothingOfTheFirstMoments) {
    EXPECT_EQ(judged(sound(1, [](double) { return 0.0; })), LevelTrouble::None);
}

TEST(LevelWatch, WhatIsOverIsNoLongerTold) {
    Sound all = sound(3, [](double) { return 0.0; });
    const Sound after = voice(1);
    all.insert(all.end(), after.begin(), after.end());
    EXPECT_EQ(judged(all), LevelTrouble::None);
}

TEST(LevelWatch, EveryTroubleHasASentence) {
    for (const LevelTrouble t :
         {LevelTrouble::Nothing, LevelTrouble::Quiet, LevelTrouble::Clipped, LevelTrouble::Hum})
        EXPECT_FALSE(said(inWords(t)).empty());
    EXPECT_TRUE(inWords(LevelTrouble::None).empty());
}

} // namespace
} // namespace jg
