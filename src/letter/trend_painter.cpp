// SPDX-License-Identifier: GPL-3.0-or-later
#include "letter/trend_painter.h"

#include "letter/palette.h"

#include <algorithm>

namespace jg {

namespace {

constexpr double kFirst = 0.08, kSpan = 0.84; ///< of the chart's width: from the first day to the last

class TrendChart {
public:
    TrendChart(QPainter& p, const QRectF& chart, const TrendPicture& picture)
        : p_(p)
        , chart_(chart)
        , line_(picture.line)
        , picture_(picture) {
        findEnds();
    }

    void paint() {
        p_.save();
        p_.setRenderHint(QPainter::Antialiasing);
        paintTarget();
        if (picture_.robust && !line_.points.empty()) paintRobust(*picture_.robust);
        for (const TrendPoint& t : line_.points) paintPoint(t, &t == &line_.points.back());
        p_.restore();
    }

private:
    bool isTargeted() const {
        return line_.target.type != TargetType::Any && line_.target.type != TargetType::Record;
    }

    void findEnds() {
        for (const TrendPoint& t : line_.points)
            low_ = std::min(low_, t.value - t.half95), high_ = std::max(high_, t.value + t.half95);
        if (isTargeted()) {
            low_ = std::min(low_, line_.target.x);
            high_ = std::max(high_, line_.target.type == TargetType::Band ? line_.target.y : line_.target.x);
        }
        const double pad = std::max(1.0, (high_ - low_) * 0.15);
        low_ -= pad, high_ += pad;
    }

    double yOf(double v) const { return chart_.bottom() - (v - low_) / (high_ - low_) * chart_.height(); }
    double xOf(Date when) const {
        return chart_.left() +
               chart_.width() * (kFirst + kSpan * placeOnAxis(picture_.from, picture_.to, when));
    }

    /// The side that is wanted, shaded.
    void paintTarget() {
        if (!isTargeted()) return;
        const Target& target = line_.target;
        QRectF band = chart_;
        if (target.type == TargetType::AtLeast) band.setBottom(yOf(target.x));
        if (target.type == TargetType::AtMost) band.setTop(yOf(target.x));
        if (target.type == TargetType::Band)
            band = QRectF(chart_.left(), yOf(target.y), chart_.width(), yOf(target.x) - yOf(target.y));
        p_.fillRect(band, palette::shade);
    }

    /// The line over the season, with the band of its direction.
    void paintRobust(const RobustLine& robust) {
        const Date first = line_.points.front().when, last = line_.points.back().when;
        const auto at = [&](Date when, double perDay) {
            const double day = daysBetween(first, when);
            return QPointF(xOf(when), yOf(robust.level + (day - robust.middleDay) * perDay));
        };
        p_.save();
        p_.setClipRect(chart_);
        QColor band = palette::quiet;
        band.setAlphaF(0.18f);
        p_.setPen(Qt::NoPen);
        p_.setBrush(band);
        p_.drawPolygon(QPolygonF({at(first, robust.low95), at(last, robust.low95), at(last, robust.high95),
                                  at(first, robust.high95)}));
        p_.setPen(QPen(palette::ink, 1.2, robust.sure() ? Qt::SolidLine : Qt::DashLine));
        p_.drawLine(at(first, robust.perDay), at(last, robust.perDay));
        p_.restore();
    }

    void paintPoint(const TrendPoint& t, bool last) {
        const double x = xOf(t.when);
        p_.setPen(QPen(last ? palette::ink : palette::quiet, last ? 2.2 : 1.6));
        p_.drawLine(QPointF(x, yOf(t.value - t.half95)), QPointF(x, yOf(t.value + t.half95)));
        p_.setPen(Qt::NoPen);
        p_.setBrush(last ? palette::ink : palette::quiet);
        p_.drawEllipse(QPointF(x, yOf(t.value)), last ? 4.2 : 3.4, last ? 4.2 : 3.4);
    }

    QPainter& p_;
    QRectF chart_;
    const MeasureLine& line_;
    const TrendPicture& picture_;
    double low_ = 1e18, high_ = -1e18;
};

} // namespace

void paintTrend(QPainter& p, const QRectF& chart, const TrendPicture& picture) {
    TrendChart(p, chart, picture).paint();
}

void paintFate(QPainter& p, Fate fate, QPointF at) {
    const auto circle = [&](double r) { p.drawEllipse(at, r, r); };
    p.setBrush(Qt::NoBrush);
    switch (fate) {
    case Fate::NotAsked:
        return;
    case Fate::Open:
        p.setPen(QPen(palette::quiet, 1.5));
        p.drawLine(at - QPointF(4, 0), at + QPointF(4, 0));
        return;
    case Fate::CantTell:
        p.setPen(QPen(palette::quiet, 1.5, Qt::DotLine));
        circle(5);
        return;
    case Fate::Good:
        p.setPen(Qt::NoPen);
        p.setBrush(palette::moss);
        circle(4);
        return;
    case Fate::Kept: // good, and the letter said so
        p.setPen(QPen(palette::moss, 1.6));
        circle(8);
        p.setPen(Qt::NoPen);
        p.setBrush(palette::moss);
        circle(4);
        return;
    case Fate::Found:
        p.setPen(QPen(palette::clay, 2));
        circle(6);
        return;
    case Fate::WorkedOn:
        p.setPen(Qt::NoPen);
        p.setBrush(palette::clay);
        p.drawPolygon(
            QPolygonF({at + QPointF(0, -8), at + QPointF(8, 0), at + QPointF(0, 8), at + QPointF(-8, 0)}));
        return;
    case Fate::CameBack:
        p.setPen(QPen(palette::clay, 2));
        circle(6);
        p.drawLine(at + QPointF(-9, -9), at + QPointF(-4, -4));
        p.drawLine(at + QPointF(-9, -4), at + QPointF(-4, -4));
        p.drawLine(at + QPointF(-4, -9), at + QPointF(-4, -4));
        return;
    }
}

} // namespace jg
