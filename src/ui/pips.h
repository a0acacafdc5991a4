// A verdict by shape: five pips from change to keep, a shield for the arm, hollow for cannot tell, a dash for
// not visible.
#pragma once

#include "review/assess.h"

#include "ui/words.h"

#include <QWidget>

namespace jg::ui {

/// What a verdict looks like.
enum class VerdictShape { None, Pips, Shield, Hollow, Dash };

struct VerdictLook {
    VerdictShape shape = VerdictShape::None;
    int filled = 0;
    QString word;
    bool open = false; ///< nothing is judged yet
};

VerdictLook lookOf(const Judgement& judgement);
VerdictLook lookOf(const std::optional<Grade>& grade, bool protectsArm);

/// Paints the shape, 46 x 12 design pixels, with its left middle at `at`.
void paintVerdict(QPainter& painter, QPointF at, const VerdictLook& look, const QColor& ink);

} // namespace jg::ui
