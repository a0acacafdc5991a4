// SPDX-License-Identifier: GPL-3.0-or-later
// Judge: the card, row by row: items by eye in five steps and the states that are none, measures by their
// number or by hand.
#pragma once

#include "review/assess/card.h"
#include "ui/bench/bench.h"
#include "ui/kit/row_list.h"
#include "ui/stages/judge/judge_questions.h"

class QPushButton;
class QLabel;

namespace jg::ui {

class JudgeBench : public Bench {
    Q_OBJECT
public:
    explicit JudgeBench(ReviewContext& context);
    void refresh() override;
    void enter() override;
    Handlers handlers() override;
    KeyHints hints() const override {
        return {{"1\u20135", say("judge-bench.change-keep")},
                {"0", say("judge-bench.cannot-tell"), "grade-cannot-tell"},
                {"H", say("judge-bench.not-visible"), "grade-hidden"},
                {"F", say("judge-bench.fault-absent"), "grade-fault-absent"},
                {"R", say("hint.remark"), "grade-remark"},
                {"X", say("pips.set-aside"), "grade-skip"},
                {"Enter", say("judge-bench.what-is-open"), "judge-open"},
                {"A", say("judge-bench.approach"), "judge-approach"},
                {"T", say("judge-bench.target"), "judge-target"},
                {"E", say("judge-bench.own-finding"), "judge-own"},
                {"Z", say("hint.undo"), "undo"}};
    }
    QString stageCaption() const override;
    std::optional<std::string> focus() const override;

private:
    void buildSteps();
    void buildStates();
    const CardRow* current() const;
    const GradedItem* item() const; ///< of the current row; null for a measure
    const MeasureDefinition* measure() const;
    void select(int row);
    void goToRow(int row);
    void grade(const Grade& grade);
    void gradeSided(const std::string& row, const Grade& grade);
    void keepGrade(const std::string& row, const Grade& grade);
    void toNextOpen();
    void nextWork();
    void remark();
    void sayHidden();
    void clearGrade();
    void removeOwn(const std::string& finding);
    void askTarget();
    void turnOrder();
    void orderForApproach();
    void showReader();
    void showRow();
    void showWork();
    void showApproach();
    Message whereOf(const CardRow& row) const;

    QPushButton* approach_;
    QLabel *title_, *coach_, *number_, *where_, *problem_, *counts_;
    QList<QPushButton*> steps_;
    RowList* list_;
    WalkOrder order_ = WalkOrder::Time;
    std::string orderedFor_; ///< id of the approach whose order it is
    std::vector<CardRow> card_;
    JudgeQuestions questions_;
};

} // namespace jg::ui
