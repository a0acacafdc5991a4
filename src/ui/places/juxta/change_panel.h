// SPDX-License-Identifier: GPL-3.0-or-later
// Beside two deliveries: every number of the position at hand, both with their error, and what became of it.
#pragma once

#include "review/compare/figure.h"

#include <QWidget>

class QLabel;
class QVBoxLayout;

namespace jg::ui {

class ChangePanel : public QWidget {
    Q_OBJECT
public:
    explicit ChangePanel(QWidget* parent = nullptr);
    /// `where` tells when each of the two comes to it.
    void show(Moment moment, const QString& where, const std::vector<JuxtaChange>& changes,
              const std::vector<AngleChange>& angles, const Playbook& playbook);

private:
    void line(const QString& name, const QString& numbers, const QString& verdict, bool real);

    QLabel *title_, *where_;
    QVBoxLayout* lines_;
};

} // namespace jg::ui
