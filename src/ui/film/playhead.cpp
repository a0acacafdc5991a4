// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/film/playhead.h"

#include <algorithm>
#include <chrono>
#include <cstdlib>

namespace jg::ui {

namespace {

double machineSeconds() {
    return std::chrono::duration<double>(std::chrono::steady_clock::now().time_since_epoch()).count();
}

} // namespace

double slowerThan(double speed) {
    return speed == 1 ? 0.5 : speed == 0.5 ? 0.25 : speed == 0.25 ? 0.1 : 1;
}

Playhead::Playhead(QObject* parent)
    : QObject(parent)
    , clock_(machineSeconds) {
    timer_.setTimerType(Qt::PreciseTimer);
    timer_.setInterval(4);
    connect(&timer_, &QTimer::timeout, this, &Playhead::tick);
}

void Playhead::setFilm(qint64 frames, double fps) {
    std::vector<double> seconds;
    for (qint64 n = 0; n < frames; ++n) seconds.push_back(static_cast<double>(n) / (fps > 0 ? fps : 30));
    setFilm(std::move(seconds));
}

void Playhead::setFilm(std::vector<double> seconds) {
    pause();
    seconds_ = std::move(seconds);
    loop_.reset();
    frame_ = std::clamp<qint64>(frame_, 0, std::max<qint64>(0, frames() - 1));
    Q_EMIT moved(frame_);
}

double Playhead::secondsAt(qint64 frame) const {
    if (seconds_.empty()) return 0;
    return seconds_[static_cast<std::size_t>(std::clamp<qint64>(frame, 0, frames() - 1))];
}

qint64 Playhead::frameAt(double seconds) const {
    const auto after = std::upper_bound(seconds_.begin(), seconds_.end(), seconds + 1e-9);
    return std::max<qint64>(0, after - seconds_.begin() - 1);
}

void Playhead::jump(qint64 frame) {
    const qint64 to = std::clamp<qint64>(frame, 0, std::max<qint64>(0, frames() - 1));
    if (to == frame_) return;
    frame_ = to;
    Q_EMIT moved(frame_);
}

void Playhead::startAt(qint64 frame) {
    if (!seconds_.empty()) return jump(frame);
    frame_ = std::max<qint64>(0, frame);
    Q_EMIT moved(frame_);
}

void Playhead::begin(qint64 frame) {
    jump(frame);
    startS_ = secondsAt(frame_);
    begunAt_ = clock_();
}

void Playhead::play(int direction) {
    if (seconds_.empty()) return;
    direction_ = direction;
    passed_ = shown_ = 0;
    lastShown_ = -1;
    const qint64 first = loop_ ? loop_->first : 0, last = loop_ ? loop_->second : frames() - 1;
    const bool outside = direction > 0 ? frame_ >= last || frame_ < first : frame_ <= first || frame_ > last;
    begin(outside ? (direction > 0 ? first : last) : frame_);
    timer_.start();
    Q_EMIT stateChanged();
}

void Playhead::pause() {
    if (!timer_.isActive()) return;
    timer_.stop();
    Q_EMIT stateChanged();
}

void Playhead::slower() {
    speed_ = slowerThan(speed_);
    if (playing()) play(direction_);
    Q_EMIT stateChanged();
}

void Playhead::setLoop(std::optional<std::pair<qint64, qint64>> loop) {
    loop_ = loop && loop->first < loop->second ? loop : std::nullopt;
    if (playing()) play(direction_);
    Q_EMIT stateChanged();
}

void Playhead::shown(qint64 frame) {
    if (!playing() || frame == lastShown_) return;
    lastShown_ = frame;
    ++shown_;
}

void Playhead::tick() {
    double at = startS_ + direction_ * (clock_() - begunAt_) * speed_;
    if (soundClock_ && direction_ > 0 && speed_ == 1)
        if (const auto heard = soundClock_()) at = *heard;
    const qint64 first = loop_ ? loop_->first : 0, last = loop_ ? loop_->second : frames() - 1;
    const qint64 to = std::clamp(frameAt(at), first, last);
    passed_ += std::llabs(to - frame_);
    jump(to);
    const bool ended = direction_ > 0 ? to >= last : to <= first;
    if (!ended) return;
    if (!loop_) return pause();
    begin(direction_ > 0 ? first : last);
    Q_EMIT stateChanged();
}

} // namespace jg::ui
