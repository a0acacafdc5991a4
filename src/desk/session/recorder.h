// SPDX-License-Identifier: GPL-3.0-or-later
// Recording one stop: sound to a file, events on the sound's own clock.
#pragma once

#include "library/library.h"
#include "voice/audio_file.h"
#include "voice/level_watch.h"
#include "voice/microphone.h"

#include <QObject>

#include <memory>
#include <optional>
#include <vector>

namespace jg {

/// What of an earlier take of a stop goes before a new one: its first samples, and what was done in them.
struct TakeHead {
    Take take;
    std::int64_t samples = 0;
};

/// Records takes. Lives in the window's thread. A take that is broken off keeps what was said so far.
class Recorder : public QObject {
    Q_OBJECT
public:
    Recorder(Library& library, Microphone& microphone)
        : library_(library)
        , microphone_(microphone) {}
    ~Recorder() override;

    /// Begins a take of a stop, from the end of `head` on where there is one. The earlier take's file stays
    /// as it is. Errors: NotFound (no microphone), Refused, WriteFailed, DiskFull, those of readSound().
    Status start(const ReviewId& review, const Stop& stop, std::int64_t nowUnix,
                 const std::optional<TakeHead>& head = {});
    bool recording() const { return writer_.has_value(); }
    const StopId& stop() const { return stop_; }
    /// Notes something done while talking, at the sample that has just come in.
    void note(TakeEvent event);
    double seconds() const { return writer_ ? static_cast<double>(writer_->samples()) / kSampleRate : 0; }
    /// Loudest sample of each tenth of a second, 0..1.
    const std::vector<float>& levels() const { return levels_; }
    /// What is wrong with the sound just now.
    LevelTrouble trouble() const { return watch_.now(); }
    /// What was taken until now; its sound is not all in the file yet.
    const Take& soFar() const { return take_; }
    std::int64_t samples() const { return writer_ ? writer_->samples() : 0; }
    /// Ends the take, the silence at its ends left out. Nothing when no sample came but those of a head.
    /// Errors: WriteFailed, DiskFull.
    Result<std::optional<Take>> finish();

Q_SIGNALS:
    void heard();                       ///< more sound has come
    void brokenOff(const Message& why); ///< the microphone went away; call finish()

private:
    void take(std::span<const std::int16_t> samples);
    void breakOff(const Message& why);
    Status write(std::span<const std::int16_t> samples);
    Status writeHead(const TakeHead& head);
    void leaveOutSilence();
    Library& library_;
    Microphone& microphone_;
    std::optional<WavWriter> writer_;
    std::filesystem::path part_;
    StopId stop_;
    Take take_;
    std::int64_t headSamples_ = 0;
    std::vector<float> levels_;
    LevelWatch watch_;
    int serial_ = 0; ///< of the takes of this program
    bool broken_ = false;
    float peak_ = 0;
    std::int64_t nextLevel_ = 0;
};

} // namespace jg
