// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/places/athletes/history_grid.h"

#include "letter/palette.h"
#include "letter/qt_text.h"
#include "letter/trend_painter.h"
#include "ui/kit/hot_spot.h"
#include "ui/kit/text_scale.h"
#include "ui/kit/words.h"

#include <algorithm>

namespace jg::ui {

namespace {

constexpr double kRowH = 28, kHeadH = 22, kLegendH = 24, kNameW = 230, kWideNameW = 400, kReach = 11;

} // namespace

HistoryGrid::HistoryGrid(std::vector<LogLine> lines, const Playbook& playbook, QWidget* parent)
    : QWidget(parent)
    , lines_(std::move(lines)) {
    setObjectName("history");
    setAccessibleName(say("athletes-place.finding-by-finding"));
    for (std::size_t l = 0; l < lines_.size(); ++l) {
        const LogLine& line = lines_[l];
        names_.push_back(text(playbook.nameOfFinding(line.finding)));
        for (std::size_t d = 0; d < line.dots.size(); ++d) {
            const LogDot& dot = line.dots[d];
            if (dot.fate == Fate::NotAsked) continue;
            auto* spot =
                new HotSpot(names_.back() + ", " + say(day(dot.when)) + ": " + say(nameOf(dot.fate)), this);
            spot->setToolTip(spot->accessibleName());
            spot->setText({}); // a dot is painted, no words
            connect(spot, &HotSpot::clicked, this, [this, l, d] { Q_EMIT openAt(lines_[l].dots[d]); });
            spots_.push_back({spot, {l, d}});
        }
    }
    if (!lines_.empty() && !lines_.front().dots.empty()) {
        from_ = lines_.front().dots.front().when;
        to_ = lines_.front().dots.back().when;
    }
    setFixedHeight(em(kHeadH + kRowH * static_cast<double>(lines_.size()) + kLegendH));
}

double HistoryGrid::nameWidth() const {
    const double width = usualWidth(*this);
    return std::clamp(0.3 * width, std::min(kNameW, 0.45 * width), kWideNameW);
}

double HistoryGrid::xOf(Date when) const {
    const double part = placeOnAxis(from_, to_, when);
    const double left = nameWidth() + 24;
    return left + part * (usualWidth(*this) - left - 40);
}

QPointF HistoryGrid::placeOf(std::size_t line, std::size_t dot) const {
    return {xOf(lines_[line].dots[dot].when), kHeadH + kRowH * (static_cast<double>(line) + 0.5)};
}

void HistoryGrid::layOutSpots() {
    for (const auto& [spot, at] : spots_) {
        const QPointF place = placeOf(at.first, at.second);
        spot->setGeometry(scaled(QRectF(place.x() - kReach, place.y() - kReach, 2 * kReach, 2 * kReach)));
    }
}

void HistoryGrid::resizeEvent(QResizeEvent* event) {
    QWidget::resizeEvent(event);
    layOutSpots();
}

void HistoryGrid::paintEvent(QPaintEvent*) {
    ScaledPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    if (lines_.empty()) return;
    p.setFont(textFont(11.5));
    p.setPen(palette::quiet);
    const QFontMetricsF metrics(p.font());
    double lastRight = -100;
    for (const LogDot& dot : lines_.front().dots) {
        const QString date = say(day(dot.when));
        const double w = metrics.horizontalAdvance(date),
                     x = std::min(xOf(dot.when) - w / 2, usualWidth(*this) - w);
        if (x < lastRight + 8) continue;
        lastRight = x + w;
        p.drawText(QPointF(x, 14), date);
    }
    const double nameW = nameWidth();
    for (std::size_t l = 0; l < lines_.size(); ++l) {
        const double top = kHeadH + kRowH * static_cast<double>(l);
        p.setPen(QPen(palette::rule, 1));
        p.drawLine(QPointF(0, top + kRowH), QPointF(usualWidth(*this), top + kRowH));
        p.setFont(textFont(13, lines_[l].workedOn));
        p.setPen(palette::ink);
        p.drawText(QRectF(0, top, nameW, kRowH), Qt::AlignVCenter,
                   QFontMetricsF(p.font()).elidedText(names_[l], Qt::ElideRight, nameW));
        for (std::size_t d = 0; d < lines_[l].dots.size(); ++d)
            paintFate(p, lines_[l].dots[d].fate, placeOf(l, d));
    }
    double x = 10;
    const double y = kHeadH + kRowH * static_cast<double>(lines_.size()) + kLegendH / 2 + 2;
    p.setFont(textFont(11.5));
    for (const Fate fate :
         {Fate::Found, Fate::WorkedOn, Fate::Good, Fate::Kept, Fate::CameBack, Fate::CantTell, Fate::Open}) {
        paintFate(p, fate, {x, y});
        p.setPen(palette::quiet);
        const QString words = say(nameOf(fate));
        p.drawText(QPointF(x + 13, y + 4), words);
        x += 36 + QFontMetricsF(p.font()).horizontalAdvance(words);
    }
}

} // namespace jg::ui
