// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/kit/pips.h"

#include "letter/palette.h"

#include <QPainter>
#include <QPainterPath>

namespace jg::ui {

void paintVerdict(QPainter& p, QPointF at, const VerdictLook& look, const QColor& ink) {
    p.save();
    p.setRenderHint(QPainter::Antialiasing);
    p.setPen(QPen(look.shape == VerdictShape::Hollow ? palette::quiet : ink, 1.2));
    if (look.shape == VerdictShape::Pips || look.shape == VerdictShape::Hollow) {
        for (int i = 0; i < 5; ++i) {
            p.setBrush(look.shape == VerdictShape::Pips && i < look.filled ? QBrush(ink) : Qt::NoBrush);
            p.drawEllipse(at + QPointF(5 + i * 9, 0), 3.4, 3.4);
        }
    } else if (look.shape == VerdictShape::Shield) {
        QPainterPath shield(at + QPointF(2, -6));
        shield.lineTo(at + QPointF(8, -7.5));
        shield.lineTo(at + QPointF(14, -6));
        shield.quadTo(at + QPointF(15, 3), at + QPointF(8, 8));
        shield.quadTo(at + QPointF(1, 3), at + QPointF(2, -6));
        p.setPen(Qt::NoPen);
        p.setBrush(palette::clay);
        p.drawPath(shield);
    } else if (look.shape == VerdictShape::Dash) {
        QPen pen(palette::quiet, 1.6);
        pen.setDashPattern({2, 2});
        p.setPen(pen);
        p.drawLine(at + QPointF(2, 0), at + QPointF(44, 0));
    }
    p.restore();
}

} // namespace jg::ui
