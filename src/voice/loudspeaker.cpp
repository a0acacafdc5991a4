// SPDX-License-Identifier: GPL-3.0-or-later
#include "voice/loudspeaker.h"

#include "voice/microphone.h"

#include <QAudioDevice>
#include <QAudioFormat>
#include <QAudioSink>
#include <QBuffer>
#include <QElapsedTimer>
#include <QMediaDevices>

#include <algorithm>
#include <cmath>
#include <cstring>

namespace jg {

namespace {

class RealLoudspeaker final : public Loudspeaker {
public:
    std::optional<Message> problem() const override {
        if (QMediaDevices::defaultAudioOutput().isNull()) return msg("loudspeaker.none");
        return std::nullopt;
    }
    void play(Samples samples, double fromS) override {
        stop();
        if (problem()) return;
        QAudioFormat format;
        format.setSampleRate(kSampleRate);
        format.setChannelCount(1);
        format.setSampleFormat(QAudioFormat::Float);
        const auto all = static_cast<qsizetype>(samples->size());
        const auto first = std::clamp<qsizetype>(std::llround(fromS * kSampleRate), 0, all);
        constexpr auto kBytes = static_cast<qsizetype>(sizeof(float));
        buffer_ = std::make_unique<QBuffer>();
        buffer_->setData(
            QByteArray(reinterpret_cast<const char*>(samples->data() + first), (all - first) * kBytes));
        buffer_->open(QIODevice::ReadOnly);
        sink_ = std::make_unique<QAudioSink>(QMediaDevices::defaultAudioOutput(), format);
        fromS_ = fromS;
        sink_->start(buffer_.get());
    }
    void stop() override {
        if (sink_) sink_->stop();
        sink_.reset();
        buffer_.reset();
    }
    std::optional<double> position() const override {
        if (!sink_ || sink_->state() != QAudio::ActiveState) return std::nullopt;
        return fromS_ + static_cast<double>(sink_->processedUSecs()) * 1e-6;
    }

private:
    std::unique_ptr<QBuffer> buffer_;
    std::unique_ptr<QAudioSink> sink_;
    double fromS_ = 0;
};

class StandInLoudspeaker final : public Loudspeaker {
public:
    std::optional<Message> problem() const override { return std::nullopt; }
    void play(Samples samples, double fromS) override {
        lengthS_ = static_cast<double>(samples->size()) / kSampleRate;
        fromS_ = fromS;
        clock_.start();
    }
    void stop() override { clock_.invalidate(); }
    std::optional<double> position() const override {
        if (!clock_.isValid()) return std::nullopt;
        const double at = fromS_ + static_cast<double>(clock_.nsecsElapsed()) * 1e-9;
        return at < lengthS_ ? std::optional(at) : std::nullopt;
    }

private:
    QElapsedTimer clock_;
    double lengthS_ = 0, fromS_ = 0;
};

} // namespace

std::unique_ptr<Loudspeaker> makeLoudspeaker() {
    return std::make_unique<RealLoudspeaker>();
}

std::unique_ptr<Loudspeaker> makeStandInLoudspeaker() {
    return std::make_unique<StandInLoudspeaker>();
}

} // namespace jg
