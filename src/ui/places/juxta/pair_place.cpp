// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/places/juxta/pair_place.h"

#include "film/true_time.h"
#include "review/assess/guide.h"
#include "review/tell/stops.h"
#include "ui/film/playhead.h"
#include "ui/kit/choice_dialog.h"
#include "ui/kit/theme.h"
#include "ui/places/juxta/change_panel.h"
#include "ui/places/juxta/lock_strip.h"
#include "words/words.h"

#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace jg::ui {

namespace {

constexpr std::size_t kSides[2] = {0, 1};
constexpr double kMsPerS = 1000;

std::vector<std::int64_t> pinsOf(const DeliveryMarks& marks) {
    std::vector<std::int64_t> frames;
    for (const MomentInfo& m : keyPositions())
        if (const auto frame = marks.frameOf(m.moment)) frames.push_back(*frame);
    return frames;
}

} // namespace

PairPlace::PairPlace(JuxtaEntry one, JuxtaEntry other, PairStart start, const PairSurroundings& surroundings)
    : s_(surroundings)
    , entries_{std::move(one), std::move(other)}
    , lock_(start.lock)
    , beginMs_(start.ms) {
    const auto both = shared();
    if (std::find(both.begin(), both.end(), lock_) == both.end() && !both.empty()) lock_ = both.front();
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(0);
    auto* column = new QVBoxLayout;
    column->setSpacing(0);
    view_ = new PairView(s_.playbook);
    column->addWidget(view_, 1);
    strip_ = new LockStrip;
    column->addWidget(strip_);
    row->addLayout(column, 1);
    panel_ = new ChangePanel;
    row->addWidget(panel_);
    connect(view_, &PairView::pressed, this, &PairPlace::press);
    connect(view_, &PairView::dragged, this, &PairPlace::dragTo);
    connect(view_, &PairView::released, this, [this] {
        if (held_) sessions_[held_->first]->endGesture();
        held_.reset();
    });
    connect(strip_, &LockStrip::scrubbed, this, [this](double ms) { pause(), goTo(ms); });
    timer_.setTimerType(Qt::PreciseTimer);
    timer_.setInterval(6);
    connect(&timer_, &QTimer::timeout, this, &PairPlace::tick);
    for (const std::size_t side : kSides) {
        const Clip& clip = entries_[side].clip;
        films_[side] =
            std::make_unique<PairFilm>(s_.library.mediaPath(clip), s_.library.scrubPath(clip), this);
        connect(films_[side].get(), &PairFilm::opened, this, &PairPlace::opened);
        connect(films_[side].get(), &PairFilm::shown, this, [this, side] { refreshSide(side); });
        connect(films_[side].get(), &PairFilm::failed, this, [this, side](const Message& why) {
            PairSide shown = view_->side(side);
            shown.message = say(why);
            view_->setSide(side, std::move(shown));
        });
        films_[side]->want(entries_[side].marks.frameOf(lock_).value_or(0), false);
        refreshSide(side);
    }
}

PairPlace::~PairPlace() {
    timer_.stop();
    if (sessions_[0] == sessions_[1]) sessions_[1].reset(); // both films are one review's
    for (auto& session : sessions_)
        if (session && s_.park) {
            session->disconnect(this);
            s_.park(session->takeKeeper());
        }
}

void PairPlace::settle() {
    for (const auto& session : sessions_)
        if (session) session->settle();
}

std::vector<Moment> PairPlace::shared() const {
    std::vector<Moment> both;
    for (const MomentInfo& m : keyPositions())
        if (entries_[0].marks.frameOf(m.moment) && entries_[1].marks.frameOf(m.moment))
            both.push_back(m.moment);
    return both;
}

void PairPlace::opened() {
    if (films_[0]->info().frames() == 0 || films_[1]->info().frames() == 0) return;
    std::array<FrameTimes, 2> times;
    for (const std::size_t side : kSides)
        times[side] = trueSeconds(films_[side]->info(), entries_[side].clip.captureFps);
    lockstep_.emplace(std::move(times), std::array<std::int64_t, 2>{0, 0});
    lockAt(lock_);
    if (beginMs_ != 0) goTo(beginMs_);
}

void PairPlace::lockAt(Moment moment) {
    lock_ = moment;
    if (!lockstep_) return;
    lockstep_->lockAt(
        {entries_[0].marks.frameOf(moment).value_or(0), entries_[1].marks.frameOf(moment).value_or(0)});
    unlocked_.reset();
    view_->setUnlocked({});
    refreshTracks();
    refresh();
}

/// Where the two stand now; called at every step and while they play.
void PairPlace::refresh() {
    if (!lockstep_) return;
    for (const std::size_t side : kSides) {
        films_[side]->want(lockstep_->frame(side), playing());
        refreshSide(side);
    }
    strip_->setNow(lockstep_->ms(), say("pair-place.now", {{"ms", Decimal{lockstep_->ms(), 0}},
                                                           {"moment", info(lock_).name()},
                                                           {"apart", Decimal{lockstep_->apartMs(), 1}}}));
    refreshPanel();
}

/// How the films lie to each other, which only another lock changes.
void PairPlace::refreshTracks() {
    std::array<LockTrack, 2> tracks;
    for (const std::size_t side : kSides) {
        const auto last = films_[side]->info().frames() - 1;
        LockTrack& t = tracks[side];
        t.firstMs = lockstep_->msOf(side, 0);
        t.lastMs = lockstep_->msOf(side, last);
        t.frameMs = last > 0 ? (t.lastMs - t.firstMs) / static_cast<double>(last) : 0;
        for (const MomentInfo& m : keyPositions())
            if (const auto frame = entries_[side].marks.frameOf(m.moment))
                t.pins.push_back({lockstep_->msOf(side, *frame), say(m.shortly())});
    }
    strip_->setTracks(std::move(tracks));
}

QString PairPlace::timeOf(std::size_t side) const {
    if (!lockstep_) return say("film-deck.opening-the-film");
    const std::int64_t frame = lockstep_->frame(side);
    std::vector<Message> told = {msg("pair-place.ms", {{"ms", Decimal{lockstep_->msOf(side, frame), 0}}}),
                                 msg("ribbon.frame-frame", {{"frame", frame}})};
    for (const MomentInfo& m : keyPositions())
        if (entries_[side].marks.frameOf(m.moment) == frame) told.push_back(m.name());
    if (entries_[side].clip.captureFps <= 0) told.push_back(msg("pair-place.rate-unknown"));
    if (lockstep_->beyond(side)) told.push_back(msg("pair-place.beyond"));
    return say(joined(ListStyle::Dots, std::move(told)));
}

void PairPlace::refreshSide(std::size_t side) {
    const JuxtaEntry& e = entries_[side];
    PairSide shown;
    if (!rows_[side])
        rows_[side] = std::make_shared<const JuxtaRow>(JuxtaRow{e, juxtaFitOf(e, entries_[1].hand)});
    shown.row = rows_[side];
    shown.picture = films_[side]->picture();
    shown.frame = films_[side]->shownFrame();
    shown.exact = films_[side]->exact();
    std::vector<Message> who = {captionOf(e)};
    if (shown.row->fit && shown.row->fit->mirrored) who.push_back(msg("juxta.mirrored"));
    shown.caption = say(joined(ListStyle::Dots, std::move(who)));
    shown.time = timeOf(side);
    view_->setSide(side, std::move(shown));
}

/// The position nearest to now of either film.
Moment PairPlace::momentHere() const {
    Moment best = lock_;
    double nearest = 1e18;
    for (const Moment m : shared())
        for (const std::size_t side : kSides) {
            const double off =
                std::abs(lockstep_->msOf(side, *entries_[side].marks.frameOf(m)) - lockstep_->ms());
            if (off < nearest) nearest = off, best = m;
        }
    return best;
}

void PairPlace::refreshPanel() {
    const Moment moment = momentHere();
    const QString what = QString("%1 %2 %3 %4")
                             .arg(static_cast<int>(moment))
                             .arg(static_cast<int>(view_->look()))
                             .arg(lockstep_->lock(0))
                             .arg(lockstep_->lock(1));
    if (what == panelOf_) return;
    panelOf_ = what;
    const auto angles = angleChanges(entries_[0], entries_[1], s_.playbook, moment);
    const auto at = [&](std::size_t side) {
        const auto frame = entries_[side].marks.frameOf(moment);
        return frame ? say("pair-place.ms", {{"ms", Decimal{lockstep_->msOf(side, *frame), 0}}}) : QString();
    };
    std::vector<JuxtaChange> changes;
    if (view_->look() != PairLook::Figures)
        for (const MeasureRow& r : entries_[1].results.measures) {
            const MeasureDefinition* m = s_.playbook.measure(r.id);
            if (!m || m->moments.empty() || m->moments.back() != moment) continue;
            if (auto change = compareMeasure(entries_[0], entries_[1], r.id, s_.overruled.contains(r.id)))
                changes.push_back(std::move(*change));
        }
    panel_->show(moment, say("pair-place.when", {{"one", at(0)}, {"other", at(1)}}), changes,
                 view_->look() == PairLook::Figures ? angles : std::vector<AngleChange>{}, s_.playbook);
    view_->setAngles(angles);
}

void PairPlace::goTo(double ms) {
    if (!lockstep_) return;
    lockstep_->goTo(ms);
    refresh();
}

void PairPlace::step(int by) {
    if (!lockstep_) return;
    pause();
    if (unlocked_) {
        lockstep_->nudge(*unlocked_, by);
        refreshTracks();
    } else {
        lockstep_->step(by);
    }
    refresh();
}

void PairPlace::toPin(int direction) {
    if (!lockstep_) return;
    pause();
    if (view_->look() == PairLook::Figures) return toFigures(lock_, direction);
    if (!lockstep_->goToNext({pinsOf(entries_[0].marks), pinsOf(entries_[1].marks)}, direction))
        s_.tell(say("pair-place.no-more-positions"));
    refresh();
}

void PairPlace::play(int direction) {
    if (!lockstep_) return;
    if (playing()) return pause();
    direction_ = direction;
    const bool ended =
        direction > 0 ? lockstep_->ms() >= lockstep_->lastMs() : lockstep_->ms() <= lockstep_->firstMs();
    if (ended) lockstep_->goTo(direction > 0 ? lockstep_->firstMs() : lockstep_->lastMs());
    startMs_ = lockstep_->ms();
    since_.start();
    timer_.start();
    Q_EMIT hintsChanged();
}

void PairPlace::pause() {
    if (!playing()) return;
    timer_.stop();
    refresh(); // the exact picture of where it stands
    Q_EMIT hintsChanged();
}

void PairPlace::tick() {
    const double ms = startMs_ + direction_ * speed_ * static_cast<double>(since_.nsecsElapsed()) / 1e6;
    goTo(ms);
    if (ms >= lockstep_->lastMs() || ms <= lockstep_->firstMs()) pause();
}

void PairPlace::slower() {
    speed_ = slowerThan(speed_);
    if (playing()) {
        startMs_ = lockstep_->ms();
        since_.start();
    }
    s_.tell(say("pair-place.speed", {{"percent", std::lround(speed_ * 100)}}));
}

void PairPlace::askLock() {
    const auto moments = shared();
    QStringList options;
    for (const Moment m : moments) options << say(info(m).name());
    askChoice(this, {"pair-lock", say("pair-place.lock-title"), say("pair-place.lock-hint"), options, {}},
              [this, moments](const ChoiceAnswer& answer) {
                  if (answer.option && *answer.option < moments.size()) lockAt(moments[*answer.option]);
              });
}

void PairPlace::nextUnlocked() {
    unlocked_ = !unlocked_        ? std::optional<std::size_t>(0)
                : *unlocked_ == 0 ? std::optional<std::size_t>(1)
                                  : std::nullopt;
    view_->setUnlocked(unlocked_);
    if (!unlocked_) s_.tell(say("pair-place.together-again"));
    Q_EMIT hintsChanged();
}

void PairPlace::look() {
    const PairLook next = view_->look() == PairLook::Beside ? PairLook::Over
                          : view_->look() == PairLook::Over ? PairLook::Figures
                                                            : PairLook::Beside;
    view_->setLook(next);
    if (next == PairLook::Figures && lockstep_) {
        const Moment here = momentHere();
        hasFigures(here) ? lockAt(here) : toFigures(here, 1);
    }
    refresh();
    Q_EMIT hintsChanged();
}

bool PairPlace::hasFigures(Moment moment) const {
    return !angleChanges(entries_[0], entries_[1], s_.playbook, moment).empty();
}

/// Figures stand on clicked frames: both films are locked at the next position that has some.
void PairPlace::toFigures(Moment from, int direction) {
    std::vector<Moment> both;
    for (const Moment m : shared())
        if (hasFigures(m)) both.push_back(m);
    const auto beyond = [&](Moment m) { return direction > 0 ? m > from : m < from; };
    const auto it = direction > 0 ? std::find_if(both.begin(), both.end(), beyond)
                                  : std::find_if(both.rbegin(), both.rend(), beyond).base();
    if (direction > 0 ? it == both.end() : it == both.begin())
        return s_.tell(say("pair-place.no-more-positions"));
    lockAt(direction > 0 ? *it : *(it - 1));
}

ReviewSession* PairPlace::sessionFor(std::size_t side) {
    const ReviewId& id = entries_[side].key.review;
    if (!sessions_[side] && sessions_[1 - side] && entries_[1 - side].key.review == id)
        sessions_[side] = sessions_[1 - side];
    if (!sessions_[side]) {
        auto opened = ReviewSession::open(s_.library, s_.playbook, s_.clock, s_.ids, id, s_.keeperOf);
        if (!opened) {
            s_.tell(say(opened.error().text));
            return nullptr;
        }
        sessions_[side] = std::move(*opened);
        ReviewSession* session = sessions_[side].get();
        if (s_.showKept)
            connect(session, &ReviewSession::keepChanged, this, [this, session] { s_.showKept(*session); });
    }
    sessions_[side]->takeInHand(entries_[side].key.delivery);
    return sessions_[side].get();
}

void PairPlace::perform(std::size_t side, const Message& label, Change change) {
    ReviewSession* session = sessionFor(side);
    if (!session) return;
    if (const Status done = session->perform(label, {std::move(change)}); !done)
        return s_.tell(say(done.error().text));
    lastEdited_ = side;
    edited_ = true;
    takeFrom(*session);
}

/// What changed in a review shows on every side it stands on.
void PairPlace::takeFrom(const ReviewSession& session) {
    for (const std::size_t side : kSides) {
        JuxtaEntry& e = entries_[side];
        if (e.key.review != session.review().id) continue;
        Veils elsewhere = std::move(e.marks.veils);
        e.marks = session.review().deliveryOr(e.key.delivery);
        e.marks.veils.merge(elsewhere);
        e.results =
            assess(session.review(), session.playbook(), session.submission().clips, e.hand, e.key.delivery);
    }
    rows_ = {};
    panelOf_.clear();
    refresh();
    if (asking_) ask();
}

/// The landmark that a click places now, and on which side.
std::optional<std::pair<std::size_t, Landmark>> PairPlace::asked() const {
    for (const std::size_t side : kSides) {
        if (!sessions_[side] || sessions_[side]->review().sent) continue;
        const auto steps =
            openSteps(sessions_[side]->review(), entries_[side].marks, s_.playbook, entries_[side].clip);
        for (const GuideStep& step : steps)
            if (step.frame == films_[side]->shownFrame()) return std::pair(side, step.landmark);
    }
    return std::nullopt;
}

void PairPlace::ask() {
    for (const std::size_t side : kSides) sessionFor(side);
    const auto next = asked();
    asking_ = next.has_value();
    view_->setAsking(next ? say("pair-place.click", {{"landmark", info(next->second).name()},
                                                     {"who", view_->side(next->first).caption}})
                          : QString());
    if (!next) s_.tell(say("pair-place.all-placed"));
}

void PairPlace::press(std::size_t side, ImagePoint at, double reach) {
    pause();
    const std::int64_t frame = films_[side]->shownFrame();
    if (const auto grip = gripAt(entries_[side].marks, frame, at, reach)) {
        ReviewSession* session = sessionFor(side);
        if (!session) return;
        chosen_ = held_ = {side, *grip};
        session->beginGesture();
        return;
    }
    const auto next = asking_ ? asked() : std::nullopt;
    if (!next || next->first != side) return;
    PointMark mark;
    mark.point = {at, sessions_[side]->clickSigmaPx(next->second)};
    perform(side, msg("measure-bench.place-the-landmark", {{"landmark", info(next->second).name()}}),
            SetPoint{{frame, next->second}, mark});
    chosen_ = {side, Grip{PointKey{frame, next->second}, {}, 0}};
}

/// By picture pixels of its own film, as it is seen: a mirrored one goes the way of the arrow.
void PairPlace::nudge(double dx, double dy) {
    if (!chosen_) return s_.tell(say("pair-place.no-point-chosen"));
    const auto& [side, grip] = *chosen_;
    const auto place = placeOf(entries_[side].marks, grip);
    if (!place || !sessionFor(side)) return;
    const auto& fit = rows_[side]->fit;
    if (auto change =
            moved(entries_[side].marks, grip, {place->x + (fit && fit->mirrored ? -dx : dx), place->y + dy}))
        perform(side, msg("measure-bench.nudge-a-point"), std::move(*change));
}

void PairPlace::dragTo(ImagePoint at) {
    if (!held_) return;
    const auto [side, grip] = *held_;
    if (auto change = moved(entries_[side].marks, grip, at))
        perform(side, msg("measure-bench.move-a-point"), std::move(*change));
}

void PairPlace::undo() {
    ReviewSession* session = sessions_[lastEdited_].get();
    if (!session || !session->undo()) return s_.tell(say("pair-place.nothing-to-undo"));
    takeFrom(*session);
}

/// A stop of the later review that shows both, locked as they are now.
void PairPlace::intoRunningOrder() {
    if (!lockstep_) return;
    if (entries_[0].athlete != entries_[1].athlete) return s_.tell(say("pair-place.of-two-athletes"));
    const std::size_t now = entries_[0].when > entries_[1].when ? 0 : 1, then = 1 - now;
    if (entries_[0].key.review == entries_[1].key.review &&
        entries_[0].marks.number == entries_[1].marks.number)
        return s_.tell(say("pair-place.same-delivery"));
    ReviewSession* session = sessionFor(now);
    if (!session) return;
    Stop stop;
    stop.id = s_.ids.next<StopTag>("stop");
    stop.title = english()(info(momentHere()).name());
    stop.frame = lockstep_->frame(now);
    stop.delivery = entries_[now].marks.number;
    stop.beside = Beside{entries_[then].key.review, entries_[then].marks.number, lockstep_->lock(then),
                         lockstep_->lock(now)};
    const Status done =
        session->perform(msg("pair-place.add-then-and-now"),
                         {SetStops{withOwnStop(session->review().stops, std::move(stop), std::nullopt)}});
    if (!done) return s_.tell(say(done.error().text));
    lastEdited_ = now;
    edited_ = true;
    s_.tell(say("pair-place.in-running-order", {{"date", entries_[now].when}}));
}

KeyHints PairPlace::hints() const {
    KeyHints hints = {
        {"\u2190 \u2192", unlocked_ ? say("pair-place.nudge") : say("pair-place.step"), "pair-on"},
        {". ,", say("pair-place.next-position"), "pair-pin-next"},
        {"V", playing() ? say("pair-place.pause") : say("pair-place.play"), "pair-play"},
        {"W", say("pair-place.another-look"), "pair-look"}};
    if (view_->look() == PairLook::Over) hints.append({"\u2191 \u2193", say("pair-place.fade"), "pair-more"});
    hints.append({"L", say("pair-place.lock"), "pair-lock"});
    hints.append({"U", say("pair-place.unlock"), "pair-unlock"});
    hints.append({"M", say("pair-place.mark"), "pair-mark"});
    hints.append({"S", say("pair-place.say"), "pair-say"});
    hints.append({"Esc", say("pair-place.back"), "pair-back"});
    return hints;
}

Handlers PairPlace::makeHandlers() {
    constexpr int kFar = 10;
    constexpr double kFadeStep = 0.1;
    Handlers all = nudges([this](double dx, double dy) { nudge(dx, dy); });
    all.merge(Handlers{
        {"pair-back-1", [this] { step(-1); }},
        {"pair-on", [this] { step(1); }},
        {"pair-back-10", [this] { step(-kFar); }},
        {"pair-on-10", [this] { step(kFar); }},
        {"pair-pin-previous", [this] { toPin(-1); }},
        {"pair-pin-next", [this] { toPin(1); }},
        {"pair-play", [this] { play(1); }},
        {"pair-play-back", [this] { play(-1); }},
        {"pair-slower", [this] { slower(); }},
        {"pair-look", [this] { look(); }},
        {"pair-stack", [this] { view_->setStacked(!view_->stacked()); }},
        {"pair-more", [this] { view_->setFade(view_->fade() + kFadeStep); }},
        {"pair-less", [this] { view_->setFade(view_->fade() - kFadeStep); }},
        {"pair-fit", [this] { view_->fit(); }},
        {"pair-lock", [this] { askLock(); }},
        {"pair-unlock", [this] { nextUnlocked(); }},
        {"pair-mark", [this] { ask(); }},
        {"pair-say", [this] { intoRunningOrder(); }},
        {"pair-undo", [this] { undo(); }},
        {"pair-back", [this] { s_.back(); }},
    });
    return all;
}

} // namespace jg::ui
