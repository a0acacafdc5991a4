// SPDX-License-Identifier: GPL-3.0-or-later
// The sheet on the screen: cells that can be chosen, and what has changed below them.
#pragma once

#include "letter/juxta_sheet.h"
#include "ui/kit/spoken.h"

#include <QWidget>

#include <optional>

namespace jg::ui {

/// Paints a sheet as wide as it is given, scrolled by what holds it. One place is chosen: a cell, or below
/// the last row a measure of the column.
class SheetView : public QWidget, public Spoken {
    Q_OBJECT
public:
    explicit SheetView(const Playbook& playbook, QWidget* parent = nullptr);
    /// What is chosen stays where it is, as far as it is there.
    void setSheet(JuxtaSheet sheet);
    const JuxtaSheet& sheet() const { return sheet_; }
    void setStill(CellKey cell, QImage still);
    std::size_t stillsShown() const { return stills_.size(); }
    /// Pixels of a still: as sharp as this screen shows a cell.
    QSize stillSize() const;
    /// The room that it may fill without scrolling, in widget pixels.
    void fitInto(QSize room);

    CellKey chosen() const { return chosen_; }
    void choose(CellKey place);
    void moveChosen(int rows, int columns);
    /// The measure that is chosen below a column; null while a cell is.
    const JuxtaChange* chosenChange() const;
    std::optional<CellKey> marked() const { return marked_; }
    void setMarked(std::optional<CellKey> cell);
    QRect areaOf(CellKey place) const; ///< in widget pixels

    QAccessible::Role spokenRole() const override { return QAccessible::Graphic; }
    QString spokenValue() const override;

Q_SIGNALS:
    void chosenMoved();
    void opened(); ///< a cell was clicked twice

protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;

private:
    bool isThere(CellKey place) const;
    QRectF usualAreaOf(CellKey place) const;
    std::optional<CellKey> placeAt(QPointF at) const;

    const Playbook& playbook_;
    JuxtaSheet sheet_;
    JuxtaStills stills_;
    JuxtaLayout layout_;
    QSize room_;
    CellKey chosen_{0, 0};
    std::optional<CellKey> marked_;
};

} // namespace jg::ui
