// SPDX-License-Identifier: GPL-3.0-or-later
// Positions: the nine, each with how it is recognised.
#pragma once

#include "ui/bench/bench.h"
#include "ui/kit/row_list.h"

class QPushButton;
class QLabel;

namespace jg::ui {

class PositionsBench : public Bench {
    Q_OBJECT
public:
    explicit PositionsBench(ReviewContext& context);
    void refresh() override;
    void enter() override;
    void frameChanged() override { showHow(); }
    Handlers handlers() override;
    KeyHints hints() const override {
        return {{"\u2190 \u2192", say("look-bench.one-frame"), "step-on"},
                {"Enter", say(enterDoes()), "set-here"},
                {"G", say("hint.suggested"), "position-suggested"},
                {"H", say("positions-bench.not-visible-here-2"), "position-hidden"},
                {"A", say("positions-bench.again"), "position-again"},
                {"\u2191 \u2193", say("positions-bench.another-position"), "row-down"},
                {"Z", say("hint.undo"), "undo"}};
    }
    QString stageCaption() const override;

private:
    bool allSet() const;
    QString releaseText(qint64 frame) const;
    Moment current() const;
    void select(int row);
    void setByKey();
    const char* enterDoes() const; ///< id of its words
    void setHere();
    void toNextOpen();
    /// What a first Enter asks before it does something that is rarely meant; nothing where it is plain.
    std::optional<Message> askBefore(Moment moment, qint64 frame) const;
    void setAgain();
    void sayHidden();
    void showHow();
    /// Where motion says the current position may lie: the delivery at the playhead, else the first.
    std::optional<FoundDelivery::Place> suggested() const;
    void goToSuggested();

    RowList* list_;
    QLabel* title_;
    QLabel* how_;
    QPushButton* suggested_;
    QPushButton* set_;
    QPushButton* on_;
    QPushButton* again_;
    std::string enterSays_;                          ///< as the foot shows it
    std::optional<std::pair<Moment, qint64>> asked_; ///< what a second Enter does
};

} // namespace jg::ui
