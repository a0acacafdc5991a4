// SPDX-License-Identifier: GPL-3.0-or-later
// One measure over time, with error bars.
#pragma once

#include "letter/trend_painter.h"
#include "ui/kit/words.h"

#include <QWidget>

namespace jg::ui {

/// Name at the left, a small chart with error bars and the target's band, the change in words at the right.
class MeasureTrend : public QWidget {
public:
    /// `from` and `to` are the ends of the page's time axis.
    MeasureTrend(QString name, MeasureLine line, Date from, Date to, QWidget* parent = nullptr);
    /// A line through the numbers, in days from the first of them.
    void setLine(const RobustLine& line) { picture_.robust = line; }
    /// The first day from which on the change is sure.
    void setSureSince(Date day);
    /// The value before and the last one, as "86 → 101°"; one alone, or nothing.
    QString changeWords() const;
    /// "better", "worse", "changed", "inside the error"; why there is none for a single number.
    QString trendWords() const;

protected:
    void paintEvent(QPaintEvent*) override;

private:
    QString name_;
    TrendPicture picture_;
    std::optional<Date> sureSince_;
};

} // namespace jg::ui
