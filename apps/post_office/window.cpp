#include "apps/post_office/window.h"

#include "base/file_store.h"
#include "post/message.h"
#include "ui/row_list.h"
#include "ui/theme.h"

#include <QDir>
#include <QHBoxLayout>
#include <QScrollArea>

namespace jg {

PostOfficeWindow::PostOfficeWindow(const QString& folder, quint16 port)
    : folder_(folder) {
    setWindowTitle("Stand-in post office");
    setWindowIcon(ui::icon("post"));
    resize(980, 640);
    auto* whole = new QWidget;
    auto* row = new QHBoxLayout(whole);
    row->setContentsMargins(28, 22, 28, 18);
    row->setSpacing(26);
    auto* left = new QVBoxLayout;
    left->addWidget(ui::heading("Post office", 24));
    left->addWidget(ui::quiet(
        QString(
            "A stand-in: it listens on this machine only (port %1), keeps what it gets and sends nothing on.")
            .arg(port)));
    list_ = new ui::RowList;
    list_->setEmptyText("No mail yet. Send a letter from Juxtagraph; it appears here.");
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
        auto mail = bytes ? readMessage(*bytes) : Result<ReadMessage>(bytes.error());
        row.title = mail ? text(mail->subject) : file;
        row.sub = mail ? "to " + text(mail->to) : text(mail.error().text);
        rows.push_back(std::move(row));
    }
    list_->setRows(std::move(rows));
    list_->setCurrent(files_.isEmpty() ? -1 : 0);
    showMail(list_->current());
}

void PostOfficeWindow::showMail(int row) {
    if (row < 0 || row >= files_.size()) {
        subject_->setText("Nothing is chosen");
        return;
    }
    auto bytes = readFile(QDir(folder_).filePath(files_[row]).toStdString());
    auto mail = bytes ? readMessage(*bytes) : Result<ReadMessage>(bytes.error());
    if (!mail) {
        subject_->setText(text(mail.error().text));
        return;
    }
    subject_->setText(text(mail->subject));
    head_->setText(QString("from %1\nto %2\n%3").arg(text(mail->from), text(mail->to), text(mail->date)));
    body_->setText(text(mail->text));
    QString words;
    for (const Attachment& a : mail->attachments)
        words += QString("%1%2 (%3 KiB)")
                     .arg(words.isEmpty() ? "" : "     ")
                     .arg(text(a.name))
                     .arg(a.bytes.size() / 1024);
    attached_->setText(words.isEmpty() ? "Nothing attached" : words);
}

} // namespace jg
