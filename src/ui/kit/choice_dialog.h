// SPDX-License-Identifier: GPL-3.0-or-later
// One choice of a few, by one key.
#pragma once

#include <QString>
#include <QStringList>

#include <functional>
#include <optional>

class QWidget;

namespace jg::ui {

struct ChoiceQuestion {
    QString name; ///< of the dialog, for tests
    QString title;
    QString hint;
    QStringList options; ///< keys 1 to 9; more are found by typing
    QString own;         ///< what stands in the line for another answer; empty = no such line
};

/// What was chosen: an option by its number, or words of one's own. What the options say is never compared.
struct ChoiceAnswer {
    std::optional<std::size_t> option;
    QString words; ///< trimmed, when no option was chosen
};

/// Asks and hands the answer on; Esc answers nothing.
void askChoice(QWidget* parent, const ChoiceQuestion& question,
               const std::function<void(const ChoiceAnswer&)>& then);

} // namespace jg::ui
