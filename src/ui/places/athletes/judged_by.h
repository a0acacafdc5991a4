// SPDX-License-Identifier: GPL-3.0-or-later
// By what an athlete is judged: the approach of new reviews, and targets set for them alone.
#pragma once

#include "coaching/playbook.h"
#include "review/record/people.h"

#include <QWidget>

#include <string>
#include <vector>

class QComboBox;
class QVBoxLayout;

namespace jg::ui {

/// A choice of the approach, and the athlete's own targets with who set them, when and why; each can be taken
/// away.
class JudgedBy : public QWidget {
    Q_OBJECT
public:
    JudgedBy(const Athlete& athlete, const Playbook& playbook, int age, QWidget* parent = nullptr);
    /// The athlete with what is chosen.
    Athlete read(Athlete athlete) const;

private:
    void addTarget(QVBoxLayout& column, const Target& target, const Playbook& playbook);

    QComboBox* approach_;
    std::vector<std::string> ids_; ///< of the choices; empty = the house's usual one
    std::vector<Target> targets_;
};

} // namespace jg::ui
