#include "ui/review/choice_dialog.h"

#include "ui/theme.h"

#include <QDialog>
#include <QLineEdit>
#include <QShortcut>
#include <QVBoxLayout>

namespace jg::ui {

void askChoice(QWidget* parent, const ChoiceQuestion& question,
               const std::function<void(const ChoiceAnswer&)>& then) {
    auto* dialog = new QDialog(parent);
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setObjectName(question.name);
    dialog->setWindowTitle(question.title);
    dialog->setMinimumWidth(em(380));
    auto* column = new QVBoxLayout(dialog);
    column->setContentsMargins(22, 18, 22, 18);
    column->addWidget(heading(question.title, 20));
    column->addWidget(quiet(question.hint));
    const auto done = [dialog, then](const ChoiceAnswer& answer) {
        dialog->accept();
        then(answer);
    };
    constexpr int kMostKeys = 9;
    for (int key = 1; key <= question.options.size(); ++key) {
        const ChoiceAnswer chosen{static_cast<std::size_t>(key - 1), {}};
        const bool hasKey = key <= kMostKeys;
        auto* button = plainButton(QString("%1   %2")
                                       .arg(hasKey ? QString::number(key) : QString(" "))
                                       .arg(question.options[key - 1]));
        button->setStyleSheet("text-align:left;");
        QObject::connect(button, &QPushButton::clicked, dialog, [done, chosen] { done(chosen); });
        column->addWidget(button);
        if (!hasKey) continue;
        auto* shortcut = new QShortcut(QKeySequence(QString::number(key)), dialog);
        QObject::connect(shortcut, &QShortcut::activated, dialog, [done, chosen] { done(chosen); });
    }
    if (!question.own.isEmpty()) {
        auto* own = new QLineEdit;
        own->setPlaceholderText(question.own);
        QObject::connect(own, &QLineEdit::returnPressed, dialog, [done, own] {
            if (const QString words = own->text().trimmed(); !words.isEmpty()) done({std::nullopt, words});
        });
        column->addWidget(own);
        if (question.options.isEmpty()) own->setFocus();
    }
    dialog->open();
}

} // namespace jg::ui
