// One choice of a few, by one key.
#pragma once

#include <QString>
#include <QStringList>

#include <functional>

class QWidget;

namespace jg::ui {

struct ChoiceQuestion {
    QString name; ///< of the dialog, for tests
    QString title;
    QString hint;
    QStringList options; ///< keys 1 to 9
    QString own;         ///< what stands in the line for another answer; empty = no such line
};

/// Asks and hands the answer on; Esc answers nothing.
void askChoice(QWidget* parent, const ChoiceQuestion& question,
               const std::function<void(const QString&)>& then);

} // namespace jg::ui
