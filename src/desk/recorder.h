// Recording one stop: sound to a file, events on the sound's own clock.
#pragma once

#include "library/library.h"
#include "voice/audio_file.h"
#include "voice/microphone.h"

#include <QObject>

#include <memory>
#include <optional>
#include <vector>

namespace jg {

/// Records takes. Lives in the window's thread. A take that is broken off keeps what was said so far.
class Recorder : public QObject {
    Q_OBJECT
public:
    Recorder(Library& library, Microphone& microphone)
        : library_(library)
        , microphone_(microphone) {}
    ~Recorder() override;

    /// Begins a take of a stop. Errors: NotFound (no microphone), Refused, WriteFailed, DiskFull.
    Status start(const ReviewId& review, const Stop& stop, const std::string& serial);
    bool recording() const { return writer_.has_value(); }
    const StopId& stop() const { return stop_; }
    /// Notes something done while talking, at the sample that has just come in.
    void note(TakeEventKind kind, std::int64_t frame = 0, ImagePoint at = {});
    double seconds() const { return writer_ ? static_cast<double>(writer_->samples()) / kSampleRate : 0; }
    /// Loudest sample of each tenth of a second, 0..1.
    const std::vector<float>& levels() const { return levels_; }
    const std::vector<TakeEvent>& events() const { return take_.events; }
    /// Ends the take. Nothing when no sample came. Errors: WriteFailed, DiskFull.
    Result<std::optional<Take>> finish();

Q_SIGNALS:
    void heard();                       ///< more sound has come
    void brokenOff(const Message& why); ///< the microphone went away; call finish()

private:
    void take(std::span<const std::int16_t> samples);
    Library& library_;
    Microphone& microphone_;
    std::optional<WavWriter> writer_;
    std::filesystem::path part_;
    StopId stop_;
    Take take_;
    std::vector<float> levels_;
    float peak_ = 0;
    std::int64_t nextLevel_ = 0;
};

} // namespace jg
