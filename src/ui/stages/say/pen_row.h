// SPDX-License-Identifier: GPL-3.0-or-later
// What is drawn with while talking, as buttons beside each other.
#pragma once

#include "review/record/review.h"

#include <QWidget>

#include <vector>

class QCheckBox;
class QToolButton;

namespace jg::ui {

/// The pens with their keys, and whether what is drawn fades.
class PenRow : public QWidget {
    Q_OBJECT
public:
    explicit PenRow(QWidget* parent = nullptr);
    void show(Pen pen, bool fades);

Q_SIGNALS:
    void asked(const QString& action); ///< of the table

private:
    std::vector<QToolButton*> pens_;
    QCheckBox* fades_;
};

} // namespace jg::ui
