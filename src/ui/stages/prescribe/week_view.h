// SPDX-License-Identifier: GPL-3.0-or-later
// The week of drills as seven columns.
#pragma once

#include "coaching/week.h"

#include <QWidget>

#include <vector>

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

/// Days as columns (in two lines where their words need more room), lower and upper body told apart by word
/// and bar, days of rest, days that are not free; below them what is missing, blocked, had to give way, and
/// what guidance says.
class WeekView : public QWidget {
    Q_OBJECT
public:
    explicit WeekView(QWidget* parent = nullptr);
    void show(const ShownWeek& shown);

Q_SIGNALS:
    void saveCalendar();
    void saveSheet();

protected:
    void resizeEvent(QResizeEvent*) override { placeDays(); }

private:
    void placeDays();
    QWidget* column(const ShownWeek& shown, int weekday) const;
    void addNotes(const ShownWeek& shown);

    QGridLayout* days_;
    std::vector<QWidget*> columns_;
    int perLine_ = 0;
    QVBoxLayout* notes_;
};

} // namespace jg::ui
