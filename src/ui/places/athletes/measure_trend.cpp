// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/places/athletes/measure_trend.h"

#include "letter/fonts.h"
#include "letter/palette.h"
#include "letter/qt_text.h"
#include "ui/kit/text_scale.h"
#include "ui/kit/words.h"

namespace jg::ui {

MeasureTrend::MeasureTrend(QString name, MeasureLine line, Date from, Date to, QWidget* parent)
    : QWidget(parent)
    , name_(std::move(name))
    , picture_{std::move(line), from, to} {
    setFixedHeight(em(46));
    setAccessibleName(name_ + ": " + changeWords() + ", " + trendWords());
    if (!picture_.line.leftOut.empty())
        setToolTip(say("measure-trend.not-compared-left-out", {{"leftOut", picture_.line.leftOut}}));
}

void MeasureTrend::setSureSince(Date day) {
    sureSince_ = day;
    setAccessibleName(name_ + ": " + changeWords() + ", " + trendWords());
}

QString MeasureTrend::changeWords() const {
    return say(changeInWords(picture_.line));
}

QString MeasureTrend::trendWords() const {
    return say(trendInWords(picture_.line, sureSince_));
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
    p.drawText(QRectF(0, 22, left, 18), Qt::AlignVCenter, say(wordsOf(picture_.line.target)));
    paintTrend(p, QRectF(left + 12, 6, whole - left - right - 22, usualHeight(*this) - 13), picture_);
    const QRectF words(whole - right, 0, right, usualHeight(*this) - 1);
    p.setFont(textFont(13, true));
    p.setPen(palette::ink);
    p.drawText(words.adjusted(0, 4, 0, -22), Qt::AlignRight | Qt::AlignVCenter, changeWords());
    // Only a change for the worse asks for a second look.
    const bool worse = picture_.line.trend == Trend::Worse, better = picture_.line.trend == Trend::Better;
    p.setFont(textFont(12, worse || better));
    p.setPen(worse ? palette::clay : better ? palette::moss : palette::quiet);
    p.drawText(words.adjusted(0, 22, 0, -4), Qt::AlignRight | Qt::AlignVCenter, trendWords());
}

} // namespace jg::ui
