// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/film/pair_film.h"

namespace jg::ui {

PairFilm::PairFilm(const std::filesystem::path& film, const std::filesystem::path& scrub, QObject* parent)
    : QObject(parent)
    , film_(std::make_unique<FilmThread>(film, scrub)) {
    connect(film_.get(), &FilmThread::opened, this, [this](const FilmInfo& info) {
        info_ = info;
        Q_EMIT opened();
    });
    connect(film_.get(), &FilmThread::failed, this, &PairFilm::failed);
    connect(film_.get(), &FilmThread::frameDamaged, this, [this](qint64 frame, const Message& why) {
        if (frame == wanted_) Q_EMIT failed(why);
    });
    connect(film_.get(), &FilmThread::frameReady, this,
            [this](qint64 frame, const Picture& picture) { take(frame, picture, true); });
    connect(film_.get(), &FilmThread::frameNear, this,
            [this](qint64 frame, const Picture& picture) { take(frame, picture, false); });
}

void PairFilm::want(std::int64_t frame, bool playing) {
    playing_ = playing;
    if (frame == wanted_ && shown_ == frame && exact_) return;
    wanted_ = frame;
    film_->request(FrameNumber{frame});
}

void PairFilm::take(qint64 frame, const Picture& picture, bool exact) {
    if (frame != wanted_ && !playing_) return;
    if (frame == shown_ && exact_ && !exact) return;
    picture_ = picture;
    shown_ = frame;
    exact_ = exact;
    Q_EMIT shown();
}

} // namespace jg::ui
