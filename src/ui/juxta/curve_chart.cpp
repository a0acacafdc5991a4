#include "ui/juxta/curve_chart.h"

#include "kinematics/unit_words.h"
#include "letter/palette.h"
#include "ui/text_scale.h"
#include "ui/words.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace jg::ui {

namespace {

const std::array<QColor, 4> kInks = {palette::ink, palette::clay, palette::moss, palette::quiet};
const std::array<QList<qreal>, 3> kDashes = {QList<qreal>{}, QList<qreal>{6, 3}, QList<qreal>{1.5, 2.5}};

QPen penOf(std::size_t i) {
    QPen pen(kInks[i % kInks.size()], 2, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin);
    const auto& dashes = kDashes[i / kInks.size() % kDashes.size()];
    if (!dashes.isEmpty()) pen.setDashPattern(dashes);
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

void CurveChart::setCurves(std::vector<NamedCurve> curves, const QString& title, const std::string& unit) {
    curves_ = std::move(curves);
    title_ = title;
    unit_ = unit;
    setAccessibleName(title);
    double first = 0, last = 0, low = 1e18, high = -1e18;
    for (const NamedCurve& c : curves_)
        for (const CurvePoint& p : c.curve.points) {
            first = std::min(first, p.ms), last = std::max(last, p.ms);
            low = std::min(low, p.value - p.half95), high = std::max(high, p.value + p.half95);
        }
    if (low > high) first = -500, last = 500, low = 0, high = 1;
    const double pad = std::max(1.0, 0.08 * (high - low));
    firstMs_ = first - 30, lastMs_ = std::max(last, first + 1) + 60;
    low_ = low - pad, high_ = high + pad;
    update();
}

QRectF CurveChart::area() const {
    return QRectF(64, 44, usualWidth(*this) - 64 - 44, usualHeight(*this) - 44 - 40);
}

QPointF CurveChart::placeOf(double ms, double value) const {
    const QRectF a = area();
    return {a.left() + a.width() * (ms - firstMs_) / (lastMs_ - firstMs_),
            a.bottom() - a.height() * (value - low_) / (high_ - low_)};
}

void CurveChart::paintAxes(QPainter& p) {
    const QRectF a = area();
    p.setFont(textFont(11.5));
    const double dy = stepOf(high_ - low_), dx = stepOf(lastMs_ - firstMs_);
    for (double v = std::ceil(low_ / dy) * dy; v <= high_; v += dy) {
        const double y = placeOf(firstMs_, v).y();
        p.setPen(QPen(palette::rule, 1));
        p.drawLine(QPointF(a.left(), y), QPointF(a.right(), y));
        p.setPen(palette::quiet);
        p.drawText(QRectF(0, y - 9, 56, 18), Qt::AlignRight | Qt::AlignVCenter, say(withUnit({v, 0}, unit_)));
    }
    for (double ms = std::ceil(firstMs_ / dx) * dx; ms <= lastMs_; ms += dx) {
        const double x = placeOf(ms, low_).x();
        p.setPen(QPen(palette::rule, 1));
        p.drawLine(QPointF(x, a.bottom()), QPointF(x, a.bottom() + 4));
        p.setPen(palette::quiet);
        p.drawText(QRectF(x - 50, a.bottom() + 5, 100, 16), Qt::AlignHCenter, say(withUnit({ms, 0}, "ms")));
    }
    const double zero = placeOf(0, low_).x();
    p.setPen(QPen(palette::quiet, 1, Qt::DashLine));
    p.drawLine(QPointF(zero, a.top()), QPointF(zero, a.bottom()));
    p.drawText(QPointF(zero + 5, a.top() + 10), say(info(Moment::FootTouch).name()));
}

void CurveChart::paintBand(QPainter& p, const FeatureCurve& curve) {
    QPolygonF band;
    for (const CurvePoint& c : curve.points) band << placeOf(c.ms, c.value + c.half95);
    for (auto c = curve.points.rbegin(); c != curve.points.rend(); ++c)
        band << placeOf(c->ms, c->value - c->half95);
    QColor soft = palette::quiet;
    soft.setAlphaF(0.12f);
    p.setPen(Qt::NoPen);
    p.setBrush(soft);
    p.drawPolygon(band);
}

void CurveChart::paintCurve(QPainter& p, std::size_t i) {
    const FeatureCurve& curve = curves_[i].curve;
    if (curve.points.empty()) return;
    QPolygonF line;
    for (const CurvePoint& c : curve.points) line << placeOf(c.ms, c.value);
    p.setPen(penOf(i));
    p.setBrush(Qt::NoBrush);
    p.drawPolyline(line);
    p.setPen(Qt::NoPen);
    p.setBrush(penOf(i).color());
    for (const CurvePoint& c : curve.points)
        if (c.clicked) p.drawEllipse(placeOf(c.ms, c.value), 3, 3);
    if (const CurvePoint* c = pointAtEvent(curve)) {
        p.setPen(QPen(penOf(i).color(), 2));
        p.setBrush(palette::paper);
        p.drawEllipse(placeOf(c->ms, c->value), 6, 6);
    }
    p.setPen(penOf(i).color());
    p.setFont(textFont(13, true));
    p.drawText(line.back() + QPointF(8, 5), letterOf(i));
}

void CurveChart::paintEvent(QPaintEvent*) {
    ScaledPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.setFont(headFont(17));
    p.setPen(palette::ink);
    p.drawText(QRectF(20, 8, usualWidth(*this) - 40, 28), Qt::AlignVCenter, title_);
    paintAxes(p);
    for (const NamedCurve& c : curves_) paintBand(p, c.curve);
    for (std::size_t i = 0; i < curves_.size(); ++i) paintCurve(p, i);
}

QString CurveChart::spokenValue() const {
    QStringList words;
    for (std::size_t i = 0; i < curves_.size(); ++i)
        words << letterOf(i) + ": " + curves_[i].name + ", " +
                     (curves_[i].curve.points.empty()
                          ? say(curves_[i].curve.why)
                          : say("curve-place.points", {{"count", curves_[i].curve.points.size()}}));
    return words.join("; ");
}

} // namespace jg::ui
