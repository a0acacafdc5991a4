// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/kit/row_painter.h"

#include "letter/fonts.h"
#include "letter/palette.h"
#include "ui/kit/row_model.h"
#include "ui/kit/text_scale.h"

#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace jg::ui {

namespace {

constexpr double kLeft = 10, kRight = 6, kMark = 26, kStill = 84, kLook = 126, kError = 31, kValue = 57;
constexpr double kTitleLine = 18, kSubLine = 17;

QFont titleFont(bool bold = false) {
    return textFont(13.5, bold);
}

/// Where the parts of a row begin and end across.
struct Columns {
    double title = kLeft;
    double edge = 0; ///< right end of the title
    explicit Columns(const ListRow& row, double width) {
        if (row.mark != RowMark::None) title += kMark;
        if (!row.still.isNull()) title += kStill;
        edge = width - kRight;
        if (!row.right.isEmpty())
            edge -= QFontMetricsF(textFont(12.5, row.rightAccent)).horizontalAdvance(row.right) + 10;
        if (row.look) edge = width - kLook - 4;
        if (!row.value.isEmpty() || !row.error.isEmpty()) edge -= kError + 50;
    }
    double room() const { return std::max(20.0, edge - title - 2); }
};

/// One or two: names are never cut while two lines hold them.
int titleLines(const ListRow& row, double room) {
    return QFontMetricsF(titleFont(true)).horizontalAdvance(row.title) > room ? 2 : 1;
}

int bodyHeight(const ListRow& row, double width) {
    const int least = row.still.isNull() ? (row.sub.isEmpty() && !row.look ? 36 : 46) : 64;
    if (row.sub.isEmpty()) return least;
    const double text = titleLines(row, Columns(row, width).room()) * kTitleLine + kSubLine + 11;
    return std::max(least, static_cast<int>(std::ceil(text)));
}

void paintMark(QPainter& p, RowMark mark, QPointF c) {
    p.setPen(QPen(mark == RowMark::Done  ? palette::moss
                  : mark == RowMark::Now ? palette::clay
                                         : palette::quiet,
                  1.6));
    p.setBrush(mark == RowMark::Done ? QBrush(palette::moss) : Qt::NoBrush);
    p.drawEllipse(c, 7, 7);
    if (mark == RowMark::Done) {
        p.setPen(QPen(palette::sheet, 1.8));
        p.drawPolyline(QPolygonF({c + QPointF(-3, 0), c + QPointF(-1, 2.5), c + QPointF(3.2, -2.5)}));
    } else if (mark == RowMark::Now) {
        p.setBrush(palette::clay);
        p.drawEllipse(c, 3.4, 3.4);
    }
}

void paintRight(QPainter& p, const ListRow& row, QRectF box) {
    p.setFont(textFont(12.5, row.rightAccent));
    p.setPen(row.rightAccent ? palette::clay : palette::quiet);
    p.drawText(box.adjusted(0, 0, -kRight, -1), Qt::AlignVCenter | Qt::AlignRight, row.right);
}

/// Shape and word in fixed columns, so that the eye runs down them.
void paintLook(QPainter& p, const VerdictLook& look, QRectF box) {
    const double at = box.right() - kLook;
    paintVerdict(p, QPointF(at, box.center().y()), look, palette::ink);
    p.setFont(textFont(12.5));
    p.setPen(look.open ? palette::quiet : palette::ink);
    const bool shape = look.shape != VerdictShape::None;
    const double left = at + (shape ? 50 : 4);
    // Words of another language may need two lines; beside the list's scroll bar nothing is read.
    p.drawText(QRectF(left, box.top(), box.right() - left, box.height() - 1),
               Qt::AlignVCenter | Qt::AlignLeft | Qt::TextWordWrap, look.word);
}

void paintValue(QPainter& p, const ListRow& row, QRectF box, double edge) {
    const double right = edge + kError + 50;
    p.setFont(textFont(12.5));
    p.setPen(palette::quiet);
    p.drawText(QRectF(right - kError, box.top(), kError, box.height() - 1), Qt::AlignVCenter | Qt::AlignLeft,
               row.error);
    p.setFont(textFont(13.5, true));
    p.setPen(palette::ink);
    p.drawText(QRectF(right - kError - kValue - 3, box.top(), kValue, box.height() - 1),
               Qt::AlignVCenter | Qt::AlignRight, row.value);
}

void paintWords(QPainter& p, const ListRow& row, QRectF box, const Columns& columns, bool bold) {
    p.setFont(titleFont(bold));
    p.setPen(palette::ink);
    const double room = columns.room(), x = box.left() + columns.title;
    constexpr int kWrap = Qt::AlignVCenter | Qt::AlignLeft | Qt::TextWordWrap;
    if (row.sub.isEmpty()) return p.drawText(QRectF(x, box.top(), room, box.height() - 1), kWrap, row.title);
    const double title = titleLines(row, room) * kTitleLine;
    const double top = box.top() + (box.height() - 1 - title - kSubLine) / 2;
    p.drawText(QRectF(x, top, room, title + 2), kWrap, row.title);
    p.setFont(textFont(11.5));
    p.setPen(palette::quiet);
    const QString sub = QFontMetricsF(p.font()).elidedText(row.sub, Qt::ElideRight, room);
    p.drawText(QRectF(x, top + title + 1, room, kSubLine), Qt::AlignVCenter | Qt::AlignLeft, sub);
}

const ListRow& rowOf(const QModelIndex& index) {
    return static_cast<const RowModel*>(index.model())->rows()[static_cast<std::size_t>(index.row())];
}

} // namespace

QSize RowPainter::sizeHint(const QStyleOptionViewItem& option, const QModelIndex& index) const {
    const ListRow& row = rowOf(index);
    const auto* list = qobject_cast<const QListView*>(option.widget);
    const int width = list ? list->viewport()->width() : option.rect.width();
    return {width, em(bodyHeight(row, width / textScale()) + (row.header.isEmpty() ? 0 : kRowHeader))};
}

void RowPainter::paint(QPainter* painter, const QStyleOptionViewItem& option,
                       const QModelIndex& index) const {
    const ListRow& row = rowOf(index);
    QPainter& p = *painter;
    p.save();
    p.setRenderHint(QPainter::Antialiasing);
    p.scale(textScale(), textScale());
    QRectF box = unscaled(option.rect);
    if (!row.header.isEmpty()) {
        p.setFont(textFont(12));
        p.setPen(palette::quiet);
        p.drawText(QRectF(box.left(), box.top(), box.width(), kRowHeader - 6),
                   Qt::AlignBottom | Qt::AlignLeft, row.header);
        box.setTop(box.top() + kRowHeader);
    }
    const auto* list = qobject_cast<const QListView*>(option.widget);
    const bool current = list && list->currentIndex() == index;
    if (current) {
        p.fillRect(box.adjusted(0, 0, 0, -1), palette::sheet);
        p.fillRect(QRectF(box.left(), box.top(), list->hasFocus() ? 5 : 3, box.height() - 1), palette::clay);
    }
    p.fillRect(QRectF(box.left(), box.bottom() - 1, box.width(), 1), palette::rule);
    if (row.mark != RowMark::None) paintMark(p, row.mark, {box.left() + kLeft + 8, box.center().y()});
    if (!row.still.isNull()) {
        const double x = box.left() + kLeft + (row.mark == RowMark::None ? 0 : kMark);
        p.setRenderHint(QPainter::SmoothPixmapTransform);
        p.drawImage(QRectF(x, box.center().y() - 21.5, 74, 42), row.still, QRectF(row.still.rect()));
    }
    const Columns columns(row, box.width());
    if (!row.right.isEmpty()) paintRight(p, row, box);
    if (row.look) paintLook(p, *row.look, box);
    if (!row.value.isEmpty() || !row.error.isEmpty()) paintValue(p, row, box, box.left() + columns.edge);
    paintWords(p, row, box, columns, current && row.mark != RowMark::None);
    p.restore();
}

} // namespace jg::ui
