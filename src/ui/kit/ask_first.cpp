// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/kit/ask_first.h"

#include "ui/kit/words.h"

#include <QMessageBox>
#include <QPushButton>

namespace jg::ui {

namespace {
bool ending = false;
}

void askNobody() {
    ending = true;
}

bool nobodyIsAsked() {
    return ending;
}

void askFirst(QWidget* parent, const char* name, const QString& question, const QString& yes,
              std::function<void()> then) {
    auto* box = new QMessageBox(QMessageBox::NoIcon, {}, question, QMessageBox::NoButton, parent);
    box->setObjectName(name);
    box->setAttribute(Qt::WA_DeleteOnClose);
    QPushButton* go = box->addButton(yes, QMessageBox::AcceptRole);
    box->setDefaultButton(box->addButton(say("athlete-dialog.cancel"), QMessageBox::RejectRole));
    QObject::connect(go, &QPushButton::clicked, parent, std::move(then));
    box->open();
}

} // namespace jg::ui
