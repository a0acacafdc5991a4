// SPDX-License-Identifier: GPL-3.0-or-later
// A button where a widget paints one: it can be reached by Tab, pressed by Space, and read by a screen
// reader.
#pragma once

#include <QAbstractButton>

namespace jg::ui {

/// Paints nothing but the focus; what it looks like is its parent's affair.
class HotSpot : public QAbstractButton {
public:
    HotSpot(const QString& name, QWidget* parent);
    /// What stands with the name, as a count; and whether it is the one that is shown.
    void setState(const QString& description, bool current);

protected:
    void paintEvent(QPaintEvent*) override;
    void nextCheckState() override {} // which one is current is told from outside, not toggled by a press
};

} // namespace jg::ui
