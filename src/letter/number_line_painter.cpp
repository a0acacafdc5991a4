// SPDX-License-Identifier: GPL-3.0-or-later
#include "letter/number_line_painter.h"

#include "letter/fonts.h"
#include "letter/palette.h"
#include "letter/qt_text.h"
#include "review/assess/number_words.h"
#include "review/tell/letter_model.h"

#include <QFontMetricsF>

#include <algorithm>
#include <cmath>

namespace jg {

namespace {

/// "at least 70", "62 to 75" in the unit's words.
Message wantedOf(const NumberLine& n) {
    const auto said = [&](double value) { return numberInWords(value, n.unit); };
    if (n.least && n.most)
        return msg("number-line.between", {{"least", said(*n.least)}, {"most", said(*n.most)}});
    return n.least ? msg("number-line.at-least", {{"least", said(*n.least)}})
                   : msg("number-line.at-most", {{"most", said(*n.most)}});
}

Message hereOf(const NumberLine& n) {
    return msg("number-line.here",
               {{"number", numberInWords(n.value, n.unit)}, {"error", errorInWords(n.half95, n.unit)}});
}

} // namespace

Message numberLineInWords(const NumberLine& n) {
    return msg("number-line.said", {{"here", hereOf(n)}, {"wanted", wantedOf(n)}});
}

void paintNumberLine(QPainter& p, QRectF box, const NumberLine& n, const Words& words) {
    constexpr double kBand = 9, kDot = 5, kText = 10.5, kAxis = 0.5;
    const double y = box.top() + kAxis * box.height();
    const auto at = [&](double value) {
        return box.left() + (value - n.from()) / (n.to() - n.from()) * box.width();
    };
    p.save();
    p.setRenderHint(QPainter::Antialiasing);
    p.setPen(QPen(palette::rule, 1.5));
    p.drawLine(QPointF(box.left(), y), QPointF(box.right(), y));
    const double least = n.least ? at(*n.least) : box.left(), most = n.most ? at(*n.most) : box.right();
    QColor wanted = palette::moss;
    wanted.setAlphaF(0.28f);
    p.fillRect(QRectF(least, y - kBand / 2, most - least, kBand), wanted);
    p.setPen(QPen(palette::moss, 2));
    for (const auto& limit : {n.least, n.most})
        if (limit) p.drawLine(QPointF(at(*limit), y - kBand), QPointF(at(*limit), y + kBand));
    p.setPen(QPen(palette::ink, 2, Qt::SolidLine, Qt::FlatCap));
    p.drawLine(QPointF(at(n.value - n.half95), y), QPointF(at(n.value + n.half95), y));
    p.setPen(Qt::NoPen);
    p.setBrush(palette::ink);
    p.drawEllipse(QPointF(at(n.value), y), kDot, kDot);
    // Words over the line say where we want you, under it where you are: they never meet.
    p.setFont(printFont(kText));
    const QFontMetricsF metrics(p.font());
    const auto put = [&](const Message& message, double middle, double top, const QColor& colour) {
        const QString said = text(words(message));
        const double width = metrics.horizontalAdvance(said) + 2;
        const double left =
            std::clamp(middle - width / 2, box.left(), std::max(box.left(), box.right() - width));
        p.setPen(colour);
        p.drawText(QRectF(left, top, width, metrics.height()), Qt::AlignLeft | Qt::AlignTop, said);
    };
    put(wantedOf(n), (least + most) / 2, box.top(), palette::moss);
    put(hereOf(n), at(n.value), box.bottom() - metrics.height(), palette::ink);
    p.restore();
}

QImage numberLineImage(const NumberLine& n, const Words& words, double width, double scale) {
    QImage image(static_cast<int>(width * scale), static_cast<int>(kNumberLineHeight * scale),
                 QImage::Format_RGB32);
    image.fill(Qt::white);
    QPainter p(&image);
    p.scale(scale, scale);
    paintNumberLine(p, QRectF(0, 0, width, kNumberLineHeight), n, words);
    return image;
}

} // namespace jg
