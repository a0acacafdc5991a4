// Judge: the card, item by item, in five steps and the states that are none.
#pragma once

#include "ui/review/bench.h"
#include "ui/row_list.h"

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
                {"N", say("pips.does-not-apply"), "grade-not-applicable"},
                {"R", say("hint.remark"), "grade-remark"},
                {"X", say("pips.set-aside"), "grade-skip"},
                {"Z", say("hint.undo"), "undo"}};
    }
    QString stageCaption() const override;
    std::optional<std::string> focus() const override;

private:
    const ItemRow* currentRow() const;
    const GradedItem* item() const;
    void select(int row);
    void grade(const Grade& grade);
    void remark();
    void sayHidden();
    void clearGrade();
    void showItem();

    QLabel* title_;
    QLabel* coach_;
    QLabel* where_;
    QList<QPushButton*> steps_;
    RowList* list_;
    QLabel* counts_;
};

} // namespace jg::ui
