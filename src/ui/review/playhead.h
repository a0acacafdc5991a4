// The frame at hand, stepping and playing.
#pragma once

#include <QElapsedTimer>
#include <QObject>
#include <QTimer>

namespace jg::ui {

/// Which frame is wanted. Playing follows the clock, so that it never drifts; frames that come late are left
/// out.
class Playhead : public QObject {
    Q_OBJECT
public:
    explicit Playhead(QObject* parent = nullptr);
    void setFilm(qint64 frames, double playFps);
    qint64 frame() const { return frame_; }
    qint64 frames() const { return frames_; }
    bool playing() const { return timer_.isActive(); }
    double speed() const { return speed_; }
    void jump(qint64 frame);
    void step(qint64 by) { pause(), jump(frame_ + by); }
    void toggle() { playing() ? pause() : play(); }
    void play();
    void pause();
    void slower(); ///< true, half, quarter, tenth, true ...

Q_SIGNALS:
    void moved(qint64 frame);
    void stateChanged();

private:
    void tick();
    qint64 frame_ = 0;
    qint64 frames_ = 0;
    double fps_ = 30;
    double speed_ = 1;
    qint64 startFrame_ = 0;
    QElapsedTimer clock_;
    QTimer timer_;
};

} // namespace jg::ui
