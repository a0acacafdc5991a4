// SPDX-License-Identifier: GPL-3.0-or-later
#include "letter/refilm_request.h"

#include "letter/fonts.h"
#include "letter/palette.h"
#include "letter/qt_text.h"

#include <QPainter>
#include <QPainterPath>

#include <cmath>

namespace jg {

namespace {

constexpr double kScale = 46; // pixels a metre
constexpr QPointF kRubber(340, 280);
constexpr double kSideM = 5, kRearM = 6, kFrontM = 8;

/// Where the phone stands, seen from above: the plate lies to the right, third base below.
QPointF phonePlace(View view, Hand hand) {
    const double down = targetDirectionX(hand, view); // third base: the athlete strides to the right
    switch (view) {
    case View::Front:
        return kRubber + QPointF(kFrontM * kScale, 0);
    case View::Rear:
        return kRubber - QPointF(kRearM * kScale, 0);
    default:
        return kRubber + QPointF(0.6 * kScale, down * kSideM * kScale);
    }
}

double metresOf(View view) {
    return view == View::Front ? kFrontM : view == View::Rear ? kRearM : kSideM;
}

Message standText(View view, Hand hand) {
    switch (view) {
    case View::Front:
        return msg("refilm.stand-front");
    case View::Rear:
        return msg("refilm.stand-rear");
    default:
        return msg("refilm.stand-side", {{"place", placeOf(view, hand)}});
    }
}

void arrow(QPainter& p, QPointF from, QPointF to) {
    p.drawLine(from, to);
    const double way = std::atan2(to.y() - from.y(), to.x() - from.x());
    for (const double side : {2.6, -2.6})
        p.drawLine(to, to + 12 * QPointF(std::cos(way + side), std::sin(way + side)));
}

void drawPlace(QPainter& p, const Words& words) {
    p.setPen(Qt::NoPen);
    p.setBrush(palette::shade);
    p.drawEllipse(kRubber, 1.9 * kScale, 1.9 * kScale);
    p.setBrush(palette::ink);
    p.drawRect(QRectF(kRubber - QPointF(5, 16), QSizeF(10, 32)));
    p.setPen(QPen(palette::quiet, 1.6, Qt::DashLine));
    arrow(p, kRubber + QPointF(30, 0), QPointF(860, kRubber.y()));
    p.setFont(textFont(27));
    p.setPen(palette::quiet);
    p.drawText(QRectF(660, kRubber.y() - 46, 220, 38), Qt::AlignRight, text(words(msg("refilm.to-plate"))));
    // Beside the mound on the side no phone looks from.
    p.drawText(QRectF(kRubber.x() - 1.9 * kScale - 110, kRubber.y() - 1.9 * kScale - 14, 160, 38),
               Qt::AlignHCenter, text(words(msg("refilm.mound"))));
}

void drawPhone(QPainter& p, View view, Hand hand, const Words& words) {
    const QPointF at = phonePlace(view, hand), way = kRubber + QPointF(0.6 * kScale, 0) - at;
    const double length = std::hypot(way.x(), way.y());
    const QPointF along = way / length, across(-along.y(), along.x());
    QPainterPath sight(at);
    sight.lineTo(at + way * 1.25 + across * length * 0.55);
    sight.lineTo(at + way * 1.25 - across * length * 0.55);
    sight.closeSubpath();
    QColor light = palette::clay;
    light.setAlphaF(0.12F);
    p.fillPath(sight, light);
    p.setPen(QPen(palette::clay, 2));
    arrow(p, at + along * 18, at + way * 0.72);
    p.setPen(Qt::NoPen);
    p.setBrush(palette::clay);
    p.save();
    p.translate(at);
    p.rotate(std::atan2(along.y(), along.x()) * 180 / M_PI);
    p.drawRoundedRect(QRectF(-6, -15, 12, 30), 3, 3);
    p.restore();
    p.setFont(textFont(27, true));
    p.setPen(palette::clayDeep);
    const QRectF box(std::clamp(at.x() + 24.0, 10.0, 600.0), at.y() + (isSideView(view) ? -19 : 26), 300, 38);
    p.drawText(box, Qt::AlignLeft | Qt::AlignVCenter,
               text(words(msg("refilm.phone", {{"metres", Decimal{metresOf(view)}}}))));
}

} // namespace

RefilmRequest refilmRequest(const Athlete& athlete, View view, const std::string& coach, const Words& words) {
    RefilmRequest r;
    r.text = words(msg("refilm.text", {{"name", athlete.firstName},
                                       {"view", nameOf(view)},
                                       {"stand", standText(view, athlete.hand)},
                                       {"coach", coach}}));
    r.drawing = QImage(900, 560, QImage::Format_RGB32);
    r.drawing.fill(palette::paper);
    QPainter p(&r.drawing);
    p.setRenderHint(QPainter::Antialiasing);
    p.setFont(headFont(40));
    p.setPen(palette::ink);
    p.drawText(QRectF(28, 14, 840, 60), Qt::AlignLeft,
               text(words(msg("refilm.where", {{"view", nameOf(view)}}))));
    drawPlace(p, words);
    drawPhone(p, view, athlete.hand, words);
    return r;
}

} // namespace jg
