#include "ui/review/choice_dialog.h"

#include "ui/theme.h"

#include <QDialog>
#include <QLineEdit>
#include <QScrollArea>
#include <QShortcut>
#include <QVBoxLayout>

namespace jg::ui {

namespace {

constexpr int kMostKeys = 9;    ///< options with a key each; more are scrolled, and found by typing
constexpr int kScrolledH = 400; ///< of them, usual pixels

/// Where the options stand: in the dialog, or in a part of it that scrolls under a line to find one by.
QVBoxLayout* roomFor(const ChoiceQuestion& question, QVBoxLayout* column) {
    if (question.options.size() <= kMostKeys) return column;
    auto* find = new QLineEdit;
    find->setObjectName("choice-find");
    find->setPlaceholderText(say("choice.find", {{"count", question.options.size()}}));
    column->addWidget(find);
    auto* scroll = new QScrollArea;
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll->setFixedHeight(em(kScrolledH));
    auto* inner = new QWidget;
    auto* options = new QVBoxLayout(inner);
    options->setContentsMargins(0, 0, 10, 0);
    options->setAlignment(Qt::AlignTop);
    scroll->setWidget(inner);
    column->addWidget(scroll);
    const auto shown = [inner](const QString& words) {
        QList<QPushButton*> all;
        for (auto* button : inner->findChildren<QPushButton*>())
            if (button->text().contains(words.trimmed(), Qt::CaseInsensitive)) all << button;
        return all;
    };
    QObject::connect(find, &QLineEdit::textChanged, inner, [inner, shown](const QString& words) {
        const auto fitting = shown(words);
        for (auto* button : inner->findChildren<QPushButton*>()) button->setVisible(fitting.contains(button));
    });
    QObject::connect(find, &QLineEdit::returnPressed, inner, [find, shown] {
        if (const auto fitting = shown(find->text()); !fitting.isEmpty()) fitting.front()->click();
    });
    return options;
}

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
    QVBoxLayout* options = roomFor(question, column);
    const bool keyed = options == column;
    for (int key = 1; key <= question.options.size(); ++key) {
        const ChoiceAnswer chosen{static_cast<std::size_t>(key - 1), {}};
        const QString& words = question.options[key - 1];
        auto* button = plainButton(keyed ? QString("%1   %2").arg(key).arg(words) : words);
        button->setStyleSheet("text-align:left;");
        button->setAutoDefault(keyed); // else Enter takes what was found
        QObject::connect(button, &QPushButton::clicked, dialog, [done, chosen] { done(chosen); });
        options->addWidget(button);
        if (!keyed) continue;
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
