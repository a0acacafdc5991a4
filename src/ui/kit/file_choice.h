// SPDX-License-Identifier: GPL-3.0-or-later
// Choosing files and folders of this machine.
#pragma once

#include <QString>

class QWidget;

namespace jg::ui {

/// Whether file dialogs may be shown: while names are out of sight they are not, for files and folders are
/// called by them; a sentence says so then.
bool mayShowFiles(QWidget* parent);

/// As QFileDialog's, empty when nothing was chosen or files may not be shown.
QString fileToOpen(QWidget* parent, const QString& title, const QString& kinds);
QString fileToSave(QWidget* parent, const QString& title, const QString& name, const QString& kinds = {});
QString folderToUse(QWidget* parent, const QString& title);

} // namespace jg::ui
