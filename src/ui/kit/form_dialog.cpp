// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/kit/form_dialog.h"

#include "ui/kit/theme.h"

#include <QCheckBox>
#include <QComboBox>
#include <QFormLayout>
#include <QGridLayout>
#include <QLineEdit>
#include <QListWidget>
#include <QPlainTextEdit>
#include <QScrollArea>
#include <QShortcut>
#include <QSpinBox>
#include <QVBoxLayout>

namespace jg::ui {

FormDialog::FormDialog(QWidget* parent, const char* name, const QString& title, const QString& hint)
    : QDialog(parent) {
    setObjectName(name);
    setAttribute(Qt::WA_DeleteOnClose);
    setWindowTitle(title);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(26, 20, 26, 18);
    column->setSpacing(10);
    column->addWidget(heading(title, 20));
    column->addWidget(quiet(hint, 12.5));
    auto* scroll = new QScrollArea;
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    auto* inner = new QWidget;
    auto* page = new QVBoxLayout(inner);
    page->setContentsMargins(0, 0, 0, 0);
    form_ = new QFormLayout;
    page->addLayout(form_);
    page->addStretch(1); // a short form keeps together
    form_->setContentsMargins(0, 4, 12, 4);
    form_->setLabelAlignment(Qt::AlignLeft);
    form_->setHorizontalSpacing(18);
    form_->setVerticalSpacing(8);
    form_->setFieldGrowthPolicy(QFormLayout::AllNonFixedFieldsGrow);
    scroll->setWidget(inner);
    scroll->viewport()->setAutoFillBackground(false);
    inner->setAutoFillBackground(false);
    column->addWidget(scroll, 1);
    problem_ = problemLabel("form-problem");
    column->addWidget(problem_);
    doors_ = new QHBoxLayout;
    doors_->addStretch(1);
    auto* cancel = plainButton(say("athlete-dialog.cancel"));
    connect(cancel, &QPushButton::clicked, this, &QDialog::reject);
    do_ = mainButton(say("athlete-dialog.keep"));
    connect(do_, &QPushButton::clicked, this, &FormDialog::tryToKeep);
    doors_->addWidget(cancel);
    doors_->addWidget(do_);
    column->addLayout(doors_);
    auto* shortcut = new QShortcut(QKeySequence(Qt::CTRL | Qt::Key_Return), this);
    connect(shortcut, &QShortcut::activated, this, &FormDialog::tryToKeep);
}

void FormDialog::does(const QString& words) {
    do_->setText(words);
}

void FormDialog::add(const char* name, const QString& label, QWidget* field) {
    field->setObjectName(name);
    field->setAccessibleName(label);
    form_->addRow(label, field);
}

QLineEdit* FormDialog::line(const char* name, const QString& label, const QString& value,
                            const QString& hint) {
    auto* field = new QLineEdit(value);
    field->setPlaceholderText(hint);
    add(name, label, field);
    return field;
}

QPlainTextEdit* FormDialog::words(const char* name, const QString& label, const QString& value) {
    auto* field = new QPlainTextEdit(value);
    field->setTabChangesFocus(true);
    constexpr double kTwoLines = 50;
    field->setFixedHeight(em(kTwoLines));
    add(name, label, field);
    return field;
}

QComboBox* FormDialog::choice(const char* name, const QString& label, const QStringList& options,
                              int current) {
    auto* field = new QComboBox;
    field->addItems(options);
    field->setCurrentIndex(current);
    add(name, label, field);
    return field;
}

QSpinBox* FormDialog::number(const char* name, const QString& label, int value, int least, int most) {
    auto* field = new QSpinBox;
    field->setButtonSymbols(QAbstractSpinBox::NoButtons);
    constexpr double kFourDigits = 90;
    field->setFixedWidth(em(kFourDigits));
    field->setRange(least, most);
    field->setValue(value);
    add(name, label, field);
    return field;
}

QCheckBox* FormDialog::tick(const char* name, const QString& label, bool on) {
    auto* field = new QCheckBox(label);
    field->setChecked(on);
    add(name, {}, field);
    field->setAccessibleName(label);
    return field;
}

void FormDialog::remark(const QString& words) {
    auto* print = quiet(words, 12);
    print->setAlignment(Qt::AlignTop | Qt::AlignLeft);
    // A form layout asks a wrapped label how high it is at a width that it does not get.
    auto* holder = new QWidget;
    auto* column = new QVBoxLayout(holder);
    column->setContentsMargins(0, 0, 0, 6);
    column->addWidget(print);
    form_->addRow(QString(), holder);
}

std::vector<QCheckBox*> FormDialog::ticks(const char* name, const QString& label,
                                          const std::vector<Tickable>& boxes, int columns) {
    auto* holder = new QWidget;
    auto* grid = new QGridLayout(holder);
    grid->setContentsMargins(0, 0, 0, 0);
    std::vector<QCheckBox*> all;
    for (const Tickable& b : boxes) {
        auto* box = new QCheckBox(b.name);
        box->setChecked(b.on);
        box->setObjectName(QString::fromStdString(b.id));
        const int n = static_cast<int>(all.size());
        grid->addWidget(box, n / columns, n % columns);
        all.push_back(box);
    }
    add(name, label, holder);
    return all;
}

std::function<std::vector<std::string>()> FormDialog::list(const char* name, const QString& label,
                                                           const std::vector<Tickable>& rows) {
    auto* holder = new QWidget;
    auto* column = new QVBoxLayout(holder);
    column->setContentsMargins(0, 0, 0, 0);
    auto* find = new QLineEdit;
    find->setPlaceholderText(say("row-picker.part-of-its-name"));
    find->setAccessibleName(say("row-picker.part-of-its-name"));
    auto* list = new QListWidget;
    list->setObjectName(QString(name) + "-list");
    list->setAccessibleName(label);
    constexpr double kSixRows = 150;
    list->setFixedHeight(em(kSixRows));
    for (const bool first : {true, false}) // what is ticked stands above
        for (const Tickable& row : rows) {
            if (row.on != first) continue;
            auto* item = new QListWidgetItem(row.name, list);
            item->setFlags(item->flags() | Qt::ItemIsUserCheckable);
            item->setCheckState(row.on ? Qt::Checked : Qt::Unchecked);
            item->setData(Qt::UserRole, QString::fromStdString(row.id));
        }
    connect(find, &QLineEdit::textChanged, list, [list](const QString& part) {
        for (int i = 0; i < list->count(); ++i)
            list->item(i)->setHidden(!list->item(i)->text().contains(part, Qt::CaseInsensitive));
    });
    column->addWidget(find);
    column->addWidget(list);
    add(name, label, holder);
    return [list] {
        std::vector<std::string> ticked;
        for (int i = 0; i < list->count(); ++i)
            if (list->item(i)->checkState() == Qt::Checked)
                ticked.push_back(list->item(i)->data(Qt::UserRole).toString().toStdString());
        return ticked;
    };
}

void FormDialog::door(const char* name, const QString& label, const std::function<void()>& then) {
    auto* b = plainButton(label);
    b->setObjectName(name);
    connect(b, &QPushButton::clicked, this, [this, then] {
        reject();
        then();
    });
    doors_->insertWidget(0, b);
}

void FormDialog::openWith(std::function<std::optional<QString>()> keep) {
    keep_ = std::move(keep);
    alignLabels(*form_);
    constexpr double kWidth = 640, kHeight = 640;
    resizeForText(*this, kWidth, kHeight);
    open();
}

void FormDialog::tryToKeep() {
    const std::optional<QString> wrong = keep_();
    if (!wrong) return accept();
    problem_->setText(*wrong);
    problem_->show();
}

} // namespace jg::ui
