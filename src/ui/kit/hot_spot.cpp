// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/kit/hot_spot.h"

#include "letter/palette.h"

#include <QPainter>

namespace jg::ui {

HotSpot::HotSpot(const QString& name, QWidget* parent)
    : QAbstractButton(parent) {
    setText(name);
    setAccessibleName(name);
    setFocusPolicy(Qt::TabFocus);
    setCursor(Qt::PointingHandCursor);
    setCheckable(true);
}

void HotSpot::setState(const QString& description, bool current) {
    setAccessibleDescription(description);
    setChecked(current);
}

void HotSpot::paintEvent(QPaintEvent*) {
    if (!hasFocus()) return;
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.setPen(QPen(palette::clay, 2));
    p.drawRoundedRect(QRectF(rect()).adjusted(2, 2, -2, -2), 5, 5);
}

} // namespace jg::ui
