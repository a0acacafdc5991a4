// One measure over time, with error bars.
#pragma once

#include "coaching/target.h"

#include <QWidget>

#include <optional>
#include <vector>

namespace jg::ui {

struct TrendPoint {
    QString when;
    double value = 0;
    double half95 = 0;
};

/// Name at the left, a small chart with error bars and the target's band, the change in words at the right.
class MeasureTrend : public QWidget {
public:
    MeasureTrend(QString name, QString unit, std::vector<TrendPoint> points, const Target& target,
                 QWidget* parent = nullptr);

protected:
    void paintEvent(QPaintEvent*) override;

private:
    QString changeWords() const;
    QString name_, unit_;
    std::vector<TrendPoint> points_;
    Target target_;
};

} // namespace jg::ui
