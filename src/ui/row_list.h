// A calm list: name, small print, number with error, verdict.
#pragma once

#include "ui/pips.h"

#include <QAbstractScrollArea>
#include <QImage>

#include <optional>
#include <vector>

namespace jg::ui {

/// What stands before a row's name.
enum class RowMark { None, Open, Done, Now };

struct ListRow {
    QString title;
    QString sub;
    QString value; ///< bold, right of the name
    QString error; ///< quiet, behind the value
    std::optional<VerdictLook> look;
    QString right; ///< at the right edge
    bool rightAccent = false;
    RowMark mark = RowMark::None;
    QImage still;
    QString header; ///< a small heading above the row
};

/// Rows painted in one style; one may be selected. Keyboard: the place's row-up and row-down actions.
class RowList : public QAbstractScrollArea {
    Q_OBJECT
public:
    explicit RowList(QWidget* parent = nullptr);
    void setRows(std::vector<ListRow> rows);
    const std::vector<ListRow>& rows() const { return rows_; }
    int current() const { return current_; }
    void setCurrent(int row);
    /// Moves the selection and tells.
    void move(int by);
    void setEmptyText(const QString& text) {
        empty_ = text;
        viewport()->update();
    }
    /// Where a row is, in viewport coordinates; for tests and pictures.
    QRect rowRect(int row) const;

Q_SIGNALS:
    void selected(int row);
    void activated(int row);

protected:
    void paintEvent(QPaintEvent*) override;
    void resizeEvent(QResizeEvent*) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;

private:
    void layOut();
    int heightOf(const ListRow& row) const;
    void paintRow(QPainter& p, const ListRow& row, QRectF box, bool current);
    int rowAt(int y) const;

    std::vector<ListRow> rows_;
    std::vector<int> tops_;
    int total_ = 0;
    int current_ = -1;
    QString empty_;
};

} // namespace jg::ui
