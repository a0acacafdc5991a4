// SPDX-License-Identifier: GPL-3.0-or-later
// The delivery of another day next to the picture: it steps with the one that is reviewed.
#pragma once

#include "desk/session/beside.h"
#include "film/film_info.h"
#include "review/compare/lockstep.h"
#include "ui/film/pair_film.h"
#include "ui/film/stage_view.h"

#include <QObject>

#include <memory>
#include <optional>

namespace jg::ui {

/// Shows the other delivery of a stop in a stage of its own, cut to the athlete as the review's is meanwhile.
class BesideStage : public QObject {
    Q_OBJECT
public:
    /// `other` is hidden; it is shown while something stands beside.
    BesideStage(StageView& own, StageView& other, QObject* parent);
    /// `finding` is what the marks are about.
    void show(const Stop& stop, std::shared_ptr<const ThenAndNow> both, const Playbook& playbook,
              const Library& library);
    void showNothing();
    bool shows() const { return both_ != nullptr; }
    /// What the review's own picture is called meanwhile. Only while something shows.
    Message ownCaption() const { return nowCaption(both_->then, both_->now); }
    /// Goes to the frame that belongs to one of the review's film. Both films need to be open.
    void follow(qint64 frame, bool playing, const FilmInfo& ownFilm, double ownFps);
    /// The frame shown of the other film; -1 until there is one.
    std::int64_t shownFrame() const { return film_ ? film_->shownFrame() : -1; }

private:
    void lock(const FilmInfo& ownFilm, double ownFps);
    void paint();

    StageView& own_;
    StageView& other_;
    std::shared_ptr<const ThenAndNow> both_;
    Beside at_;
    std::string finding_;
    Playbook playbook_;
    std::unique_ptr<PairFilm> film_;
    std::optional<Lockstep> lockstep_;
};

} // namespace jg::ui
