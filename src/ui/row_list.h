// A calm list: name, small print, number with error, verdict.
#pragma once

#include "ui/pips.h"

#include <QImage>
#include <QListView>

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

    /// All of it in one sentence, as a screen reader says it.
    QString spoken() const;
};

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
