// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/film/beside_stage.h"

#include "film/true_time.h"
#include "letter/film_plan.h"
#include "ui/kit/words.h"

namespace jg::ui {

BesideStage::BesideStage(StageView& own, StageView& other, QObject* parent)
    : QObject(parent)
    , own_(own)
    , other_(other) {}

void BesideStage::show(const Stop& stop, std::shared_ptr<const ThenAndNow> both, const Playbook& playbook,
                       const Library& library) {
    const bool same = both_ && both_->then.clip == both->then.clip;
    finding_ = stop.finding;
    if (!same || !stop.beside || at_ != *stop.beside) lockstep_.reset();
    at_ = *stop.beside;
    playbook_ = playbook;
    both_ = std::move(both);
    const auto part = [](const JuxtaEntry& e, const StageView& stage) {
        return athletePart(e.marks, nullptr, QSizeF(e.clip.width, e.clip.height),
                           QSizeF(std::max(1, stage.width()), std::max(1, stage.height())));
    };
    other_.show();
    other_.setVeils(both_->then.marks.veils);
    other_.setPart(part(both_->then, other_));
    own_.setPart(part(both_->now, own_));
    if (!same) {
        const Clip& clip = both_->then.clip;
        film_ = std::make_unique<PairFilm>(library.mediaPath(clip), library.scrubPath(clip), this);
        connect(film_.get(), &PairFilm::shown, this, &BesideStage::paint);
        connect(film_.get(), &PairFilm::failed, this,
                [this](const Message& why) { other_.setMessage(say(why)); });
        other_.setMessage({});
        film_->want(at_.frame, false);
    }
    paint();
}

void BesideStage::showNothing() {
    if (!both_) return;
    both_.reset();
    film_.reset();
    lockstep_.reset();
    other_.hide();
    own_.setPart(std::nullopt);
}

void BesideStage::lock(const FilmInfo& ownFilm, double ownFps) {
    if (lockstep_ || ownFilm.frames() == 0 || film_->info().frames() == 0) return;
    lockstep_.emplace(std::array<FrameTimes, 2>{trueSeconds(ownFilm, ownFps),
                                                trueSeconds(film_->info(), both_->then.clip.captureFps)},
                      std::array<std::int64_t, 2>{at_.with, at_.frame});
}

void BesideStage::follow(qint64 frame, bool playing, const FilmInfo& ownFilm, double ownFps) {
    if (!both_) return;
    lock(ownFilm, ownFps);
    if (!lockstep_) return;
    lockstep_->goToFrame(0, frame);
    film_->want(lockstep_->frame(1), playing);
}

void BesideStage::paint() {
    if (!both_) return;
    const JuxtaEntry& e = both_->then;
    if (film_->shownFrame() >= 0) {
        const std::int64_t frame = film_->shownFrame();
        if (film_->exact())
            other_.setPicture(frame, film_->picture());
        else
            other_.setNear(frame, film_->picture(), QSize(e.clip.width, e.clip.height));
        other_.setScene(sceneFor(e.marks, playbook_, e.results, frame, finding_));
    }
    other_.setCaption(say(joined(ListStyle::Dots, {thenCaption(e, both_->now), nameOf(e.clip.view)})), {});
}

} // namespace jg::ui
