// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/kit/found_list.h"

#include "ui/kit/words.h"

#include <QLineEdit>
#include <QMouseEvent>
#include <QShortcut>
#include <QVBoxLayout>

namespace jg::ui {

FoundList::FoundList(std::vector<ListRow> rows, const QString& hint, QWidget* parent)
    : QWidget(parent)
    , all_(std::move(rows)) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    find_ = new QLineEdit;
    find_->setObjectName("found-line");
    find_->setPlaceholderText(hint);
    list_ = new RowList;
    list_->setObjectName("found-rows");
    list_->setAccessibleName(hint);
    list_->setEmptyText(say("found-list.nothing-of-that-name"));
    list_->viewport()->installEventFilter(this);
    column->addWidget(find_);
    column->addWidget(list_, 1);
    connect(find_, &QLineEdit::textChanged, this, &FoundList::narrow);
    connect(find_, &QLineEdit::returnPressed, this, &FoundList::take);
    for (const auto& [key, by] : {std::pair(Qt::Key_Up, -1), std::pair(Qt::Key_Down, 1)}) {
        auto* shortcut = new QShortcut(QKeySequence(key), this);
        shortcut->setContext(Qt::WidgetWithChildrenShortcut);
        connect(shortcut, &QShortcut::activated, this, [this, by = by] { list_->move(by); });
    }
    narrow({});
    setFocusProxy(find_);
}

void FoundList::narrow(const QString& part) {
    shown_.clear();
    std::vector<ListRow> rows;
    for (std::size_t i = 0; i < all_.size(); ++i) {
        if (!all_[i].title.contains(part.trimmed(), Qt::CaseInsensitive)) continue;
        rows.push_back(all_[i]);
        shown_.push_back(static_cast<int>(i));
    }
    list_->setRows(std::move(rows));
    list_->setCurrent(0);
}

void FoundList::take() {
    const int row = list_->current();
    if (row >= 0 && row < static_cast<int>(shown_.size()))
        Q_EMIT taken(shown_[static_cast<std::size_t>(row)]);
}

bool FoundList::eventFilter(QObject* watched, QEvent* event) {
    if (event->type() == QEvent::MouseButtonRelease) {
        const auto* mouse = static_cast<QMouseEvent*>(event);
        const int row = list_->current();
        if (mouse->button() == Qt::LeftButton && row >= 0 &&
            list_->rowRect(row).contains(mouse->position().toPoint()))
            take();
    }
    return QWidget::eventFilter(watched, event);
}

} // namespace jg::ui
