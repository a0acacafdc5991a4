// SPDX-License-Identifier: GPL-3.0-or-later
#include "voice/room_noise.h"

#include "voice/audio_file.h"
#include "voice/microphone.h"

#include <speex/speex_preprocess.h>

#include <memory>

namespace jg {

namespace {

constexpr std::size_t kFrame = kSampleRate / 50; ///< what the preprocessor was made for; it answers one later

struct EndPreprocessor {
    void operator()(SpeexPreprocessState* s) const { speex_preprocess_state_destroy(s); }
};

/// The samples from `at` on as the preprocessor takes them; silence beyond the end.
std::vector<spx_int16_t> frameAt(std::span<const float> samples, std::size_t at) {
    std::vector<spx_int16_t> frame(kFrame, 0);
    for (std::size_t i = 0; i < kFrame && at + i < samples.size(); ++i)
        frame[i] = inSixteenBits(samples[at + i]);
    return frame;
}

} // namespace

std::vector<float> withoutRoomNoise(std::span<const float> samples) {
    const std::unique_ptr<SpeexPreprocessState, EndPreprocessor> state(
        speex_preprocess_state_init(static_cast<int>(kFrame), kSampleRate));
    int on = 1, down = -kRoomDownDb;
    speex_preprocess_ctl(state.get(), SPEEX_PREPROCESS_SET_DENOISE, &on);
    speex_preprocess_ctl(state.get(), SPEEX_PREPROCESS_SET_NOISE_SUPPRESS, &down);
    for (std::size_t at = 0; at < samples.size(); at += kFrame) {
        auto frame = frameAt(samples, at);
        speex_preprocess_run(state.get(), frame.data());
    }
    std::vector<float> quieter;
    quieter.reserve(samples.size() + 2 * kFrame);
    for (std::size_t at = 0; at < samples.size() + kFrame; at += kFrame) {
        auto frame = frameAt(samples, at);
        speex_preprocess_run(state.get(), frame.data());
        if (at > 0)
            for (const spx_int16_t s : frame) quieter.push_back(static_cast<float>(s) / 32768.0F);
    }
    quieter.resize(samples.size());
    return quieter;
}

} // namespace jg
