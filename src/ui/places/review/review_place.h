// SPDX-License-Identifier: GPL-3.0-or-later
// The review window: the walk above, the picture in the middle, the bench beside it.
#pragma once

#include "review/assess/ghost.h"
#include "ui/bench/bench.h"
#include "ui/film/beside_stage.h"
#include "ui/film/film_deck.h"
#include "ui/forms/mail_password.h"
#include "ui/places/review/line_bar.h"
#include "ui/stages/send/letter_view.h"
#include "voice/microphone.h"

#include <QStackedWidget>

#include <memory>

namespace jg::ui {

class SayBench;
class SendBench;

/// What the review place needs from the window.
struct ReviewSurroundings {
    Microphone& microphone;
    Loudspeaker& loudspeaker;
    std::function<void(const QString&)> runAction;
    std::function<void(unsigned)> setWhere;
    std::function<void()> toDesk;
    MailPassword& password;
    std::function<void()> outboxChanged;
    std::function<Result<std::string>(const OwnMeasureOrder&)> keepMeasure;
    std::function<Status(LengthUnit)> keepLengths;
    std::function<void(const Drill&, const RowKept&)> writeDrill;
};

/// One open review. Owns its session and its film's decoding thread.
class ReviewPlace : public QWidget {
    Q_OBJECT
public:
    ReviewPlace(std::unique_ptr<ReviewSession> session, const ReviewSurroundings& surroundings);
    ~ReviewPlace() override;

    /// Runs an action of the table; false when it is not known here.
    bool act(const QString& id);
    /// Takes away what is chosen on the picture; false when nothing is.
    bool removeChosen() { return current_ && current_->removeChosen(); }
    /// Whether an action does something in the stage at hand.
    bool knows(const QString& id) const {
        return handlers_.contains(id) || (current_ && current_->knows(id));
    }
    ReviewSession& session() { return *session_; }
    StageView& stage() { return *stage_; }
    Playhead& playhead() { return playhead_; }
    Foot& foot() { return *foot_; }
    Bench* bench() const { return current_; }
    Stage stageOfWalk() const { return walk_; }
    /// Ends the film; the place only waits for its deletion after that.
    void leave() { deck_->close(); }
    bool busy() const; ///< sending: leaving now would break it off

private:
    void build(const ReviewSurroundings& s);
    void buildBenches(const ReviewSurroundings& s);
    void connectParts(Loudspeaker& loudspeaker);
    void openFilm();
    void loopHere();
    void loopBetween();
    void goTo(Stage stage);
    void onChanged(Parts parts);
    void refreshPicture();
    std::optional<MeasureGhost> ghostOn(qint64 frame) const;
    void refreshRibbon();
    void refreshLine();
    std::pair<qint64, qint64> ends() const;
    /// The nearest set position before (-1) or after (1) a frame.
    std::optional<qint64> nearestPin(qint64 from, int direction) const;
    void jumpToPin(int direction);
    void nextDelivery();
    void beginAnother();
    Handlers handlers();
    void undo(bool back);
    void goBy(int stages);
    void showKept();
    void showMiddle();
    void showHints();
    void showBeside(const Stop* stop);
    void followBeside();

    std::unique_ptr<ReviewSession> session_;
    ReviewSurroundings around_;
    Playhead playhead_;
    FilmDeck* deck_;
    LineBar* line_;
    StageView* stage_;
    StageView* otherStage_; ///< the delivery of another day, while a stop shows one
    BesideStage* beside_;
    Ribbon* ribbon_;
    LetterView* letter_;
    QStackedWidget* middle_;
    QStackedWidget* benches_;
    Foot* foot_;
    const Handlers handlers_ = handlers(); ///< of every stage
    std::unique_ptr<ReviewContext> context_;
    std::vector<Bench*> all_;
    Bench* current_ = nullptr;
    Stage walk_ = Stage::Look;
    ClipId shownClip_;
    std::int64_t shownFrames_ = 0; ///< of the clip, when it was opened
    int shownDelivery_ = 1;
    bool seen_ = false;
    std::optional<qint64> loopFrom_; ///< where a round between two frames is to begin
};

} // namespace jg::ui
