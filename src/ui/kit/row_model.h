// SPDX-License-Identifier: GPL-3.0-or-later
// The rows of a RowList as a model.
#pragma once

#include "ui/kit/list_row.h"

#include <QAbstractListModel>

#include <vector>

namespace jg::ui {

class RowModel : public QAbstractListModel {
    Q_OBJECT
public:
    using QAbstractListModel::QAbstractListModel;
    /// Rows that stay where they are keep the view's place.
    void setRows(std::vector<ListRow> rows);
    const std::vector<ListRow>& rows() const { return rows_; }
    int rowCount(const QModelIndex& parent = {}) const override;
    QVariant data(const QModelIndex& index, int role) const override;

private:
    std::vector<ListRow> rows_;
};

} // namespace jg::ui
