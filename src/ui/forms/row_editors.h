// SPDX-License-Identifier: GPL-3.0-or-later
// Forms for what a playbook says: an item's words, a cause, a drill, a target.
#pragma once

#include "coaching/playbook_rows.h"
#include "desk/own/own_rows.h"

#include <functional>
#include <string>

class QWidget;

namespace jg::ui {

/// Where rows are kept. All of it outlives the form.
struct RowHome {
    Library& library;
    Playbook& playbook;
    IdSource& ids;
    Date today;
};

/// Opens a form on a row, a new one for an item or drill without an id or a cause without ends. What is kept
/// becomes its next edition; `then` is told how it went and its key, empty when it was taken away.
using RowKept = std::function<void(const Status& done, const std::string& key)>;
void editRow(QWidget* parent, const RowHome& home, const PlaybookRow& row, const RowKept& then);

/// Opens a form on a target of a measure. `then` is given it as it was changed.
void editTarget(QWidget* parent, const MeasureDefinition& measure, const Target& target,
                const std::function<void(const Target&)>& then);

} // namespace jg::ui
