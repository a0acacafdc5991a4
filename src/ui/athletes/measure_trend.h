// One measure over time, with error bars.
#pragma once

#include "base/date.h"
#include "coaching/target.h"

#include <QWidget>

#include <optional>
#include <vector>

namespace jg::ui {

struct TrendPoint {
    Date when;
    double value = 0;
    double half95 = 0;
};

/// Name at the left, a small chart with error bars and the target's band, the change in words at the right.
class MeasureTrend : public QWidget {
public:
    /// `points` in order of time; `from` and `to` are the ends of the page's time axis.
    MeasureTrend(QString name, QString unit, std::vector<TrendPoint> points, const Target& target, Date from,
                 Date to, QWidget* parent = nullptr);
    /// Where on the axis a date lies, 0 to 1; in the middle when the axis has one day only.
    double placeOf(Date when) const;
    /// The value before and the last one, as "86 → 101°"; one alone, or nothing.
    QString changeWords() const;

protected:
    void paintEvent(QPaintEvent*) override;

private:
    QString name_, unit_;
    std::vector<TrendPoint> points_;
    Target target_;
    Date from_, to_;
};

} // namespace jg::ui
