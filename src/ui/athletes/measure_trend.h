// One measure over time, with error bars.
#pragma once

#include "coaching/season.h"
#include "desk/athlete_page.h"

#include "ui/words.h"

#include <QWidget>

namespace jg::ui {

/// Name at the left, a small chart with error bars and the target's band, the change in words at the right.
class MeasureTrend : public QWidget {
public:
    /// `from` and `to` are the ends of the page's time axis.
    MeasureTrend(QString name, MeasureLine line, Date from, Date to, QWidget* parent = nullptr);
    /// A line through the numbers, in days from the first of them.
    void setLine(const RobustLine& line) { robust_ = line; }
    /// The first day from which on the change is sure.
    void setSureSince(Date day);
    /// Where on the axis a date lies, 0 to 1; in the middle when the axis has one day only.
    double placeOf(Date when) const;
    /// The value before and the last one, as "86 → 101°"; one alone, or nothing.
    QString changeWords() const;
    /// "better", "worse", "changed", "inside the error"; why there is none for a single number.
    QString trendWords() const;

protected:
    void paintEvent(QPaintEvent*) override;

private:
    void paintChart(QPainter& p, const QRectF& chart) const;
    void paintRobust(QPainter& p, const QRectF& chart, double low, double high) const;

    QString name_;
    MeasureLine line_;
    Date from_, to_;
    std::optional<RobustLine> robust_;
    std::optional<Date> sureSince_;
};

} // namespace jg::ui
