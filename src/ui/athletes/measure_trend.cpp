#include "ui/athletes/measure_trend.h"

#include "base/minus.h"
#include "coaching/change.h"
#include "letter/fonts.h"
#include "letter/palette.h"

#include <QPainter>

#include <cmath>

namespace jg::ui {

MeasureTrend::MeasureTrend(QString name, QString unit, std::vector<TrendPoint> points, const Target& target,
                           Date from, Date to, QWidget* parent)
    : QWidget(parent)
    , name_(std::move(name))
    , unit_(std::move(unit))
    , points_(std::move(points))
    , target_(target)
    , from_(from)
    , to_(to) {
    setFixedHeight(46);
}

double MeasureTrend::placeOf(Date when) const {
    const int days = daysBetween(from_, to_);
    return days <= 0 ? 0.5 : static_cast<double>(daysBetween(from_, when)) / days;
}

QString MeasureTrend::changeWords() const {
    const auto whole = [](double v) {
        return QString::fromStdString(withMinus(std::to_string(std::lround(v))));
    };
    if (points_.empty()) return {};
    if (points_.size() == 1) return whole(points_[0].value) + unit_;
    const TrendPoint &a = points_[points_.size() - 2], &b = points_.back();
    return whole(a.value) + " \u2192 " + whole(b.value) + unit_;
}

void MeasureTrend::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.fillRect(QRectF(0, height() - 1, width(), 1), palette::rule);
    p.setFont(textFont(13));
    p.setPen(palette::ink);
    p.drawText(QRectF(0, 4, 200, 20), Qt::AlignVCenter, name_);
    p.setFont(textFont(11.5));
    p.setPen(palette::quiet);
    p.drawText(QRectF(0, 22, 200, 18), Qt::AlignVCenter, QString::fromStdString(wordsOf(target_)));
    const QRectF chart(212, 6, std::max(60.0, width() - 212.0 - 190), height() - 13);
    double low = 1e18, high = -1e18;
    for (const TrendPoint& t : points_)
        low = std::min(low, t.value - t.half95), high = std::max(high, t.value + t.half95);
    const bool targeted = target_.type != TargetType::Any && target_.type != TargetType::Record;
    if (targeted) {
        low = std::min(low, target_.x);
        high = std::max(high, target_.type == TargetType::Band ? target_.y : target_.x);
    }
    const double pad = std::max(1.0, (high - low) * 0.15);
    low -= pad, high += pad;
    const auto yOf = [&](double v) { return chart.bottom() - (v - low) / (high - low) * chart.height(); };
    if (targeted) { // the side that is wanted, shaded
        QRectF band = chart;
        if (target_.type == TargetType::AtLeast) band.setBottom(yOf(target_.x));
        if (target_.type == TargetType::AtMost) band.setTop(yOf(target_.x));
        if (target_.type == TargetType::Band)
            band = QRectF(chart.left(), yOf(target_.y), chart.width(), yOf(target_.x) - yOf(target_.y));
        p.fillRect(band, palette::shade);
    }
    for (std::size_t i = 0; i < points_.size(); ++i) {
        const TrendPoint& t = points_[i];
        const double x = chart.left() + chart.width() * (0.08 + 0.84 * placeOf(t.when));
        const bool last = i + 1 == points_.size();
        p.setPen(QPen(last ? palette::clay : palette::quiet, 1.6));
        p.drawLine(QPointF(x, yOf(t.value - t.half95)), QPointF(x, yOf(t.value + t.half95)));
        p.setPen(Qt::NoPen);
        p.setBrush(last ? palette::clay : palette::ink);
        p.drawEllipse(QPointF(x, yOf(t.value)), 3.6, 3.6);
    }
    const QRectF words(width() - 180, 0, 180, height() - 1);
    p.setFont(textFont(13, true));
    p.setPen(palette::ink);
    p.drawText(words.adjusted(0, 4, 0, -22), Qt::AlignRight | Qt::AlignVCenter, changeWords());
    if (points_.size() < 2) return;
    const TrendPoint &a = points_[points_.size() - 2], &b = points_.back();
    const bool changed = reallyChanged(a.value, a.half95 / 1.96, b.value, b.half95 / 1.96);
    p.setFont(textFont(12, changed));
    p.setPen(changed ? palette::clay : palette::quiet);
    p.drawText(words.adjusted(0, 22, 0, -4), Qt::AlignRight | Qt::AlignVCenter,
               changed ? "changed" : "inside the error");
}

} // namespace jg::ui
