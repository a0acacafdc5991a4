// SPDX-License-Identifier: GPL-3.0-or-later
// A calm list: name, small print, number with error, verdict.
#pragma once

#include "ui/kit/list_row.h"

#include <QListView>

#include <vector>

namespace jg::ui {

class RowModel;

/// Rows in one style; one may be selected. Keyboard: the place's row-up and row-down actions. A screen reader
/// finds a list with a row each.
class RowList : public QListView {
    Q_OBJECT
public:
    explicit RowList(QWidget* parent = nullptr);
    void setRows(std::vector<ListRow> rows);
    const std::vector<ListRow>& rows() const;
    int current() const;
    void setCurrent(int row);
    /// Moves the selection and tells.
    void move(int by);
    void setEmptyText(const QString& text);
    /// Where a row is without its heading, in viewport coordinates; for tests and pictures.
    QRect rowRect(int row) const;

Q_SIGNALS:
    void selected(int row);
    void activated(int row);

protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent*) override {} // a row is not dragged over
    void mouseDoubleClickEvent(QMouseEvent* event) override;

private:
    int rowAt(QPoint at) const;

    RowModel* rows_;
    QString empty_;
};

} // namespace jg::ui
