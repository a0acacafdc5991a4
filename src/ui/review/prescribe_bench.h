// Prescribe: up to three corrections, their drills and doses, the week, the next look.
#pragma once

#include "coaching/causes.h"
#include "ui/review/bench.h"
#include "ui/row_list.h"

class QDateEdit;
class QLabel;
class QPlainTextEdit;
class QLineEdit;

namespace jg::ui {

class PrescribeBench : public Bench {
    Q_OBJECT
public:
    explicit PrescribeBench(ReviewContext& context);
    void refresh() override;
    void enter() override;
    void leave() override { saveWords(); }
    Handlers handlers() override;
    KeyHints hints() const override {
        return {{"\u2191 \u2193", say("hint.finding"), "row-down"},
                {"Enter", say("prescribe-bench.work-on-this-or-not"), "plan-toggle"},
                {"P", say("prescribe-bench.take-the-proposal-2"), "plan-propose"},
                {"Z", say("hint.undo"), "undo"},
                {"PgDn", say("prescribe-bench.on-to-the-letter"), "stage-next"}};
    }

private:
    void toggle(int row);
    QWidget* buildPlan();
    void propose();
    void rebuildDrills();
    QWidget* drillCard(std::size_t i);
    QLayout* doseRow(std::size_t i, const QString& called);
    void waiveDose(std::size_t drill);
    void showWeek();
    void setDose(std::size_t drill, int part, int value);
    void saveWords();
    void setPlan(const Message& label, const Plan& plan);

    RowList* findings_;
    QLabel* why_;
    QVBoxLayout* drills_;
    QLabel* week_;
    QDateEdit* nextLook_;
    QPlainTextEdit* opening_;
    QLineEdit* ask_;
    std::vector<std::string> order_;
    CauseReport causes_;
    std::string built_; ///< which drills the rows were built for
    bool filling_ = false;
};

} // namespace jg::ui
