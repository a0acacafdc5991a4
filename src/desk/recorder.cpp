#include "desk/recorder.h"

#include "review/message_json.h"

#include <algorithm>
#include <cmath>

namespace jg {

namespace fs = std::filesystem;

Recorder::~Recorder() {
    if (recording()) finish();
}

Status Recorder::start(const ReviewId& review, const Stop& stop, const std::string& serial) {
    take_ = Take{};
    take_.file = review.value + "-" + stop.id.value + "-" + serial + ".wav";
    take_.sampleRate = kSampleRate;
    take_.microphone = messageAsText(microphone_.name());
    part_ = library_.takePath(".part-" + take_.file);
    stop_ = stop.id;
    levels_.clear();
    peak_ = 0;
    nextLevel_ = kSampleRate / 10;
    auto writer = WavWriter::open(part_);
    if (!writer) return writer.error();
    writer_.emplace(std::move(*writer));
    note(TakeEventKind::Frame, stop.frame);
    const Status started = microphone_.start([this](std::span<const std::int16_t> s) { take(s); },
                                             [this](const Error& e) { Q_EMIT brokenOff(e.text); });
    if (!started) {
        writer_.reset();
        std::error_code ec;
        fs::remove(part_, ec);
    }
    return started;
}

void Recorder::take(std::span<const std::int16_t> samples) {
    if (!writer_) return;
    if (auto written = writer_->write(samples); !written) {
        Q_EMIT brokenOff(written.error().text);
        return;
    }
    for (const std::int16_t s : samples) peak_ = std::max(peak_, std::abs(static_cast<float>(s)) / 32768.0f);
    while (writer_->samples() >= nextLevel_) {
        levels_.push_back(peak_);
        peak_ = 0;
        nextLevel_ += kSampleRate / 10;
    }
    Q_EMIT heard();
}

void Recorder::note(TakeEventKind kind, std::int64_t frame, ImagePoint at) {
    if (!writer_) return;
    take_.events.push_back({writer_->samples(), kind, frame, at});
}

Result<std::optional<Take>> Recorder::finish() {
    if (!writer_) return std::optional<Take>{};
    microphone_.stop();
    take_.samples = writer_->samples();
    const Status finished = writer_->finish();
    writer_.reset();
    std::error_code ec;
    if (!finished || take_.samples == 0) {
        if (take_.samples == 0) fs::remove(part_, ec);
        if (!finished) return finished.error();
        return std::optional<Take>{};
    }
    fs::rename(part_, library_.takePath(take_.file), ec);
    if (ec) return writeError(library_.takePath(take_.file), ec.value());
    return std::optional<Take>{take_};
}

} // namespace jg
