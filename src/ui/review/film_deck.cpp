#include "ui/review/film_deck.h"

#include "letter/qt_text.h"
#include "voice/audio_file.h"

#include <cmath>

namespace jg::ui {

namespace {
bool runsAtTrueSpeed(const FilmInfo& info, double captureFps) {
    const double play = info.playRate.toDouble();
    return captureFps <= 0 || play <= 0 || std::abs(play - captureFps) < 0.02 * captureFps;
}
} // namespace

std::vector<double> trueSeconds(const FilmInfo& info, double captureFps) {
    const double play = info.playRate.toDouble();
    const double stretch = runsAtTrueSpeed(info, captureFps) ? 1 : play / captureFps;
    std::vector<double> seconds;
    for (const Pts pts : info.pts)
        seconds.push_back(secondsOf(Pts{pts.value - info.pts.front().value}, info.timeBase) * stretch);
    return seconds;
}

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
    connect(&stage_, &StageView::tooEarly, this, [this] {
        Q_EMIT say("The exact picture is still being decoded: mark on it in a moment.", false);
    });
}

void FilmDeck::open(const std::filesystem::path& film, const std::filesystem::path& scrub,
                    double captureFps) {
    loudspeaker_.stop();
    sound_.reset();
    path_ = film;
    captureFps_ = captureFps;
    info_ = {};
    stage_.setMessage("Opening the film \u2026");
    film_ = std::make_unique<FilmThread>(film, scrub);
    connect(film_.get(), &FilmThread::firstPicture, this, [this](const Picture& picture) {
        if (playhead_.frame() == 0) show(0, picture, false);
    });
    connect(film_.get(), &FilmThread::opened, this, &FilmDeck::opened);
    connect(film_.get(), &FilmThread::failed, this, [this](const QString& why) {
        stage_.setMessage(why);
        Q_EMIT say(why, true);
    });
    connect(film_.get(), &FilmThread::frameDamaged, this, [this](qint64 frame, const QString& why) {
        if (frame != playhead_.frame()) return;
        stage_.setMessage(why);
        Q_EMIT say(why, false);
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
        Q_EMIT say(QString("This film ends early: %1 pictures can be read.").arg(info.frames()), false);
}

void FilmDeck::loadSound() {
    new Job(film_.get(),
            [this, path = path_](std::stop_token stop, const Job::Progress&) -> Job::Continuation {
                auto samples = readSound(path, stop);
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
    QString line = QString("frame %1 \u00b7 %2 s \u00b7 %3 \u00b7 %4 of %5 MB held")
                       .arg(frame)
                       .arg(playhead_.secondsAt(frame), 0, 'f', 4)
                       .arg(stage_.exact() ? "exact" : "near")
                       .arg(megabytes(film_->cacheBytes()))
                       .arg(megabytes(FrameBudget::ofThisMachine()->share()));
    if (playhead_.passed() > 0)
        line +=
            QString(" \u00b7 %1 of %2 pictures left out").arg(playhead_.leftOut()).arg(playhead_.passed());
    stage_.setDetails(line + " \u00b7 " + text(info_.codec) + ", " + text(info_.pixelFormat));
}

} // namespace jg::ui
