// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/keeping/places.h"

#include "base/number.h"
#include "tests/support/fixtures.h"
#include "voice/audio_file.h"
#include "voice/microphone.h"
#include "voice/voice_chain.h"

#include <QCoreApplication>
#include <QElapsedTimer>

#include <cmath>

namespace jg {
namespace {

std::vector<float> tone(double seconds, double loud, double hz = 440) {
    std::vector<float> s(static_cast<std::size_t>(seconds * kSampleRate));
    for (std::size_t i = 0; i < s.size(); ++i)
        s[i] = static_cast<float>(loud * std::sin(2 * M_PI * hz * static_cast<double>(i) / kSampleRate));
    return s;
}

double peakOf(const std::vector<float>& s) {
    float peak = 0;
    for (const float v : s) peak = std::max(peak, std::abs(v));
    return peak;
}

TEST(AudioFile, AWrittenTakeComesBackSampleForSample) {
    const test::TempFolder folder;
    auto w = WavWriter::open(folder / "a.wav");
    ASSERT_TRUE(w);
    std::vector<std::int16_t> samples(100000);
    for (std::size_t i = 0; i < samples.size(); ++i)
        samples[i] = static_cast<std::int16_t>((i * 37) % 20000 - 10000);
    ASSERT_TRUE(w->write(samples));
    ASSERT_TRUE(w->finish());
    const auto back = readSound(folder / "a.wav");
    ASSERT_TRUE(back);
    ASSERT_EQ(back->size(), samples.size());
    for (std::size_t i = 0; i < samples.size(); i += 97) EXPECT_NEAR((*back)[i] * 32768, samples[i], 1);
    // ffprobe agrees about the length.
    EXPECT_NEAR(*parseNumber(test::shell("ffprobe -v error -show_entries format=duration -of csv=p=0 '" +
                                         (folder / "a.wav").string() + "'")),
                100000.0 / kSampleRate, 1e-3);
}

TEST(AudioFile, ATakeBrokenOffIsReadableUpToItsLastSecond) {
    const test::TempFolder folder;
    {
        auto w = WavWriter::open(folder / "a.wav");
        ASSERT_TRUE(w->write(std::vector<std::int16_t>(kSampleRate * 2 + 5, 1000)));
        // never finished: the process died here; the stream's own buffer is thrown away with it
    }
    const auto back = readSound(folder / "a.wav");
    ASSERT_TRUE(back);
    EXPECT_GE(back->size(), static_cast<std::size_t>(kSampleRate * 2));
}

TEST(AudioFile, RefusesWhatIsNoSound) {
    const test::TempFolder folder;
    EXPECT_EQ(readSound(folder / "none.wav").error().code, ErrorCode::NotFound);
    FileStore files;
    ASSERT_TRUE(files.write(folder / "text.wav", "hello"));
    EXPECT_EQ(readSound(folder / "text.wav").error().code, ErrorCode::BadInput);
    EXPECT_FALSE(WavWriter::open(folder / "no/folder/a.wav"));
}

TEST(AudioFile, MoreChannelsThanAMicrophoneHasAreRefusedAndTakeNothingDown) {
    const test::TempFolder folder;
    auto writer = WavWriter::open(folder / "one.wav");
    const std::vector<std::int16_t> samples(4800, 500);
    ASSERT_TRUE(writer && writer->write(samples) && writer->finish());
    std::string bytes = *readFile(folder / "one.wav");
    constexpr std::size_t kChannelsAt = 22; // of a WAV header
    for (const int channels : {9, 94, 255}) {
        bytes[kChannelsAt] = static_cast<char>(channels);
        std::ofstream(folder / "many.wav", std::ios::binary) << bytes;
        const auto sound = readSound(folder / "many.wav");
        ASSERT_FALSE(sound) << channels;
        EXPECT_EQ(sound.error().code, ErrorCode::BadInput) << channels;
    }
}

TEST(AudioFile, TheShippedVoicesAreThere) {
    const auto voices = demoVoices();
    ASSERT_GE(voices.size(), 5U);
    for (const auto& v : voices) {
        const auto sound = readSound(v);
        ASSERT_TRUE(sound) << v;
        EXPECT_GT(sound->size(), static_cast<std::size_t>(3 * kSampleRate));
        EXPECT_GT(peakOf(*sound), 0.05);
    }
}

// EBU R 128 through libebur128 (the reference library): quiet and loud speech both land near -16 LUFS.
TEST(VoiceChain, SpeechLandsAtItsLoudnessWithoutClipping) {
    const auto raw = readSound(demoVoices().front());
    ASSERT_TRUE(raw);
    for (const float gain : {0.1f, 0.5f, 1.5f}) {
        std::vector<float> in = *raw;
        for (float& v : in) v = std::clamp(v * gain, -1.0f, 1.0f);
        const auto out = polishVoice(in);
        ASSERT_TRUE(out);
        EXPECT_EQ(out->size(), in.size());
        EXPECT_NEAR(loudnessOf(*out), kVoiceLufs, 1.5) << gain;
        EXPECT_LT(peakOf(*out), 0.87) << gain;
    }
}

TEST(VoiceChain, SilenceStaysSilence) {
    const auto out = polishVoice(std::vector<float>(kSampleRate));
    ASSERT_TRUE(out);
    EXPECT_LT(peakOf(*out), 1e-3);
    EXPECT_TRUE(std::isinf(loudnessOf(*out)));
}

TEST(VoiceChain, NothingIsShifted) {
    std::vector<float> in = tone(2, 0.0);
    for (int i = 0; i < 200; ++i)
        in[48000 + static_cast<std::size_t>(i)] = 0.5f * static_cast<float>(std::sin(i * 0.4));
    const auto out = polishVoice(in);
    ASSERT_TRUE(out);
    std::size_t at = 0;
    for (std::size_t i = 0; i < out->size(); ++i)
        if (std::abs((*out)[i]) > std::abs((*out)[at])) at = i;
    EXPECT_NEAR(static_cast<double>(at), 48100, 150);
}

TEST(StandIn, PlaysItsVoiceInRealTimeAndThenSilence) {
    const auto mic = makeStandInMicrophone({demoVoices()[1]}, 20);
    std::vector<std::int16_t> got;
    ASSERT_TRUE(
        mic->start([&](std::span<const std::int16_t> s) { got.insert(got.end(), s.begin(), s.end()); },
                   [](const Error&) {}));
    EXPECT_NE(said(mic->name()).find("stand-in"), std::string::npos);
    QElapsedTimer clock;
    clock.start();
    while (clock.elapsed() < 600) QCoreApplication::processEvents(QEventLoop::AllEvents, 10);
    mic->stop();
    // 0.6 s at twenty times the speed: about 12 s of sound, 5 s voice and then nothing.
    EXPECT_NEAR(static_cast<double>(got.size()) / kSampleRate, 12, 2.5);
    const auto tail = std::vector<std::int16_t>(got.end() - kSampleRate, got.end());
    EXPECT_TRUE(std::all_of(tail.begin(), tail.end(), [](std::int16_t v) { return v == 0; }));
    EXPECT_TRUE(std::any_of(got.begin(), got.begin() + kSampleRate,
                            [](std::int16_t v) { return std::abs(v) > 500; }));
}

TEST(StandIn, WithoutAVoiceItSaysSo) {
    EXPECT_EQ(makeStandInMicrophone({})->start({}, {}).error().code, ErrorCode::NotFound);
}

TEST(Microphone, AMissingDeviceIsAnErrorInWordsNotACrash) {
    // No sound server runs in the tests.
    const auto mic = makeMicrophone();
    const Status started = mic->start([](std::span<const std::int16_t>) {}, [](const Error&) {});
    if (!started) {
        EXPECT_NE(said(started.error().text).find("icrophone"), std::string::npos);
    }
    mic->stop();
    EXPECT_FALSE(mic->name().empty());
}

} // namespace
} // namespace jg
