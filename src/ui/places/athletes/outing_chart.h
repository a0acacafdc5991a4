// SPDX-License-Identifier: GPL-3.0-or-later
// A measure over the pitches of one outing.
#pragma once

#include "desk/pages/outing.h"
#include "ui/kit/spoken.h"

#include <QWidget>

namespace jg::ui {

/// Dots with their error by the number of the pitch; those beyond the target are squares. Where the level
/// changed a band shows how surely.
class OutingChart : public QWidget, public Spoken {
    Q_OBJECT
public:
    OutingChart(Outing outing, QString name, QWidget* parent = nullptr);
    QAccessible::Role spokenRole() const override { return QAccessible::Chart; }
    QString spokenValue() const override;

protected:
    void paintEvent(QPaintEvent*) override;

private:
    Outing outing_;
    QString name_;
};

/// The chart with what can be told below it: since which pitch, rising or falling, where the ball went.
QWidget* outingSection(const Outing& outing, const Playbook& playbook);

} // namespace jg::ui
