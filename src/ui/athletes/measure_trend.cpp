#include "ui/athletes/measure_trend.h"

#include "letter/fonts.h"
#include "letter/palette.h"
#include "letter/qt_text.h"
#include "review/letter_model.h"
#include "ui/text_scale.h"
#include "ui/words.h"

#include <cmath>

namespace jg::ui {

MeasureTrend::MeasureTrend(QString name, MeasureLine line, Date from, Date to, QWidget* parent)
    : QWidget(parent)
    , name_(std::move(name))
    , line_(std::move(line))
    , from_(from)
    , to_(to) {
    setFixedHeight(em(46));
    setAccessibleName(name_ + ": " + changeWords() + ", " + trendWords());
    if (!line_.leftOut.empty())
        setToolTip(say("measure-trend.not-compared-left-out", {{"leftOut", line_.leftOut}}));
}

void MeasureTrend::setSureSince(Date day) {
    sureSince_ = day;
    setAccessibleName(name_ + ": " + changeWords() + ", " + trendWords());
}

double MeasureTrend::placeOf(Date when) const {
    const int days = daysBetween(from_, to_);
    return days <= 0 ? 0.5 : static_cast<double>(daysBetween(from_, when)) / days;
}

QString MeasureTrend::changeWords() const {
    const auto& points = line_.points;
    if (points.empty()) return {};
    const QString last = say(numberInWords(points.back().value, line_.unit));
    if (points.size() == 1) return last;
    // The unit is told once, with the last number.
    const std::string bare = line_.unit == "x" ? "x" : "";
    return say(numberInWords((points.end() - 2)->value, bare)).trimmed() + " \u2192 " + last;
}

QString MeasureTrend::trendWords() const {
    if (sureSince_ && line_.trend) // of two in a row it may be inside the error, of the whole line not
        return say("measure-trend.sure-since", {{"trend", nameOf(*line_.trend)}, {"date", *sureSince_}});
    if (line_.trend) return say(nameOf(*line_.trend));
    return line_.leftOut.empty() ? say("measure-trend.first-number")
                                 : say("measure-trend.nothing-to-compare-with");
}

void MeasureTrend::paintChart(QPainter& p, const QRectF& chart) const {
    double low = 1e18, high = -1e18;
    for (const TrendPoint& t : line_.points)
        low = std::min(low, t.value - t.half95), high = std::max(high, t.value + t.half95);
    const Target& target = line_.target;
    const bool targeted = target.type != TargetType::Any && target.type != TargetType::Record;
    if (targeted) {
        low = std::min(low, target.x);
        high = std::max(high, target.type == TargetType::Band ? target.y : target.x);
    }
    const double pad = std::max(1.0, (high - low) * 0.15);
    low -= pad, high += pad;
    const auto yOf = [&](double v) { return chart.bottom() - (v - low) / (high - low) * chart.height(); };
    if (targeted) { // the side that is wanted, shaded
        QRectF band = chart;
        if (target.type == TargetType::AtLeast) band.setBottom(yOf(target.x));
        if (target.type == TargetType::AtMost) band.setTop(yOf(target.x));
        if (target.type == TargetType::Band)
            band = QRectF(chart.left(), yOf(target.y), chart.width(), yOf(target.x) - yOf(target.y));
        p.fillRect(band, palette::shade);
    }
    paintRobust(p, chart, low, high);
    for (std::size_t i = 0; i < line_.points.size(); ++i) {
        const TrendPoint& t = line_.points[i];
        const double x = chart.left() + chart.width() * (0.08 + 0.84 * placeOf(t.when));
        const bool last = i + 1 == line_.points.size();
        p.setPen(QPen(last ? palette::ink : palette::quiet, last ? 2.2 : 1.6));
        p.drawLine(QPointF(x, yOf(t.value - t.half95)), QPointF(x, yOf(t.value + t.half95)));
        p.setPen(Qt::NoPen);
        p.setBrush(last ? palette::ink : palette::quiet);
        p.drawEllipse(QPointF(x, yOf(t.value)), last ? 4.2 : 3.4, last ? 4.2 : 3.4);
    }
}

/// The line over the season, with the band of its direction.
void MeasureTrend::paintRobust(QPainter& p, const QRectF& chart, double low, double high) const {
    if (!robust_) return;
    const Date first = line_.points.front().when, last = line_.points.back().when;
    const auto at = [&](Date when, double perDay) {
        const double day = daysBetween(first, when);
        const double v = robust_->level + (day - robust_->middleDay) * perDay;
        return QPointF(chart.left() + chart.width() * (0.08 + 0.84 * placeOf(when)),
                       chart.bottom() - (v - low) / (high - low) * chart.height());
    };
    p.save();
    p.setClipRect(chart);
    QColor band = palette::quiet;
    band.setAlphaF(0.18f);
    p.setPen(Qt::NoPen);
    p.setBrush(band);
    p.drawPolygon(QPolygonF({at(first, robust_->low95), at(last, robust_->low95), at(last, robust_->high95),
                             at(first, robust_->high95)}));
    p.setPen(QPen(palette::ink, 1.2, robust_->sure() ? Qt::SolidLine : Qt::DashLine));
    p.drawLine(at(first, robust_->perDay), at(last, robust_->perDay));
    p.restore();
}

void MeasureTrend::paintEvent(QPaintEvent*) {
    ScaledPainter p(this);
    p.fillRect(QRectF(0, usualHeight(*this) - 1, usualWidth(*this), 1), palette::rule);
    p.setFont(textFont(13));
    p.setPen(palette::ink);
    const double whole = usualWidth(*this), left = std::min(200.0, 0.42 * whole),
                 right = std::min(180.0, 0.3 * whole);
    p.drawText(QRectF(0, 4, left, 20), Qt::AlignVCenter, name_);
    p.setFont(textFont(11.5));
    p.setPen(palette::quiet);
    p.drawText(QRectF(0, 22, left, 18), Qt::AlignVCenter, say(wordsOf(line_.target)));
    paintChart(p, QRectF(left + 12, 6, whole - left - right - 22, usualHeight(*this) - 13));
    const QRectF words(whole - right, 0, right, usualHeight(*this) - 1);
    p.setFont(textFont(13, true));
    p.setPen(palette::ink);
    p.drawText(words.adjusted(0, 4, 0, -22), Qt::AlignRight | Qt::AlignVCenter, changeWords());
    // Only a change for the worse asks for a second look.
    const bool worse = line_.trend == Trend::Worse, better = line_.trend == Trend::Better;
    p.setFont(textFont(12, worse || better));
    p.setPen(worse ? palette::clay : better ? palette::moss : palette::quiet);
    p.drawText(words.adjusted(0, 22, 0, -4), Qt::AlignRight | Qt::AlignVCenter, trendWords());
}

} // namespace jg::ui
