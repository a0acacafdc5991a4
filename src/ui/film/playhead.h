// SPDX-License-Identifier: GPL-3.0-or-later
// The frame at hand, stepping and playing.
#pragma once

#include <QObject>
#include <QTimer>

#include <functional>
#include <optional>
#include <utility>
#include <vector>

namespace jg::ui {

/// The next slower speed: true, half, quarter, tenth, true ...
double slowerThan(double speed);

/// Which frame is wanted. Playing follows the film's true times on a clock, the sound's own while it is
/// heard, so that it never drifts; frames that come late are left out and counted.
class Playhead : public QObject {
    Q_OBJECT
public:
    explicit Playhead(QObject* parent = nullptr);
    /// Seconds on a clock that only goes forward; the machine's own unless set.
    void setClock(std::function<double()> clock) { clock_ = std::move(clock); }
    /// Frames of a constant rate.
    void setFilm(qint64 frames, double fps);
    /// Frames at these true times in seconds, rising.
    void setFilm(std::vector<double> seconds);
    /// Seconds into the film as heard, or nothing while it is silent.
    void setSoundClock(std::function<std::optional<double>()> clock) { soundClock_ = std::move(clock); }

    qint64 frame() const { return frame_; }
    qint64 frames() const { return static_cast<qint64>(seconds_.size()); }
    double secondsAt(qint64 frame) const;
    bool playing() const { return timer_.isActive(); }
    int direction() const { return direction_; }
    double speed() const { return speed_; }
    void jump(qint64 frame);
    /// Where it stands once the film is known; a jump when it is.
    void startAt(qint64 frame);
    void step(qint64 by) { pause(), jump(frame_ + by); }
    void toggle(int direction = 1) { playing() ? pause() : play(direction); }
    void play(int direction = 1);
    void pause();
    void slower(); ///< by slowerThan()
    /// Plays between these two frames over and over; nothing = to the end.
    void setLoop(std::optional<std::pair<qint64, qint64>> loop);
    std::optional<std::pair<qint64, qint64>> loop() const { return loop_; }
    /// A picture came to the screen.
    void shown(qint64 frame);
    /// Frames passed and pictures not shown since play().
    qint64 passed() const { return passed_; }
    qint64 leftOut() const { return std::max<qint64>(0, passed_ - shown_); }

Q_SIGNALS:
    void moved(qint64 frame);
    void stateChanged();

private:
    void begin(qint64 frame);
    void tick();
    qint64 frameAt(double seconds) const;

    qint64 frame_ = 0;
    std::vector<double> seconds_;
    double speed_ = 1;
    int direction_ = 1;
    std::optional<std::pair<qint64, qint64>> loop_;
    std::function<std::optional<double>()> soundClock_;
    std::function<double()> clock_;
    double startS_ = 0, begunAt_ = 0;
    qint64 passed_ = 0, shown_ = 0, lastShown_ = -1;
    QTimer timer_;
};

} // namespace jg::ui
