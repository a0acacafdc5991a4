// SPDX-License-Identifier: GPL-3.0-or-later
// A list that is narrowed as one types.
#pragma once

#include "ui/kit/row_list.h"

#include <QWidget>

#include <vector>

class QLineEdit;

namespace jg::ui {

/// A line to type a part of a name in, and the rows of that name under it. Up and Down move, Enter or a click
/// takes one.
class FoundList : public QWidget {
    Q_OBJECT
public:
    /// `hint` stands in the empty line.
    FoundList(std::vector<ListRow> rows, const QString& hint, QWidget* parent = nullptr);

Q_SIGNALS:
    /// By its place in all rows.
    void taken(int row);

protected:
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    void narrow(const QString& part);
    void take();

    std::vector<ListRow> all_;
    std::vector<int> shown_; ///< places in all rows
    QLineEdit* find_;
    RowList* list_;
};

} // namespace jg::ui
