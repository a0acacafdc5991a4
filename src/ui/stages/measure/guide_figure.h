// SPDX-License-Identifier: GPL-3.0-or-later
// The small figure that shows the next point.
#pragma once

#include "kinematics/anatomy.h"

#include "ui/kit/spoken.h"

#include <QWidget>

#include <optional>
#include <vector>

namespace jg::ui {

/// A drawn body in the landing with the wanted points; the next one in the accent, and drawn near beside it.
class GuideFigure : public QWidget, public Spoken {
public:
    explicit GuideFigure(QWidget* parent = nullptr);
    /// `mirror` for an athlete who moves to the left in the picture.
    void show(std::optional<Landmark> next, std::vector<Landmark> others, bool mirror, const QString& hint);
    QSize sizeHint() const override { return {340, height()}; }
    QAccessible::Role spokenRole() const override { return QAccessible::Graphic; }
    /// Which point is wanted, and the hint.
    QString spokenValue() const override;

protected:
    void paintEvent(QPaintEvent*) override;

private:
    QPointF at(Landmark landmark) const;
    void paintBody(QPainter& p, double thick, bool filled) const;
    void paintNear(QPainter& p) const;
    void paintWords(QPainter& p) const;

    std::optional<Landmark> next_;
    std::vector<Landmark> others_;
    bool mirror_ = false;
    QString hint_;
};

} // namespace jg::ui
