// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/kit/row_list.h"

#include "letter/palette.h"
#include "ui/kit/row_model.h"
#include "ui/kit/row_painter.h"
#include "ui/kit/text_scale.h"

#include <QMouseEvent>
#include <QPainter>
#include <QScrollBar>

#include <algorithm>

namespace jg::ui {

RowList::RowList(QWidget* parent)
    : QListView(parent)
    , rows_(new RowModel(this)) {
    setModel(rows_);
    setItemDelegate(new RowPainter(this));
    setFrameShape(QFrame::NoFrame);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setVerticalScrollMode(QAbstractItemView::ScrollPerPixel);
    setResizeMode(QListView::Adjust);
    setEditTriggers(QAbstractItemView::NoEditTriggers);
    viewport()->setAutoFillBackground(false);
    setFocusPolicy(Qt::StrongFocus);
    verticalScrollBar()->setSingleStep(24);
}

const std::vector<ListRow>& RowList::rows() const {
    return rows_->rows();
}

void RowList::setRows(std::vector<ListRow> rows) {
    const int keep = std::min(current(), static_cast<int>(rows.size()) - 1);
    rows_->setRows(std::move(rows));
    setCurrent(keep);
    viewport()->update();
}

int RowList::current() const {
    return currentIndex().isValid() ? currentIndex().row() : -1;
}

void RowList::setCurrent(int row) {
    row = std::clamp(row, -1, static_cast<int>(rows().size()) - 1);
    const QModelIndex index = rows_->index(row);
    selectionModel()->setCurrentIndex(index, row < 0 ? QItemSelectionModel::Clear
                                                     : QItemSelectionModel::ClearAndSelect);
    if (row >= 0) scrollTo(index);
    viewport()->update();
}

void RowList::move(int by) {
    if (rows().empty()) return;
    setCurrent(std::clamp(current() + by, 0, static_cast<int>(rows().size()) - 1));
    Q_EMIT selected(current());
}

void RowList::setEmptyText(const QString& text) {
    empty_ = text;
    setAccessibleDescription(text);
    viewport()->update();
}

QRect RowList::rowRect(int row) const {
    if (row < 0 || row >= static_cast<int>(rows().size())) return {};
    QRect box = visualRect(rows_->index(row));
    if (!rows()[static_cast<std::size_t>(row)].header.isEmpty()) box.setTop(box.top() + em(kRowHeader));
    return box;
}

void RowList::resizeEvent(QResizeEvent* event) {
    QListView::resizeEvent(event);
    // Rows are as high as their names wrap; Qt keeps the old heights of a list that runs downward.
    if (event->size().width() != event->oldSize().width()) scheduleDelayedItemsLayout();
    if (currentIndex().isValid()) { // stays in sight
        executeDelayedItemsLayout();
        scrollTo(currentIndex());
    }
}

int RowList::rowAt(QPoint at) const {
    const QModelIndex index = indexAt(at);
    return index.isValid() && rowRect(index.row()).contains(at) ? index.row() : -1;
}

void RowList::mousePressEvent(QMouseEvent* event) {
    const int row = rowAt(event->position().toPoint());
    if (row < 0) return;
    setCurrent(row);
    Q_EMIT selected(row);
}

void RowList::mouseDoubleClickEvent(QMouseEvent* event) {
    const int row = rowAt(event->position().toPoint());
    if (row >= 0) Q_EMIT activated(row);
}

void RowList::paintEvent(QPaintEvent* event) {
    if (!rows().empty()) return QListView::paintEvent(event);
    QPainter p(viewport());
    p.setFont(labelFont(13));
    p.setPen(palette::quiet);
    p.drawText(QRectF(0, 8, viewport()->width(), viewport()->height()), Qt::AlignTop | Qt::TextWordWrap,
               empty_);
}

} // namespace jg::ui
