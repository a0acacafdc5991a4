#include "ui/review/playhead.h"

#include <algorithm>

namespace jg::ui {

Playhead::Playhead(QObject* parent)
    : QObject(parent) {
    timer_.setInterval(8);
    connect(&timer_, &QTimer::timeout, this, &Playhead::tick);
}

void Playhead::setFilm(qint64 frames, double playFps) {
    frames_ = frames;
    fps_ = playFps > 0 ? playFps : 30;
    frame_ = std::clamp<qint64>(frame_, 0, std::max<qint64>(0, frames_ - 1));
    Q_EMIT moved(frame_);
}

void Playhead::jump(qint64 frame) {
    const qint64 to = std::clamp<qint64>(frame, 0, std::max<qint64>(0, frames_ - 1));
    if (to == frame_) return;
    frame_ = to;
    Q_EMIT moved(frame_);
}

void Playhead::play() {
    if (frames_ == 0) return;
    startFrame_ = frame_ >= frames_ - 1 ? 0 : frame_;
    clock_.start();
    timer_.start();
    Q_EMIT stateChanged();
}

void Playhead::pause() {
    if (!timer_.isActive()) return;
    timer_.stop();
    Q_EMIT stateChanged();
}

void Playhead::slower() {
    speed_ = speed_ == 1 ? 0.5 : speed_ == 0.5 ? 0.25 : speed_ == 0.25 ? 0.1 : 1;
    if (playing()) play();
    Q_EMIT stateChanged();
}

void Playhead::tick() {
    const auto to =
        startFrame_ + static_cast<qint64>(static_cast<double>(clock_.nsecsElapsed()) * 1e-9 * fps_ * speed_);
    jump(to);
    if (to >= frames_ - 1) pause();
}

} // namespace jg::ui
