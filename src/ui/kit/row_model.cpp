// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/kit/row_model.h"

#include "ui/kit/words.h"

namespace jg::ui {

QString ListRow::spoken() const {
    QStringList parts;
    if (!header.isEmpty()) parts << header;
    parts << title;
    if (mark == RowMark::Done) parts << say("row.done");
    if (mark == RowMark::Open) parts << say("verdict.open");
    if (mark == RowMark::Now) parts << say("row.now");
    if (!value.isEmpty()) parts << (value + " " + error).trimmed();
    if (look && !look->word.isEmpty()) parts << look->word;
    for (const QString& more : {sub, right})
        if (!more.isEmpty()) parts << more;
    return parts.join(", ");
}

void RowModel::setRows(std::vector<ListRow> rows) {
    if (rows.size() != rows_.size()) {
        beginResetModel();
        rows_ = std::move(rows);
        endResetModel();
        return;
    }
    rows_ = std::move(rows);
    if (!rows_.empty()) Q_EMIT dataChanged(index(0), index(static_cast<int>(rows_.size()) - 1));
}

int RowModel::rowCount(const QModelIndex& parent) const {
    return parent.isValid() ? 0 : static_cast<int>(rows_.size());
}

QVariant RowModel::data(const QModelIndex& index, int role) const {
    if (!index.isValid() || index.row() >= static_cast<int>(rows_.size())) return {};
    const ListRow& row = rows_[static_cast<std::size_t>(index.row())];
    if (role == Qt::DisplayRole) return row.title;
    if (role == Qt::AccessibleTextRole) return row.spoken();
    return {};
}

} // namespace jg::ui
