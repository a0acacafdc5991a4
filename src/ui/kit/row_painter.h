// SPDX-License-Identifier: GPL-3.0-or-later
// How a row of a RowList is laid out and painted.
#pragma once

#include <QStyledItemDelegate>

namespace jg::ui {

struct ListRow;

inline constexpr int kRowHeader = 28; ///< usual pixels of the small heading above a row

class RowPainter : public QStyledItemDelegate {
    Q_OBJECT
public:
    using QStyledItemDelegate::QStyledItemDelegate;
    void paint(QPainter* painter, const QStyleOptionViewItem& option,
               const QModelIndex& index) const override;
    QSize sizeHint(const QStyleOptionViewItem& option, const QModelIndex& index) const override;
};

} // namespace jg::ui
