// SPDX-License-Identifier: GPL-3.0-or-later
#include "apps/post_office/window.h"

#include "base/file_store.h"
#include "post/mail.h"
#include "ui/kit/row_list.h"
#include "ui/kit/theme.h"

#include <QDir>
#include <QHBoxLayout>
#include <QScrollArea>

namespace jg {

PostOfficeWindow::PostOfficeWindow(const QString& folder, quint16 port)
    : folder_(folder) {
    setWindowTitle(ui::say("post-office.title"));
    setWindowIcon(ui::icon("post"));
    resize(980, 640);
    auto* whole = new QWidget;
    auto* row = new QHBoxLayout(whole);
    row->setContentsMargins(28, 22, 28, 18);
    row->setSpacing(26);
    auto* left = new QVBoxLayout;
    left->addWidget(ui::heading(ui::say("post-office.heading"), 24));
    left->addWidget(ui::quiet(ui::say("post-office.what", {{"port", port}})));
    list_ = new ui::RowList;
    list_->setEmptyText(ui::say("post-office.none"));
    connect(list_, &ui::RowList::selected, this, &PostOfficeWindow::showMail);
    left->addWidget(list_, 1);
    row->addLayout(left, 2);
    auto* card = new QFrame;
    card->setObjectName("card");
    auto* right = new QVBoxLayout(card);
    right->setContentsMargins(24, 20, 24, 20);
    right->setSpacing(8);
    subject_ = ui::heading("", 20);
    head_ = ui::quiet("", 12.5);
    body_ = ui::plain("", 13.5);
    body_->setTextInteractionFlags(Qt::TextSelectableByMouse);
    attached_ = ui::plain("", 13, true);
    auto* scroll = new QScrollArea;
    scroll->setWidgetResizable(true);
    auto* inner = new QWidget;
    auto* column = new QVBoxLayout(inner);
    column->setContentsMargins(0, 0, 0, 0);
    column->addWidget(body_);
    column->addStretch(1);
    scroll->setWidget(inner);
    scroll->viewport()->setAutoFillBackground(false);
    inner->setAutoFillBackground(false);
    right->addWidget(subject_);
    right->addWidget(head_);
    right->addWidget(ui::rule());
    right->addWidget(scroll, 1);
    right->addWidget(ui::rule());
    right->addWidget(attached_);
    row->addWidget(card, 3);
    setCentralWidget(whole);
    refresh();
}

void PostOfficeWindow::refresh() {
    files_ = QDir(folder_).entryList({"*.eml"}, QDir::Files, QDir::Name | QDir::Reversed);
    std::vector<ui::ListRow> rows;
    for (const QString& file : files_) {
        ui::ListRow row;
        auto bytes = readFile(QDir(folder_).filePath(file).toStdString());
        auto mail = bytes ? readMail(*bytes) : Result<ReadMail>(bytes.error());
        row.title = mail ? text(mail->subject) : file;
        row.sub = mail ? ui::say("post-office.to", {{"to", mail->to}}) : ui::say(mail.error().text);
        rows.push_back(std::move(row));
    }
    list_->setRows(std::move(rows));
    list_->setCurrent(files_.isEmpty() ? -1 : 0);
    showMail(list_->current());
}

void PostOfficeWindow::showMail(int row) {
    if (row < 0 || row >= files_.size()) {
        subject_->setText(ui::say("post-office.nothing-chosen"));
        return;
    }
    auto bytes = readFile(QDir(folder_).filePath(files_[row]).toStdString());
    auto mail = bytes ? readMail(*bytes) : Result<ReadMail>(bytes.error());
    if (!mail) {
        subject_->setText(ui::say(mail.error().text));
        return;
    }
    subject_->setText(text(mail->subject));
    head_->setText(
        ui::say("post-office.head", {{"from", mail->from}, {"to", mail->to}, {"date", mail->date}}));
    body_->setText(text(mail->text));
    QStringList words;
    for (const Attachment& a : mail->attachments)
        words << ui::say("post-office.attachment", {{"name", a.name}, {"size", a.bytes.size() / 1024}});
    attached_->setText(words.isEmpty() ? ui::say("post-office.nothing-attached") : words.join("     "));
}

} // namespace jg
