// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/stages/send/sentence_editor.h"

#include "ui/kit/theme.h"

#include <QHBoxLayout>
#include <QKeyEvent>
#include <QPlainTextEdit>
#include <QVBoxLayout>

#include <algorithm>

namespace jg::ui {

SentenceEditor::SentenceEditor(const QString& words, const QString& generated,
                               const std::vector<std::string>& phrases, QWidget* parent)
    : QFrame(parent)
    , generated_(generated) {
    setObjectName("card");
    setAutoFillBackground(true);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(10, 10, 10, 10);
    column->setSpacing(6);
    words_ = new QPlainTextEdit(words);
    words_->setObjectName("sentence");
    words_->setAccessibleName(say("sentence-editor.words"));
    words_->setFixedHeight(em(78));
    words_->installEventFilter(this);
    column->addWidget(words_);
    column->addWidget(quiet(say("sentence-editor.keys"), 12));
    for (const std::string& phrase : phrases) {
        if (text(phrase) == words) continue;
        auto* offer = plainButton(fontMetrics().elidedText(text(phrase), Qt::ElideRight, em(360)));
        offer->setObjectName("link");
        offer->setToolTip(text(phrase));
        connect(offer, &QPushButton::clicked, this, [this, phrase] { words_->setPlainText(text(phrase)); });
        column->addWidget(offer, 0, Qt::AlignLeft);
    }
    auto* row = new QHBoxLayout;
    auto* own = mainButton(say("sentence-editor.keep"));
    connect(own, &QPushButton::clicked, this, &SentenceEditor::keep);
    row->addWidget(own);
    auto* letters = plainButton(say("sentence-editor.as-the-letter"));
    letters->setObjectName("as-the-letter");
    letters->setVisible(words != generated);
    letters->setToolTip(generated);
    connect(letters, &QPushButton::clicked, this, [this] { Q_EMIT kept({}); });
    row->addWidget(letters);
    row->addStretch(1);
    column->addLayout(row);
}

void SentenceEditor::openOver(QRectF place, QRectF bounds) {
    setFixedWidth(std::min(static_cast<int>(bounds.width()) - 16,
                           std::max(em(430), static_cast<int>(place.width()) + 24)));
    adjustSize();
    const double x = std::clamp(place.left() - 12, 8.0, std::max(8.0, bounds.right() - width() - 8));
    const double y = std::clamp(place.top() - 12, 8.0, std::max(8.0, bounds.bottom() - height() - 8));
    move(static_cast<int>(x), static_cast<int>(y));
    show();
    raise();
    words_->setFocus();
    words_->selectAll();
}

void SentenceEditor::keep() {
    const QString words = words_->toPlainText().simplified();
    Q_EMIT kept(words == generated_ ? QString() : words);
}

/// Every key is the editor's, also those that are an action of the window elsewhere.
bool SentenceEditor::eventFilter(QObject* object, QEvent* event) {
    if (event->type() == QEvent::ShortcutOverride) {
        event->accept();
        return true;
    }
    if (event->type() != QEvent::KeyPress) return QFrame::eventFilter(object, event);
    const int key = static_cast<QKeyEvent*>(event)->key();
    if (key == Qt::Key_Return || key == Qt::Key_Enter) {
        keep();
        return true;
    }
    if (key == Qt::Key_Escape) {
        Q_EMIT left();
        return true;
    }
    return QFrame::eventFilter(object, event);
}

} // namespace jg::ui
