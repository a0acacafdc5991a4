// SPDX-License-Identifier: GPL-3.0-or-later
#include "voice/microphone.h"

#include "voice/audio_file.h"

#include <QElapsedTimer>
#include <QObject>
#include <QTimer>

#include <algorithm>

namespace jg {

namespace {

class StandInMicrophone final : public QObject, public Microphone {
public:
    StandInMicrophone(std::vector<std::filesystem::path> files, double speed)
        : files_(std::move(files))
        , speed_(speed) {
        timer_.setInterval(20);
        timer_.setTimerType(Qt::PreciseTimer);
        connect(&timer_, &QTimer::timeout, this, [this] { give(); });
    }

    Message name() const override {
        return files_.empty() ? msg("stand-in-microphone.stand-in-voice")
                              : msg("stand-in-microphone.stand-in-voice-stem",
                                    {{"stem", files_[next_ % files_.size()].stem().string()}});
    }

    Status start(Samples samples, Failed) override {
        if (files_.empty()) return fail(ErrorCode::NotFound, msg("stand-in-microphone.no-voice"));
        auto sound = readSound(files_[next_ % files_.size()]);
        if (!sound) return sound.error();
        ++next_;
        voice_.resize(sound->size());
        std::transform(sound->begin(), sound->end(), voice_.begin(),
                       [](float v) { return static_cast<std::int16_t>(std::clamp(v, -1.0f, 1.0f) * 32767); });
        samples_ = std::move(samples);
        given_ = 0;
        clock_.start();
        timer_.start();
        return Done{};
    }

    void stop() override {
        timer_.stop();
        voice_.clear();
    }

private:
    void give() {
        const auto due = static_cast<std::int64_t>(static_cast<double>(clock_.nsecsElapsed()) * 1e-9 *
                                                   kSampleRate * speed_);
        std::vector<std::int16_t> block(static_cast<std::size_t>(std::max<std::int64_t>(0, due - given_)));
        for (std::size_t i = 0; i < block.size(); ++i) {
            const auto at = static_cast<std::size_t>(given_) + i;
            block[i] = at < voice_.size() ? voice_[at] : std::int16_t{0};
        }
        given_ = due;
        if (!block.empty()) samples_(block);
    }

    std::vector<std::filesystem::path> files_;
    double speed_;
    std::size_t next_ = 0;
    std::vector<std::int16_t> voice_;
    std::int64_t given_ = 0;
    Samples samples_;
    QElapsedTimer clock_;
    QTimer timer_;
};

} // namespace

std::unique_ptr<Microphone> makeStandInMicrophone(std::vector<std::filesystem::path> files, double speed) {
    return std::make_unique<StandInMicrophone>(std::move(files), speed);
}

} // namespace jg
