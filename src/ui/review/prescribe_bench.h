// Prescribe: what to work on and why, what keeps it from being there, drills and week, the next look.
#pragma once

#include "review/plan_rules.h"
#include "ui/review/bench.h"
#include "ui/review/cause_map.h"
#include "ui/review/week_view.h"
#include "ui/row_list.h"

class QDateEdit;
class QLabel;
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
    void leave() override { saveWords(); }
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
    void askCausesHere();
    void askWhyNotHere();
    void chooseDrillsHere();
    void writeDrill(const std::string& finding);
    void askWeek();
    void chooseKeepsHere();
    void promise();
    void exportWeek(bool calendar);
    std::optional<std::string> currentFinding() const;
    /// The finding in hand, or the first correction; says so when there is none.
    std::optional<std::string> findingInHand();
    DrillGates gates() const;
    QString goal(const std::string& finding) const;
    void refreshList();
    void refreshWhy();
    void refreshMap();
    void rebuildDrills();
    QWidget* drillCard(std::size_t i);
    QLayout* doseRow(std::size_t i, const QString& called);
    void waiveDose(std::size_t drill);
    void removeDrill(std::size_t drill);
    void setDose(std::size_t drill, int part, int value);
    void saveWords();
    void setPlan(const Message& label, const Plan& plan);

    RowList* findings_;
    QLabel* why_;
    QVBoxLayout* drills_;
    QLabel* keeps_;
    QLabel* terms_;
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
    std::string built_; ///< which drills the rows were built for
    bool filling_ = false;
};

} // namespace jg::ui
