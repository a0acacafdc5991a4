#include "ui/row_list.h"

#include "letter/fonts.h"
#include "letter/palette.h"

#include <QMouseEvent>
#include <QPainter>
#include <QScrollBar>

#include <algorithm>

namespace jg::ui {

namespace {
constexpr int kHeader = 28;
} // namespace

RowList::RowList(QWidget* parent)
    : QAbstractScrollArea(parent) {
    setFrameShape(QFrame::NoFrame);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    viewport()->setAutoFillBackground(false);
    setFocusPolicy(Qt::ClickFocus);
}

int RowList::heightOf(const ListRow& row) const {
    const int body = row.still.isNull() ? (row.sub.isEmpty() && !row.look ? 36 : 46) : 64;
    return body + (row.header.isEmpty() ? 0 : kHeader);
}

void RowList::setRows(std::vector<ListRow> rows) {
    rows_ = std::move(rows);
    current_ = std::min(current_, static_cast<int>(rows_.size()) - 1);
    layOut();
    viewport()->update();
}

void RowList::layOut() {
    tops_.clear();
    total_ = 0;
    for (const ListRow& row : rows_) {
        tops_.push_back(total_);
        total_ += heightOf(row);
    }
    verticalScrollBar()->setPageStep(viewport()->height());
    verticalScrollBar()->setRange(0, std::max(0, total_ - viewport()->height()));
    verticalScrollBar()->setSingleStep(24);
}

void RowList::resizeEvent(QResizeEvent*) {
    layOut();
    setCurrent(current_); // stays in sight
}

QRect RowList::rowRect(int row) const {
    if (row < 0 || row >= static_cast<int>(rows_.size())) return {};
    const auto i = static_cast<std::size_t>(row);
    const int header = rows_[i].header.isEmpty() ? 0 : kHeader;
    return QRect(0, tops_[i] - verticalScrollBar()->value() + header, viewport()->width(),
                 heightOf(rows_[i]) - header);
}

void RowList::setCurrent(int row) {
    current_ = std::clamp(row, -1, static_cast<int>(rows_.size()) - 1);
    if (const QRect r = rowRect(current_); !r.isNull()) {
        if (r.top() < 0) verticalScrollBar()->setValue(verticalScrollBar()->value() + r.top() - kHeader);
        if (r.bottom() > viewport()->height())
            verticalScrollBar()->setValue(verticalScrollBar()->value() + r.bottom() - viewport()->height() +
                                          4);
    }
    viewport()->update();
}

void RowList::move(int by) {
    if (rows_.empty()) return;
    setCurrent(std::clamp(current_ + by, 0, static_cast<int>(rows_.size()) - 1));
    Q_EMIT selected(current_);
}

int RowList::rowAt(int y) const {
    for (int i = 0; i < static_cast<int>(rows_.size()); ++i)
        if (rowRect(i).contains(2, y)) return i;
    return -1;
}

void RowList::mousePressEvent(QMouseEvent* event) {
    const int row = rowAt(event->position().toPoint().y());
    if (row < 0) return;
    setCurrent(row);
    Q_EMIT selected(row);
}

void RowList::mouseDoubleClickEvent(QMouseEvent* event) {
    const int row = rowAt(event->position().toPoint().y());
    if (row >= 0) Q_EMIT activated(row);
}

void RowList::paintEvent(QPaintEvent*) {
    QPainter p(viewport());
    p.setRenderHint(QPainter::Antialiasing);
    if (rows_.empty()) {
        p.setFont(textFont(13));
        p.setPen(palette::quiet);
        p.drawText(QRectF(0, 8, viewport()->width(), viewport()->height()), Qt::AlignTop | Qt::TextWordWrap,
                   empty_);
        return;
    }
    for (int i = 0; i < static_cast<int>(rows_.size()); ++i) {
        const QRectF box = rowRect(i);
        const ListRow& row = rows_[static_cast<std::size_t>(i)];
        if (box.bottom() < -kHeader || box.top() > viewport()->height() + kHeader) continue;
        if (!row.header.isEmpty()) {
            p.setFont(textFont(12));
            p.setPen(palette::quiet);
            p.drawText(QRectF(0, box.top() - kHeader, box.width(), kHeader - 6),
                       Qt::AlignBottom | Qt::AlignLeft, row.header);
        }
        paintRow(p, row, box, i == current_);
    }
}

void RowList::paintRow(QPainter& p, const ListRow& row, QRectF box, bool current) {
    if (current) {
        p.fillRect(box.adjusted(0, 0, 0, -1), palette::sheet);
        p.fillRect(QRectF(box.left(), box.top(), 3, box.height() - 1), palette::clay);
    }
    p.fillRect(QRectF(box.left(), box.bottom() - 1, box.width(), 1), palette::rule);
    double x = box.left() + 10;
    const double right = box.right() - 6;
    if (row.mark != RowMark::None) {
        const QPointF c(x + 8, box.center().y());
        p.setPen(QPen(row.mark == RowMark::Done  ? palette::moss
                      : row.mark == RowMark::Now ? palette::clay
                                                 : palette::quiet,
                      1.6));
        p.setBrush(row.mark == RowMark::Done ? QBrush(palette::moss) : Qt::NoBrush);
        p.drawEllipse(c, 7, 7);
        if (row.mark == RowMark::Done) {
            p.setPen(QPen(palette::sheet, 1.8));
            p.drawPolyline(QPolygonF({c + QPointF(-3, 0), c + QPointF(-1, 2.5), c + QPointF(3.2, -2.5)}));
        } else if (row.mark == RowMark::Now) {
            p.setBrush(palette::clay);
            p.drawEllipse(c, 3.4, 3.4);
        }
        x += 26;
    }
    if (!row.still.isNull()) {
        const QRectF still(x, box.top() + 9, 74, 42);
        p.setRenderHint(QPainter::SmoothPixmapTransform);
        p.drawImage(still, row.still, QRectF(row.still.rect()));
        x += 84;
    }
    double edge = right;
    if (!row.right.isEmpty()) {
        p.setFont(textFont(12.5, row.rightAccent));
        p.setPen(row.rightAccent ? palette::clay : palette::quiet);
        const double w = QFontMetricsF(p.font()).horizontalAdvance(row.right);
        p.drawText(QRectF(right - w - 2, box.top(), w + 2, box.height() - 1),
                   Qt::AlignVCenter | Qt::AlignRight, row.right);
        edge -= w + 10;
    }
    if (row.look) {
        // Shape and word in fixed columns, so that the eye runs down them.
        const double at = box.right() - 126;
        paintVerdict(p, QPointF(at, box.center().y()), *row.look, palette::ink);
        p.setFont(textFont(12.5));
        p.setPen(row.look->word == "open" ? palette::quiet : palette::ink);
        const bool shape = row.look->shape != VerdictShape::None;
        p.drawText(QRectF(at + (shape ? 50 : 4), box.top(), 84, box.height() - 1),
                   Qt::AlignVCenter | Qt::AlignLeft, row.look->word);
        edge = at - 4;
    }
    if (!row.value.isEmpty() || !row.error.isEmpty()) {
        p.setFont(textFont(12.5));
        const double errorWidth = 31;
        p.setPen(palette::quiet);
        p.drawText(QRectF(edge - errorWidth, box.top(), errorWidth, box.height() - 1),
                   Qt::AlignVCenter | Qt::AlignLeft, row.error);
        p.setFont(textFont(13.5, true));
        p.setPen(palette::ink);
        p.drawText(QRectF(edge - errorWidth - 60, box.top(), 57, box.height() - 1),
                   Qt::AlignVCenter | Qt::AlignRight, row.value);
        edge -= errorWidth + 50;
    }
    const double width = std::max(20.0, edge - x - 2);
    p.setFont(textFont(13.5, current && row.mark != RowMark::None));
    p.setPen(palette::ink);
    const auto line = [&](const QString& s) {
        return QFontMetricsF(p.font()).elidedText(s, Qt::ElideRight, width);
    };
    if (row.sub.isEmpty()) {
        const QRectF two(x, box.top(), width, box.height() - 1);
        const bool fits =
            p.fontMetrics().boundingRect(two.toRect(), Qt::TextWordWrap, row.title).height() <= 40;
        p.drawText(two, Qt::AlignVCenter | Qt::AlignLeft | Qt::TextWordWrap,
                   fits ? row.title : line(row.title));
        return;
    }
    const double mid = box.top() + (box.height() - 1) / 2;
    p.drawText(QRectF(x, mid - 20, width, 20), Qt::AlignVCenter | Qt::AlignLeft, line(row.title));
    p.setFont(textFont(11.5));
    p.setPen(palette::quiet);
    p.drawText(QRectF(x, mid + 1, width, 17), Qt::AlignVCenter | Qt::AlignLeft, line(row.sub));
}

} // namespace jg::ui
