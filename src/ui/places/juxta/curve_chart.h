// SPDX-License-Identifier: GPL-3.0-or-later
// One feature of several deliveries over each other, or two, from first touch on.
#pragma once

#include "review/compare/curve.h"
#include "ui/kit/spoken.h"

#include <QWidget>

#include <optional>
#include <vector>

namespace jg::ui {

/// A curve with what it is called in the legend.
struct NamedCurve {
    QString name;
    FeatureCurve curve;
};

/// A feature with its curves, one a delivery.
struct ChartFeature {
    QString name;
    std::string unit;
    std::vector<NamedCurve> curves;
};

/// Curves told apart by their dashes and by the letter at their end, not by colour alone; bands are their
/// errors, dots what was clicked. A second feature has broken lines and a scale of its own on the right.
class CurveChart : public QWidget, public Spoken {
    Q_OBJECT
public:
    explicit CurveChart(QWidget* parent = nullptr);
    void setFeatures(ChartFeature first, std::optional<ChartFeature> second);
    /// "A", "B" ...: how a curve is called on the chart.
    static QString letterOf(std::size_t i) { return QString(QChar('A' + static_cast<int>(i))); }
    QAccessible::Role spokenRole() const override { return QAccessible::Chart; }
    QString spokenValue() const override;

protected:
    void paintEvent(QPaintEvent*) override;

private:
    /// What is drawn to one scale.
    struct Layer {
        ChartFeature feature;
        double low = 0, high = 1;
        bool second = false;
    };
    static Layer layerOf(ChartFeature feature, bool second);
    QPointF placeOf(const Layer& layer, double ms, double value) const;
    void paintTitle(QPainter& p);
    void paintScale(QPainter& p, const Layer& layer);
    void paintTime(QPainter& p);
    void paintBand(QPainter& p, const Layer& layer, const FeatureCurve& curve);
    void paintCurve(QPainter& p, const Layer& layer, std::size_t i);
    QRectF area() const;

    std::vector<Layer> layers_; ///< one or two
    double firstMs_ = -500, lastMs_ = 500;
};

} // namespace jg::ui
