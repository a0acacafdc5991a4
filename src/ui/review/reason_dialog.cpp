#include "ui/review/reason_dialog.h"

#include "ui/theme.h"

#include <QDialog>
#include <QLineEdit>
#include <QShortcut>
#include <QVBoxLayout>

namespace jg::ui {

void askReason(QWidget* parent, const QString& title, const std::function<void(const QString&)>& then) {
    auto* dialog = new QDialog(parent);
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setObjectName("reason");
    dialog->setWindowTitle(title);
    dialog->setMinimumWidth(380);
    auto* column = new QVBoxLayout(dialog);
    column->setContentsMargins(22, 18, 22, 18);
    column->addWidget(heading(title, 20));
    column->addWidget(quiet("Why? One key is enough."));
    const auto done = [dialog, then](const QString& reason) {
        if (reason.trimmed().isEmpty()) return;
        dialog->accept();
        then(reason.trimmed());
    };
    int key = 1;
    for (const char* reason :
         {"wrong view", "hidden by the body", "cut off", "blurred", "frame missing", "too slow a film"}) {
        auto* button = plainButton(QString("%1   %2").arg(key).arg(reason));
        button->setStyleSheet("text-align:left;");
        QObject::connect(button, &QPushButton::clicked, dialog, [done, reason] { done(reason); });
        auto* shortcut = new QShortcut(QKeySequence(QString::number(key)), dialog);
        QObject::connect(shortcut, &QShortcut::activated, dialog, [done, reason] { done(reason); });
        column->addWidget(button);
        ++key;
    }
    auto* own = new QLineEdit;
    own->setPlaceholderText("another reason, then Enter");
    QObject::connect(own, &QLineEdit::returnPressed, dialog, [done, own] { done(own->text()); });
    column->addWidget(own);
    dialog->open();
}

} // namespace jg::ui
