// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/session/recorder.h"

#include "review/record/message_json.h"
#include "review/tell/take_cuts.h"
#include "voice/speech.h"

#include <algorithm>
#include <cmath>
#include <utility>

namespace jg {

namespace fs = std::filesystem;

Recorder::~Recorder() {
    if (recording()) finish().ok(); // what can't be finished stays as an unfinished take
}

/// The head's sound fades out in its last five milliseconds, so that nothing clicks where the new one begins.
Status Recorder::writeHead(const TakeHead& head) {
    constexpr std::size_t kFade = kSampleRate / 200;
    auto sound = readSound(library_.takePath(head.take.file));
    if (!sound) return sound.error();
    const std::size_t count =
        std::min(sound->size(), static_cast<std::size_t>(std::max<std::int64_t>(0, head.samples)));
    std::vector<std::int16_t> samples(count);
    for (std::size_t i = 0; i < count; ++i) {
        const double fade = std::min(1.0, static_cast<double>(count - i) / kFade);
        samples[i] = inSixteenBits((*sound)[i] * fade);
    }
    for (const TakeEvent& e : head.take.events)
        if (e.sample <= static_cast<std::int64_t>(count)) take_.events.push_back(e);
    headSamples_ = static_cast<std::int64_t>(count);
    return write(samples);
}

Status Recorder::start(const ReviewId& review, const Stop& stop, std::int64_t nowUnix,
                       const std::optional<TakeHead>& head) {
    if (auto may = library_.mayWrite(); !may) return may;
    take_ = Take{};
    take_.atUnix = nowUnix;
    take_.file = review.value + "-" + stop.id.value + "-" + std::to_string(nowUnix) + "-" +
                 std::to_string(++serial_) + ".wav";
    take_.sampleRate = kSampleRate;
    take_.microphone = messageAsText(microphone_.name());
    part_ = library_.unfinishedTakePath(take_.file);
    stop_ = stop.id;
    broken_ = false;
    headSamples_ = 0;
    levels_.clear();
    watch_ = {};
    peak_ = 0;
    nextLevel_ = kSampleRate / 10;
    auto writer = WavWriter::open(part_);
    if (!writer) return writer.error();
    writer_.emplace(std::move(*writer));
    Status started = Done{};
    if (head)
        started = writeHead(*head);
    else
        note({.kind = TakeEventKind::Frame, .frame = stop.frame});
    if (started)
        started = microphone_.start([this](std::span<const std::int16_t> s) { take(s); },
                                    [this](const Error& e) { breakOff(e.text); });
    if (!started) {
        writer_.reset();
        std::error_code ec;
        fs::remove(part_, ec);
    }
    return started;
}

void Recorder::take(std::span<const std::int16_t> samples) {
    if (!writer_) return;
    if (broken_) return;
    if (auto written = write(samples); !written) return breakOff(written.error().text);
    watch_.hear(samples);
    Q_EMIT heard();
}

/// Told later: whoever hears of it ends the take, and with it the device whose own signal this is.
void Recorder::breakOff(const Message& why) {
    if (std::exchange(broken_, true)) return;
    QMetaObject::invokeMethod(
        this,
        [this, why, take = serial_] {
            if (writer_ && take == serial_) Q_EMIT brokenOff(why);
        },
        Qt::QueuedConnection);
}

Status Recorder::write(std::span<const std::int16_t> samples) {
    if (auto written = writer_->write(samples); !written) return written;
    for (const std::int16_t s : samples) peak_ = std::max(peak_, std::abs(static_cast<float>(s)) / 32768.0f);
    while (writer_->samples() >= nextLevel_) {
        levels_.push_back(peak_);
        peak_ = 0;
        nextLevel_ += kSampleRate / 10;
    }
    return Done{};
}

void Recorder::note(TakeEvent event) {
    if (!writer_) return;
    event.sample = writer_->samples();
    take_.events.push_back(event);
}

/// A take that can't be read again is heard whole.
void Recorder::leaveOutSilence() {
    if (const auto sound = readSound(library_.takePath(take_.file)))
        take_.cuts = cutsOf(take_, speechIn(*sound), Shortening::Ends);
}

Result<std::optional<Take>> Recorder::finish() {
    if (!writer_) return std::optional<Take>{};
    microphone_.stop();
    take_.samples = writer_->samples();
    const Status finished = writer_->finish();
    writer_.reset();
    std::error_code ec;
    const bool nothing = take_.samples == headSamples_;
    if (!finished || nothing) {
        if (nothing) fs::remove(part_, ec);
        if (!finished) return finished.error();
        return std::optional<Take>{};
    }
    if (auto kept = library_.files().settle(part_, library_.takePath(take_.file)); !kept) return kept.error();
    leaveOutSilence();
    return std::optional<Take>{take_};
}

} // namespace jg
