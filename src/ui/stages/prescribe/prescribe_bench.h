// SPDX-License-Identifier: GPL-3.0-or-later
// Prescribe: what to work on and why, what keeps it from being there, drills and week, the next look.
#pragma once

#include "review/tell/plan_rules.h"
#include "ui/bench/bench.h"
#include "ui/bench/plan_asker.h"
#include "ui/kit/row_list.h"
#include "ui/stages/prescribe/cause_map.h"
#include "ui/stages/prescribe/drill_cards.h"
#include "ui/stages/prescribe/week_view.h"

class QDateEdit;
class QLabel;
class QPushButton;
class QLineEdit;
class QPlainTextEdit;
class QScrollArea;

namespace jg::ui {

class PrescribeBench : public Bench {
    Q_OBJECT
public:
    explicit PrescribeBench(ReviewContext& context);
    void refresh() override;
    void enter() override;
    void leave() override;
    Handlers handlers() override;
    KeyHints hints() const override;
    /// Causes or week in the place of the picture, which comes back by a key.
    QWidget* middle() const override;
    /// All it may show there; the place takes them in.
    std::vector<QWidget*> middles() const;

private:
    /// What stands in the middle.
    enum class Middle { Causes, Week, Picture };

    QWidget* buildPlan();
    QWidget* buildDoors();
    void show(Middle what);
    void toggle(int row);
    void propose();
    void setCorrections(const Message& label, const std::vector<std::string>& corrections);
    std::optional<std::string> currentFinding() const;
    /// Asks about the finding in hand; says so when there is none.
    void about(void (PlanAsker::*ask)(const std::string&));
    QString goal(const std::string& finding) const;
    void refreshList();
    void refreshWhy();
    void refreshMiddle();
    void showCauses();
    void saveWords();
    void confirmGuidance();
    void setPlan(const Message& label, const Plan& plan);

    PlanAsker asker_;
    RowList* findings_;
    QLabel* why_;
    DrillCards* drills_;
    QLabel* keeps_;
    QLabel* terms_;
    QPushButton* confirm_;
    QDateEdit* nextLook_;
    QPlainTextEdit* opening_;
    QLineEdit* ask_;
    CauseMap* map_;
    QScrollArea* mapScroll_;
    WeekView* week_;
    QScrollArea* weekScroll_;
    std::map<Middle, QPushButton*> doors_;
    Middle shown_ = Middle::Causes;
    std::vector<std::string> order_;
    CauseReport causes_;
    Proposal proposal_;
    bool filling_ = false;
    bool inFront_ = false; ///< it is the bench that is shown
};

} // namespace jg::ui
