// The week of drills as seven columns.
#pragma once

#include "coaching/week.h"

#include <QWidget>

class QGridLayout;
class QLabel;
class QVBoxLayout;

namespace jg::ui {

/// What the week shows.
struct ShownWeek {
    const Playbook& playbook;
    const std::vector<PlannedDrill>& drills;
    const WeekPlan& week;
    const Circumstances& at;
};

/// Days as columns, lower and upper body told apart by word and bar, days of rest, days that are not free;
/// below them what is missing, blocked, had to give way, and what guidance says.
class WeekView : public QWidget {
    Q_OBJECT
public:
    explicit WeekView(QWidget* parent = nullptr);
    void show(const ShownWeek& shown);

Q_SIGNALS:
    void saveCalendar();
    void saveSheet();

private:
    QWidget* column(const ShownWeek& shown, int weekday) const;
    void addNotes(const ShownWeek& shown);

    QGridLayout* days_;
    QVBoxLayout* notes_;
};

} // namespace jg::ui
