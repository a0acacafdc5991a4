// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/film/film_deck.h"

#include "base/caught.h"
#include "film/true_time.h"
#include "letter/qt_text.h"
#include "ui/kit/words.h"
#include "voice/audio_file.h"

namespace jg::ui {

FilmDeck::FilmDeck(StageView& stage, Playhead& playhead, Loudspeaker& loudspeaker, QObject* parent)
    : QObject(parent)
    , stage_(stage)
    , playhead_(playhead)
    , loudspeaker_(loudspeaker) {
    connect(&playhead_, &Playhead::moved, this, [this](qint64 frame) {
        if (film_) film_->request(FrameNumber{frame});
    });
    connect(&playhead_, &Playhead::stateChanged, this, &FilmDeck::followPlaying);
    playhead_.setSoundClock([this] { return sound_ ? loudspeaker_.position() : std::nullopt; });
    connect(&stage_, &StageView::tooEarly, this,
            [this] { Q_EMIT tell(say("film-deck.the-exact-picture-is-still-being"), false); });
}

void FilmDeck::open(const std::filesystem::path& film, const std::filesystem::path& scrub,
                    double captureFps) {
    loudspeaker_.stop();
    sound_.reset();
    path_ = film;
    captureFps_ = captureFps;
    info_ = {};
    stage_.setMessage(say("film-deck.opening-the-film"));
    film_ = std::make_unique<FilmThread>(film, scrub);
    connect(film_.get(), &FilmThread::firstPicture, this, [this](const Picture& picture) {
        if (playhead_.frame() == 0) show(0, picture, false);
    });
    connect(film_.get(), &FilmThread::opened, this, &FilmDeck::opened);
    connect(film_.get(), &FilmThread::failed, this, [this](const Message& why) {
        stage_.setMessage(say(why));
        Q_EMIT tell(say(why), true);
    });
    connect(film_.get(), &FilmThread::frameDamaged, this, [this](qint64 frame, const Message& why) {
        if (frame != playhead_.frame()) return;
        stage_.setMessage(say(why));
        Q_EMIT tell(say(why), false);
    });
    connect(film_.get(), &FilmThread::frameReady, this,
            [this](qint64 frame, const Picture& picture) { show(frame, picture, true); });
    connect(film_.get(), &FilmThread::frameNear, this,
            [this](qint64 frame, const Picture& picture) { show(frame, picture, false); });
    film_->request(FrameNumber{playhead_.frame()});
}

void FilmDeck::close() {
    playhead_.pause();
    loudspeaker_.stop();
    film_.reset();
}

void FilmDeck::opened(const FilmInfo& info) {
    info_ = info;
    playhead_.setFilm(trueSeconds(info, captureFps_));
    if (info.audio && runsAtTrueSpeed(info, captureFps_)) loadSound();
    if (!info.complete)
        Q_EMIT tell(say("film-deck.this-film-ends-early-frames-pictures", {{"frames", info.frames()}}),
                    false);
}

void FilmDeck::loadSound() {
    new Job(film_.get(),
            [this, path = path_](std::stop_token stop, const Job::Progress&) -> Job::Continuation {
                auto samples = caught([&] { return readSound(path, stop); });
                if (!samples) return {}; // a film whose sound can't be read is a silent film
                auto shared = std::make_shared<const std::vector<float>>(std::move(*samples));
                return [this, shared] { sound_ = shared; };
            });
}

void FilmDeck::followPlaying() {
    const bool heard = sound_ && playhead_.playing() && playhead_.direction() > 0 && playhead_.speed() == 1;
    if (heard)
        loudspeaker_.play(sound_, playhead_.secondsAt(playhead_.frame()));
    else if (sound_)
        loudspeaker_.stop();
    refreshDetails();
}

void FilmDeck::show(qint64 frame, const Picture& picture, bool exact) {
    // A picture decoded for an older wish is not put under a newer frame's marks; while it runs it is.
    if (frame != playhead_.frame() && !playhead_.playing()) return;
    if (exact)
        stage_.setPicture(frame, picture);
    else
        stage_.setNear(frame, picture,
                       info_.width > 0 ? QSize(info_.width, info_.height)
                                       : QSize(picture.width, picture.height));
    playhead_.shown(frame);
    refreshDetails();
    Q_EMIT pictureShown();
}

void FilmDeck::toggleDetails() {
    details_ = !details_;
    refreshDetails();
}

void FilmDeck::refreshDetails() {
    if (!details_ || !film_) return stage_.setDetails({});
    const qint64 frame = stage_.shownFrame();
    const auto megabytes = [](std::size_t bytes) { return static_cast<qulonglong>(bytes >> 20); };
    std::vector<Message> told = {
        msg("film-deck.frame", {{"frame", frame}}),
        msg("film-deck.seconds", {{"seconds", Decimal{playhead_.secondsAt(frame), 4}}}),
        stage_.exact() ? msg("film-deck.exact") : msg("film-deck.near"),
        msg("film-deck.memory", {{"held", megabytes(film_->cacheBytes())},
                                 {"share", megabytes(FrameBudget::ofThisMachine()->share())}})};
    if (playhead_.passed() > 0)
        told.push_back(
            msg("film-deck.left-out", {{"leftOut", playhead_.leftOut()}, {"passed", playhead_.passed()}}));
    told.push_back(asIs(info_.codec + ", " + info_.pixelFormat));
    stage_.setDetails(say(joined(ListStyle::Dots, std::move(told))));
}

} // namespace jg::ui
