// SPDX-License-Identifier: GPL-3.0-or-later
// Two deliveries large, locked at a position, stepping together in real milliseconds.
#pragma once

#include "base/clock.h"
#include "desk/session/review_session.h"
#include "review/compare/lockstep.h"
#include "ui/film/grips.h"
#include "ui/film/pair_film.h"
#include "ui/kit/actions.h"
#include "ui/kit/key_cap.h"
#include "ui/places/juxta/pair_view.h"

#include <QElapsedTimer>
#include <QTimer>
#include <QWidget>

#include <array>
#include <memory>
#include <set>

namespace jg::ui {

class ChangePanel;
class LockStrip;

/// What the place needs from the window.
struct PairSurroundings {
    Library& library;
    const Playbook& playbook;
    const Clock& clock;
    IdSource& ids;
    std::function<void(const QString&)> tell;
    std::function<void()> back;
    MakeKeeper keeperOf = {};                                ///< what keeps a review edited here
    std::function<void(const ReviewSession&)> showKept = {}; ///< how far that has come
    std::function<void(std::unique_ptr<ReviewKeeper>)> park =
        {};                               ///< takes what is still on its way at the end
    std::set<std::string> overruled = {}; ///< measures that are compared by the coach's word
};

/// Where two large ones begin.
struct PairStart {
    Moment lock{};
    double ms = 0; ///< after it
};

class PairPlace : public QWidget {
    Q_OBJECT
public:
    /// Locked at a position, or at the first both have when one lacks it.
    PairPlace(JuxtaEntry one, JuxtaEntry other, PairStart start, const PairSurroundings& surroundings);
    ~PairPlace() override;

    const Handlers& handlers() const { return handlers_; }
    KeyHints hints() const;
    PairView& view() { return *view_; }
    /// Nothing until both films are open.
    const Lockstep* lockstep() const { return lockstep_ ? &*lockstep_ : nullptr; }
    const JuxtaEntry& entry(std::size_t side) const { return entries_[side]; }
    bool playing() const { return timer_.isActive(); }
    /// Some mark was changed here.
    bool edited() const { return edited_; }
    /// Waits for what is on its way to the disk, as far as it can be written now.
    void settle();

Q_SIGNALS:
    void hintsChanged();

private:
    Handlers makeHandlers();
    void opened();
    void refresh();
    void refreshTracks();
    void refreshSide(std::size_t side);
    void refreshPanel();
    void goTo(double ms);
    void step(int by);
    void toPin(int direction);
    void play(int direction);
    void pause();
    void tick();
    void slower();
    void askLock();
    void lockAt(Moment moment);
    void nextUnlocked();
    void look();
    void toFigures(Moment from, int direction);
    bool hasFigures(Moment moment) const;
    void ask();
    void press(std::size_t side, ImagePoint at, double reach);
    void dragTo(ImagePoint at);
    void nudge(double dx, double dy);
    void undo();
    void intoRunningOrder();
    ReviewSession* sessionFor(std::size_t side);
    void perform(std::size_t side, const Message& label, Change change);
    void takeFrom(const ReviewSession& session);
    std::optional<std::pair<std::size_t, Landmark>> asked() const;
    Moment momentHere() const;
    std::vector<Moment> shared() const;
    QString timeOf(std::size_t side) const;

    PairSurroundings s_;
    std::array<JuxtaEntry, 2> entries_;
    std::array<std::shared_ptr<const JuxtaRow>, 2>
        rows_; ///< of them, as they are painted; made anew after an edit
    Moment lock_;
    double beginMs_; ///< after the lock, when both films have opened
    std::array<std::unique_ptr<PairFilm>, 2> films_;
    std::array<std::shared_ptr<ReviewSession>, 2> sessions_; ///< one for both of one review
    std::optional<Lockstep> lockstep_;
    std::optional<std::size_t> unlocked_;
    std::size_t lastEdited_ = 0;
    bool edited_ = false;
    bool asking_ = false;
    std::optional<std::pair<std::size_t, Grip>> held_;
    std::optional<std::pair<std::size_t, Grip>> chosen_; ///< held or placed last: nudged by keys
    QString panelOf_;                                    ///< what the panel was filled for
    QTimer timer_;
    QElapsedTimer since_;
    double startMs_ = 0, speed_ = 1;
    int direction_ = 1;
    PairView* view_;
    LockStrip* strip_;
    ChangePanel* panel_;
    const Handlers handlers_ = makeHandlers();
};

} // namespace jg::ui
