// SPDX-License-Identifier: GPL-3.0-or-later
#include "demo/library/demo_mark.h"

#include "letter/encoded.h"
#include "letter/palette.h"

#include <QImage>
#include <QPainter>

namespace jg {

std::string demoMark() {
    QImage mark(200, 200, QImage::Format_ARGB32);
    mark.fill(Qt::transparent);
    QPainter p(&mark);
    p.setRenderHint(QPainter::Antialiasing);
    p.setPen(Qt::NoPen);
    p.setBrush(palette::moss);
    p.drawEllipse(2, 2, 196, 196);
    p.setBrush(palette::chalk);
    p.drawPolygon(QPolygon({{34, 98}, {100, 44}, {166, 98}})); // roof
    p.drawRect(52, 98, 96, 44);
    p.setBrush(palette::clay);
    p.drawRect(80, 108, 40, 34); // gate
    p.setPen(QPen(palette::chalk, 7, Qt::SolidLine, Qt::RoundCap));
    p.drawLine(48, 154, 152, 154); // rails
    p.drawLine(62, 168, 138, 168);
    p.end();
    return encoded(mark);
}

} // namespace jg
