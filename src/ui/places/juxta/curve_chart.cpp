// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/places/juxta/curve_chart.h"

#include "kinematics/unit_words.h"
#include "letter/palette.h"
#include "ui/kit/text_scale.h"
#include "ui/kit/words.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace jg::ui {

namespace {

const std::array<QColor, 4> kInks = {palette::ink, palette::clay, palette::moss, palette::quiet};
const std::array<QList<qreal>, 3> kDashes = {QList<qreal>{}, QList<qreal>{6, 3}, QList<qreal>{1.5, 2.5}};

QPen penOf(std::size_t i, bool second) {
    QPen pen(kInks[i % kInks.size()], second ? 1.6 : 2, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin);
    const auto& dashes = kDashes[i / kInks.size() % kDashes.size()];
    if (second)
        pen.setDashPattern({4, 4});
    else if (!dashes.isEmpty())
        pen.setDashPattern(dashes);
    return pen;
}

/// A round step that divides a range into about five.
double stepOf(double range) {
    const double raw = range / 5, ten = std::pow(10, std::floor(std::log10(std::max(raw, 1e-9))));
    for (const double s : {1.0, 2.0, 5.0})
        if (s * ten >= raw) return s * ten;
    return 10 * ten;
}

} // namespace

CurveChart::CurveChart(QWidget* parent)
    : QWidget(parent) {
    setObjectName("curve-chart");
    setMinimumSize(400, 220);
}

CurveChart::Layer CurveChart::layerOf(ChartFeature feature, bool second) {
    Layer layer{std::move(feature), 1e18, -1e18, second};
    for (const NamedCurve& c : layer.feature.curves)
        for (const CurvePoint& p : c.curve.points) {
            layer.low = std::min(layer.low, p.value - p.half95);
            layer.high = std::max(layer.high, p.value + p.half95);
        }
    if (layer.low > layer.high) layer.low = 0, layer.high = 1;
    const double pad = std::max(1.0, 0.08 * (layer.high - layer.low));
    layer.low -= pad, layer.high += pad;
    return layer;
}

void CurveChart::setFeatures(ChartFeature first, std::optional<ChartFeature> second) {
    setAccessibleName(second ? first.name + ", " + second->name : first.name);
    layers_.clear();
    layers_.push_back(layerOf(std::move(first), false));
    if (second) layers_.push_back(layerOf(*std::move(second), true));
    firstMs_ = lastMs_ = 0;
    bool any = false;
    for (const Layer& layer : layers_)
        for (const NamedCurve& c : layer.feature.curves)
            for (const CurvePoint& p : c.curve.points)
                firstMs_ = std::min(firstMs_, p.ms), lastMs_ = std::max(lastMs_, p.ms), any = true;
    if (!any) firstMs_ = -500, lastMs_ = 500;
    firstMs_ -= 30, lastMs_ = std::max(lastMs_, firstMs_ + 31) + 60;
    update();
}

QRectF CurveChart::area() const {
    const double right = layers_.size() > 1 ? 76 : 44, top = layers_.size() > 1 ? 66 : 44;
    return QRectF(64, top, usualWidth(*this) - 64 - right, usualHeight(*this) - top - 40);
}

QPointF CurveChart::placeOf(const Layer& layer, double ms, double value) const {
    const QRectF a = area();
    return {a.left() + a.width() * (ms - firstMs_) / (lastMs_ - firstMs_),
            a.bottom() - a.height() * (value - layer.low) / (layer.high - layer.low)};
}

/// The lines across belong to the first scale; the second has marks at the edge.
void CurveChart::paintScale(QPainter& p, const Layer& layer) {
    const QRectF a = area();
    p.setFont(textFont(11.5));
    const double step = stepOf(layer.high - layer.low);
    for (double v = std::ceil(layer.low / step) * step; v <= layer.high; v += step) {
        const double y = placeOf(layer, firstMs_, v).y();
        p.setPen(QPen(palette::rule, 1));
        p.drawLine(QPointF(layer.second ? a.right() : a.left(), y),
                   QPointF(a.right() + (layer.second ? 4 : 0), y));
        p.setPen(palette::quiet);
        const QString label = say(withUnit({v, 0}, layer.feature.unit));
        if (layer.second)
            p.drawText(QRectF(a.right() + 8, y - 9, 64, 18), Qt::AlignLeft | Qt::AlignVCenter, label);
        else
            p.drawText(QRectF(0, y - 9, 56, 18), Qt::AlignRight | Qt::AlignVCenter, label);
    }
}

void CurveChart::paintTime(QPainter& p) {
    const QRectF a = area();
    p.setFont(textFont(11.5));
    const auto xOf = [&](double ms) { return placeOf(layers_.front(), ms, layers_.front().low).x(); };
    const double step = stepOf(lastMs_ - firstMs_);
    for (double ms = std::ceil(firstMs_ / step) * step; ms <= lastMs_; ms += step) {
        const double x = xOf(ms);
        p.setPen(QPen(palette::rule, 1));
        p.drawLine(QPointF(x, a.bottom()), QPointF(x, a.bottom() + 4));
        p.setPen(palette::quiet);
        p.drawText(QRectF(x - 50, a.bottom() + 5, 100, 16), Qt::AlignHCenter, say(withUnit({ms, 0}, "ms")));
    }
    p.setPen(QPen(palette::quiet, 1, Qt::DashLine));
    p.drawLine(QPointF(xOf(0), a.top()), QPointF(xOf(0), a.bottom()));
    p.drawText(QPointF(xOf(0) + 5, a.top() + 10), say(info(Moment::FootTouch).name()));
}

void CurveChart::paintBand(QPainter& p, const Layer& layer, const FeatureCurve& curve) {
    QPolygonF band;
    for (const CurvePoint& c : curve.points) band << placeOf(layer, c.ms, c.value + c.half95);
    for (auto c = curve.points.rbegin(); c != curve.points.rend(); ++c)
        band << placeOf(layer, c->ms, c->value - c->half95);
    QColor soft = palette::quiet;
    soft.setAlphaF(0.12f);
    p.setPen(Qt::NoPen);
    p.setBrush(soft);
    p.drawPolygon(band);
}

void CurveChart::paintCurve(QPainter& p, const Layer& layer, std::size_t i) {
    const FeatureCurve& curve = layer.feature.curves[i].curve;
    if (curve.points.empty()) return;
    const QPen pen = penOf(i, layer.second);
    QPolygonF line;
    for (const CurvePoint& c : curve.points) line << placeOf(layer, c.ms, c.value);
    p.setPen(pen);
    p.setBrush(Qt::NoBrush);
    p.drawPolyline(line);
    p.setPen(Qt::NoPen);
    p.setBrush(pen.color());
    for (const CurvePoint& c : curve.points)
        if (c.clicked) p.drawEllipse(placeOf(layer, c.ms, c.value), 3, 3);
    if (const CurvePoint* c = pointAtEvent(curve)) {
        p.setPen(QPen(pen.color(), 2));
        p.setBrush(palette::paper);
        p.drawEllipse(placeOf(layer, c->ms, c->value), 6, 6);
    }
    p.setPen(pen.color());
    p.setFont(textFont(13, true));
    p.drawText(line.back() + QPointF(8, 5), letterOf(i));
}

/// One feature is the heading; of two each says how it is drawn and where its scale stands.
void CurveChart::paintTitle(QPainter& p) {
    const double width = usualWidth(*this) - 40;
    p.setPen(palette::ink);
    if (layers_.size() == 1) {
        p.setFont(headFont(17));
        p.drawText(QRectF(20, 8, width, 28), Qt::AlignVCenter, layers_.front().feature.name);
        return;
    }
    p.setFont(textFont(13, true));
    p.drawText(QRectF(20, 8, width, 22), Qt::AlignVCenter,
               say("curve-chart.left", {{"feature", layers_[0].feature.name}}));
    p.drawText(QRectF(20, 32, width, 22), Qt::AlignVCenter | Qt::AlignRight,
               say("curve-chart.right", {{"feature", layers_[1].feature.name}}));
}

void CurveChart::paintEvent(QPaintEvent*) {
    if (layers_.empty()) return;
    ScaledPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    paintTitle(p);
    for (const Layer& layer : layers_) paintScale(p, layer);
    paintTime(p);
    for (const Layer& layer : layers_)
        for (const NamedCurve& c : layer.feature.curves) paintBand(p, layer, c.curve);
    for (const Layer& layer : layers_)
        for (std::size_t i = 0; i < layer.feature.curves.size(); ++i) paintCurve(p, layer, i);
}

QString CurveChart::spokenValue() const {
    QStringList words;
    for (const Layer& layer : layers_)
        for (std::size_t i = 0; i < layer.feature.curves.size(); ++i) {
            const NamedCurve& c = layer.feature.curves[i];
            words << letterOf(i) + ": " + (layers_.size() > 1 ? layer.feature.name + ", " : QString()) +
                         c.name + ", " +
                         (c.curve.points.empty()
                              ? say(c.curve.why)
                              : say("curve-place.points", {{"count", c.curve.points.size()}}));
        }
    return words.join("; ");
}

} // namespace jg::ui
