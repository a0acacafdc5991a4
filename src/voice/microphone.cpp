// SPDX-License-Identifier: GPL-3.0-or-later
#include "voice/microphone.h"

#include <QAudioSource>
#include <QIODevice>
#include <QMediaDevices>

namespace jg {

namespace {

class QtMicrophone final : public QObject, public Microphone {
public:
    Message name() const override {
        const QAudioDevice device = QMediaDevices::defaultAudioInput();
        return device.isNull() ? msg("microphone.no-microphone") : asIs(device.description().toStdString());
    }

    Status start(Samples samples, Failed failed) override {
        const QAudioDevice device = QMediaDevices::defaultAudioInput();
        if (device.isNull()) return fail(ErrorCode::NotFound, msg("microphone.none"));
        QAudioFormat format;
        format.setSampleRate(kSampleRate);
        format.setChannelCount(1);
        format.setSampleFormat(QAudioFormat::Int16);
        if (!device.isFormatSupported(format))
            return fail(ErrorCode::Refused, msg("microphone.description-cant-record-at-48-k",
                                                {{"description", device.description().toStdString()}}));
        samples_ = std::move(samples);
        failed_ = std::move(failed);
        source_ = std::make_unique<QAudioSource>(device, format);
        source_->setBufferSize(kSampleRate * 2); // one second, should the window be slow
        connect(source_.get(), &QAudioSource::stateChanged, this,
                [this](QAudio::State state) { changed(state); });
        input_ = source_->start();
        if (!input_)
            return fail(ErrorCode::Refused,
                        msg("microphone.cant-open", {{"description", device.description().toStdString()}}));
        connect(input_, &QIODevice::readyRead, this, [this] { read(); });
        return Done{};
    }

    void stop() override {
        if (!source_) return;
        read();
        source_->disconnect(this);
        source_->stop();
        source_.reset();
        input_ = nullptr;
    }

private:
    void read() {
        if (!input_) return;
        const QByteArray bytes = input_->readAll();
        const auto count = static_cast<std::size_t>(bytes.size()) / sizeof(std::int16_t);
        if (count > 0) samples_({reinterpret_cast<const std::int16_t*>(bytes.constData()), count});
    }

    void changed(QAudio::State state) {
        if (state != QAudio::StoppedState || !source_ || source_->error() == QAudio::NoError) return;
        read();
        failed_(fail(ErrorCode::Refused, msg("microphone.went-away")));
    }

    Samples samples_;
    Failed failed_;
    std::unique_ptr<QAudioSource> source_;
    QIODevice* input_ = nullptr;
};

} // namespace

std::unique_ptr<Microphone> makeMicrophone() {
    return std::make_unique<QtMicrophone>();
}

} // namespace jg
