// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/kit/file_choice.h"

#include "ui/kit/words.h"

#include <QFileDialog>
#include <QMessageBox>

namespace jg::ui {

bool mayShowFiles(QWidget* parent) {
    if (!namesAreHidden()) return true;
    auto* box = new QMessageBox(QMessageBox::NoIcon, {}, say("file-choice.names-out-of-sight"),
                                QMessageBox::Close, parent);
    box->setObjectName("no-files");
    box->setAttribute(Qt::WA_DeleteOnClose);
    box->open();
    return false;
}

QString fileToOpen(QWidget* parent, const QString& title, const QString& kinds) {
    return mayShowFiles(parent) ? QFileDialog::getOpenFileName(parent, title, {}, kinds) : QString();
}

QString fileToSave(QWidget* parent, const QString& title, const QString& name, const QString& kinds) {
    return mayShowFiles(parent) ? QFileDialog::getSaveFileName(parent, title, name, kinds) : QString();
}

QString folderToUse(QWidget* parent, const QString& title) {
    return mayShowFiles(parent) ? QFileDialog::getExistingDirectory(parent, title) : QString();
}

} // namespace jg::ui
