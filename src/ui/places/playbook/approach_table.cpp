// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/places/playbook/approach_table.h"

#include "coaching/compare.h"
#include "ui/kit/theme.h"

#include <QDialog>
#include <QScrollArea>
#include <QVBoxLayout>

namespace jg::ui {

namespace {

QPushButton* smallDoor(const QString& words, const QString& name, const std::function<void()>& then) {
    auto* b = plainButton(words);
    b->setObjectName("link");
    b->setAccessibleName(name);
    QObject::connect(b, &QPushButton::clicked, b, then);
    return b;
}

QString askedOf(const RowDifference& row, bool one) {
    if (row.isItem)
        return say((one ? row.inOne : row.inOther) ? "approach-table.graded" : "compare.not-asked");
    return say(askedInWords(one ? row.one : row.other));
}

} // namespace

QWidget* approachRow(const ApproachRow& r) {
    auto* w = new QWidget;
    auto* column = new QVBoxLayout(w);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(4);
    auto* row = new QHBoxLayout;
    constexpr int kNames = 200, kMostNames = 220, kAsked = 120, kMostAsked = 136; // larger text wraps sooner
    auto* name = plain(r.name, 13);
    name->setFixedWidth(std::min(em(kNames), kMostNames));
    row->setSpacing(12);
    row->addWidget(name, 0, Qt::AlignTop);
    row->addWidget(quiet(r.words, 12.5), 1, Qt::AlignTop);
    auto* asked = plain(r.asked, 13, true);
    asked->setFixedWidth(std::min(em(kAsked), kMostAsked));
    row->addWidget(asked, 0, Qt::AlignTop);
    if (r.change)
        row->addWidget(smallDoor(say("approach-table.change"),
                                 say("approach-table.change-row", {{"row", r.name.toStdString()}}), r.change),
                       0, Qt::AlignTop);
    if (r.leaveOut)
        row->addWidget(smallDoor(say("approach-table.leave-out"),
                                 say("approach-table.leave-out-row", {{"row", r.name.toStdString()}}),
                                 r.leaveOut),
                       0, Qt::AlignTop);
    column->addLayout(row);
    column->addWidget(rule());
    return w;
}

void showApproaches(QWidget* parent, const Playbook& playbook, const Approach& one, const Approach& other) {
    auto* dialog = new QDialog(parent);
    dialog->setObjectName("approaches-compared");
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setWindowTitle(say("compare-dialog.two-approaches"));
    auto* column = new QVBoxLayout(dialog);
    column->setContentsMargins(28, 22, 28, 20);
    column->addWidget(heading(say("compare-dialog.title", {{"one", one.name}, {"other", other.name}}), 22));
    column->addWidget(quiet(say("approach-table.rows-that-differ"), 13));
    auto* scroll = new QScrollArea;
    scroll->setWidgetResizable(true);
    auto* inner = new QWidget;
    auto* page = new QVBoxLayout(inner);
    page->addWidget(approachRow({{}, text(one.name), text(other.name), {}, {}}));
    for (const RowDifference& row : compare(one, other))
        page->addWidget(approachRow(
            {text(playbook.nameOfFinding(row.id)), askedOf(row, true), askedOf(row, false), {}, {}}));
    page->addStretch(1);
    scroll->setWidget(inner);
    scroll->viewport()->setAutoFillBackground(false);
    inner->setAutoFillBackground(false);
    column->addWidget(scroll, 1);
    auto* close = mainButton(say("sequence-dialog.close"));
    QObject::connect(close, &QPushButton::clicked, dialog, &QDialog::accept);
    column->addWidget(close, 0, Qt::AlignRight);
    resizeForText(*dialog, 820, 640);
    dialog->open();
}

} // namespace jg::ui
