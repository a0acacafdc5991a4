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
    bool act(const QString& id) override;
    KeyHints hints() const override {
        return {{"1\u20135", "change \u2026 keep"},
                {"0", "cannot tell", "grade-cannot-tell"},
                {"H", "not visible", "grade-hidden"},
                {"F", "fault absent", "grade-fault-absent"},
                {"N", "does not apply", "grade-not-applicable"},
                {"R", "remark", "grade-remark"},
                {"X", "set aside", "grade-skip"},
                {"Z", "undo", "undo"}};
    }
    QString stageCaption() const override;
    std::optional<std::string> focus() const override;

private:
    const ItemRow* currentRow() const;
    const GradedItem* item() const;
    void select(int row);
    void grade(const Grade& grade);
    void remark();
    void showItem();

    QLabel* title_;
    QLabel* coach_;
    QLabel* where_;
    QList<QPushButton*> steps_;
    RowList* list_;
    QLabel* counts_;
};

} // namespace jg::ui
