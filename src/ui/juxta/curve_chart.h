// One feature of several deliveries over each other, from first touch on.
#pragma once

#include "review/curve.h"
#include "ui/spoken.h"

#include <QWidget>

#include <vector>

namespace jg::ui {

/// A curve with what it is called in the legend.
struct NamedCurve {
    QString name;
    FeatureCurve curve;
};

/// Curves told apart by their dashes and by the letter at their end, not by colour alone; bands are their
/// errors, dots what was clicked.
class CurveChart : public QWidget, public Spoken {
    Q_OBJECT
public:
    explicit CurveChart(QWidget* parent = nullptr);
    void setCurves(std::vector<NamedCurve> curves, const QString& title, const std::string& unit);
    /// "A", "B" ...: how a curve is called on the chart.
    static QString letterOf(std::size_t i) { return QString(QChar('A' + static_cast<int>(i))); }
    QAccessible::Role spokenRole() const override { return QAccessible::Chart; }
    QString spokenValue() const override;

protected:
    void paintEvent(QPaintEvent*) override;

private:
    QPointF placeOf(double ms, double value) const;
    void paintAxes(QPainter& p);
    void paintBand(QPainter& p, const FeatureCurve& curve);
    void paintCurve(QPainter& p, std::size_t i);
    QRectF area() const;

    std::vector<NamedCurve> curves_;
    QString title_;
    std::string unit_;
    double firstMs_ = -500, lastMs_ = 500, low_ = 0, high_ = 180;
};

} // namespace jg::ui
