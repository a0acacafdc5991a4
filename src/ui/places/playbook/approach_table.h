// SPDX-License-Identifier: GPL-3.0-or-later
// Rows of an approach as they stand in the playbook, and two approaches side by side.
#pragma once

#include "coaching/playbook.h"

#include <QString>

#include <functional>

class QWidget;

namespace jg::ui {

/// A row: what it is called, what is said of it, what is asked; and its doors where it can be changed.
struct ApproachRow {
    QString name, words, asked;
    std::function<void()> change, leaveOut;
};

/// Three columns and a rule below; the caller owns it.
QWidget* approachRow(const ApproachRow& row);

/// The rows on which two approaches differ, and what each asks.
void showApproaches(QWidget* parent, const Playbook& playbook, const Approach& one, const Approach& other);

} // namespace jg::ui
