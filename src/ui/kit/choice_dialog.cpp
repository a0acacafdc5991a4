// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/kit/choice_dialog.h"

#include "ui/kit/found_list.h"
#include "ui/kit/theme.h"

#include <QDialog>
#include <QKeyEvent>
#include <QLineEdit>
#include <QPushButton>
#include <QShortcut>
#include <QVBoxLayout>

namespace jg::ui {

namespace {

constexpr int kMostKeys = 9; ///< options with a key each
constexpr int kFoundH = 440; ///< of a list of more, usual pixels

using Chosen = std::function<void(const ChoiceAnswer&)>;

/// A button and a key each.
void addKeyed(QVBoxLayout* column, QDialog* dialog, const QStringList& options, const Chosen& done) {
    for (int key = 1; key <= options.size(); ++key) {
        const ChoiceAnswer chosen{static_cast<std::size_t>(key - 1), {}};
        auto* button = plainButton(QString("%1   %2").arg(key).arg(options[key - 1]));
        button->setStyleSheet("text-align:left;");
        button->setAutoDefault(false); // none is chosen before the coach chooses
        QObject::connect(button, &QPushButton::clicked, dialog, [done, chosen] { done(chosen); });
        column->addWidget(button);
        auto* shortcut = new QShortcut(QKeySequence(QString::number(key)), dialog);
        QObject::connect(shortcut, &QShortcut::activated, dialog, [done, chosen] { done(chosen); });
    }
}

/// More than there are keys: found by typing.
void addFound(QVBoxLayout* column, QDialog* dialog, const QStringList& options, const Chosen& done) {
    std::vector<ListRow> rows;
    for (const QString& words : options) {
        ListRow row;
        row.title = words;
        rows.push_back(std::move(row));
    }
    auto* list = new FoundList(std::move(rows), say("choice.find", {{"count", options.size()}}));
    list->setFixedHeight(em(kFoundH));
    column->addWidget(list);
    QObject::connect(list, &FoundList::taken, dialog, [done](int row) {
        done({static_cast<std::size_t>(row), {}});
    });
    list->setFocus();
}

/// Letters typed while the line for another answer has not the focus go into it; digits still choose.
class TypedIntoLine : public QObject {
public:
    TypedIntoLine(QDialog* dialog, QLineEdit* line)
        : QObject(dialog)
        , line_(line) {
        dialog->installEventFilter(this);
        for (QPushButton* button : dialog->findChildren<QPushButton*>()) button->installEventFilter(this);
    }

protected:
    bool eventFilter(QObject*, QEvent* event) override {
        if (event->type() != QEvent::KeyPress || line_->hasFocus()) return false;
        const QString typed = static_cast<QKeyEvent*>(event)->text();
        if (typed.isEmpty() || !typed.front().isLetter()) return false;
        line_->setFocus();
        line_->insert(typed);
        return true;
    }

private:
    QLineEdit* line_;
};

} // namespace

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
    (question.options.size() <= kMostKeys ? addKeyed : addFound)(column, dialog, question.options, done);
    if (!question.own.isEmpty()) {
        auto* own = new QLineEdit;
        own->setPlaceholderText(question.own);
        QObject::connect(own, &QLineEdit::returnPressed, dialog, [done, own] {
            if (const QString words = own->text().trimmed(); !words.isEmpty()) done({std::nullopt, words});
        });
        column->addWidget(own);
        if (question.options.isEmpty()) own->setFocus();
        new TypedIntoLine(dialog, own);
    }
    const bool keyed = !question.options.isEmpty() && question.options.size() <= kMostKeys;
    if (keyed) dialog->setFocus();
    dialog->open();
}

} // namespace jg::ui
