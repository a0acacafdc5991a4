// SPDX-License-Identifier: GPL-3.0-or-later
#include "voice/speech.h"

#include "desk/keeping/places.h"
#include "tests/support/fixtures.h"
#include "voice/audio_file.h"
#include "voice/microphone.h"
#include "voice/room_noise.h"
#include "voice/voice_chain.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>
#include <regex>

namespace jg {
namespace {

std::vector<float> demoVoice() {
    return *readSound(demoVoices().front());
}

/// Low-heavy noise as of a heater: white noise through a one-pole filter, and a little of itself.
std::vector<float> heater(std::size_t count, double loud) {
    std::mt19937 engine(11);
    std::normal_distribution<double> white;
    std::vector<float> noise(count);
    double low = 0;
    for (float& x : noise) {
        const double w = white(engine);
        low = 0.97 * low + 0.03 * w;
        x = static_cast<float>(loud * (5 * low + 0.3 * w));
    }
    return noise;
}

std::vector<float> sum(std::vector<float> a, const std::vector<float>& b) {
    for (std::size_t i = 0; i < a.size(); ++i) a[i] += b[i % b.size()];
    return a;
}

double powerOf(std::span<const float> s) {
    double sum = 0;
    for (const float x : s) sum += static_cast<double>(x) * x;
    return sum / static_cast<double>(std::max<std::size_t>(1, s.size()));
}

double db(double ratio) {
    return 10 * std::log10(ratio);
}

/// A voice between two seconds of the room's silence, written for other programs, too.
std::vector<float> betweenSilence(const std::vector<float>& voice) {
    std::vector<float> all(2 * kSampleRate, 0);
    all.insert(all.end(), voice.begin(), voice.end());
    all.insert(all.end(), 3 * kSampleRate, 0);
    return all;
}

// ffmpeg's silencedetect finds the same first and last word.
TEST(Speech, BeginsAndEndsWhereFfmpegHearsNoSilence) {
    const auto sound = sum(betweenSilence(demoVoice()), heater(kSampleRate, 0.0004));
    const test::TempFolder folder;
    auto writer = WavWriter::open(folder / "a.wav");
    std::vector<std::int16_t> samples(sound.size());
    for (std::size_t i = 0; i < sound.size(); ++i)
        samples[i] = static_cast<std::int16_t>(std::lround(sound[i] * 32767.0F));
    ASSERT_TRUE(writer && writer->write(samples) && writer->finish());
    const std::string told = test::shell("ffmpeg -hide_banner -i '" + (folder / "a.wav").string() +
                                         "' -af silencedetect=n=-45dB:d=1 -f null - 2>&1");
    std::smatch found;
    ASSERT_TRUE(std::regex_search(told, found, std::regex("silence_end: ([0-9.]+)")));
    const double first = std::stod(found[1]);
    std::string rest = told;
    double last = 0;
    while (std::regex_search(rest, found, std::regex("silence_start: ([0-9.]+)")))
        last = std::stod(found[1]), rest = found.suffix();
    const auto spoken = speechIn(sound);
    ASSERT_FALSE(spoken.empty());
    EXPECT_NEAR(static_cast<double>(spoken.front().from) / kSampleRate, first, 0.25);
    EXPECT_NEAR(static_cast<double>(spoken.back().to) / kSampleRate, last, 0.45);
}

TEST(Speech, NoWordIsLostInANoisyRoom) {
    const auto voice = demoVoice();
    const auto clean = speechIn(betweenSilence(voice));
    for (const double loud : {0.001, 0.003, 0.008}) {
        const auto spoken = speechIn(sum(betweenSilence(voice), heater(kSampleRate, loud)));
        ASSERT_FALSE(spoken.empty());
        EXPECT_LT(std::abs(spoken.front().from - clean.front().from), kSampleRate / 4) << loud;
        EXPECT_LT(std::abs(spoken.back().to - clean.back().to), kSampleRate / 3) << loud;
    }
}

TEST(Speech, SilenceIsNoneAndARoomWithoutPausesIsAll) {
    EXPECT_TRUE(speechIn(std::vector<float>(kSampleRate, 0)).empty());
    EXPECT_TRUE(speechIn({}).empty());
    const auto steady = heater(2 * kSampleRate, 0.05);
    EXPECT_EQ(speechIn(steady), (std::vector<SampleSpan>{{0, 2 * kSampleRate}}));
}

// What is gained is measured against the voice and the noise that were put together.
TEST(RoomNoise, IsTurnedDownBetweenAndUnderWordsAndTheVoiceStays) {
    const auto voice = demoVoice();
    const auto spoken = speechIn(voice);
    double voicePower = 0;
    std::int64_t voiced = 0;
    for (const SampleSpan& s : spoken) {
        voicePower += powerOf(std::span(voice).subspan(static_cast<std::size_t>(s.from),
                                                       static_cast<std::size_t>(s.length()))) *
                      static_cast<double>(s.length());
        voiced += s.length();
    }
    voicePower /= static_cast<double>(voiced);
    for (const double snr : {10.0, 20.0, 30.0}) {
        auto noise = heater(voice.size() + 2 * kSampleRate, 0.01);
        const double scale = std::sqrt(voicePower / powerOf(noise) / std::pow(10, snr / 10));
        for (float& x : noise) x = static_cast<float>(x * scale);
        std::vector<float> room = voice;
        room.resize(voice.size() + 2 * kSampleRate, 0); // two seconds of the room alone
        const auto heard = sum(room, noise);
        const auto out = withoutRoomNoise(heard);
        ASSERT_EQ(out.size(), heard.size());
        const auto tail = [&](const std::vector<float>& s) {
            return std::span(s).subspan(voice.size() + kSampleRate / 2, kSampleRate);
        };
        EXPECT_GT(db(powerOf(tail(heard)) / powerOf(tail(out))), 6) << snr;
        double off = 0;
        for (std::size_t i = 0; i < voice.size(); ++i) off += std::pow(out[i] - voice[i], 2);
        const double after = db(powerOf(voice) * static_cast<double>(voice.size()) / off),
                     before = db(powerOf(voice) / powerOf(noise));
        EXPECT_GT(after, snr < 25 ? before + 1 : before - 1) << snr;
        EXPECT_NEAR(db(powerOf(std::span(out).first(voice.size())) / powerOf(voice)), 0, 0.5) << snr;
    }
}

TEST(RoomNoise, AFewSamplesAndNoneAreNoTrouble) {
    EXPECT_TRUE(withoutRoomNoise({}).empty());
    EXPECT_EQ(withoutRoomNoise(std::vector<float>(7, 0.1F)).size(), 7U);
}

} // namespace
} // namespace jg
