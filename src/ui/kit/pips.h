// SPDX-License-Identifier: GPL-3.0-or-later
// A verdict by shape: five pips from change to keep, a shield for the arm, hollow for cannot tell, a dash for
// not visible.
#pragma once

#include <QPointF>
#include <QString>

class QColor;
class QPainter;

namespace jg::ui {

/// What a verdict looks like.
enum class VerdictShape { None, Pips, Shield, Hollow, Dash };

struct VerdictLook {
    VerdictShape shape = VerdictShape::None;
    int filled = 0;
    QString word;
    bool open = false; ///< nothing is judged yet
};

/// Paints the shape, 46 x 12 design pixels, with its left middle at `at`.
void paintVerdict(QPainter& painter, QPointF at, const VerdictLook& look, const QColor& ink);

} // namespace jg::ui
