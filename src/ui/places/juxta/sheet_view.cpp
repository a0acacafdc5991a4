// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/places/juxta/sheet_view.h"

#include "letter/palette.h"
#include "letter/qt_text.h"
#include "ui/kit/text_scale.h"
#include "ui/kit/words.h"

#include <QMouseEvent>

#include <algorithm>
#include <cmath>

namespace jg::ui {

namespace {
constexpr double kLeastCellW = 220, kMostCellW = 460, kLeastCellH = 150;
constexpr double kCellShape = 0.72, kFlattest = 0.57; ///< height for width: at the most, at the least
} // namespace

SheetView::SheetView(const Playbook& playbook, QWidget* parent)
    : QWidget(parent)
    , playbook_(playbook) {
    setObjectName("juxta-sheet");
    setAccessibleName(say("juxta-place.sheet"));
    layout_.titleH = 0;
    layout_.rowHeadW = 168;
}

void SheetView::setSheet(JuxtaSheet sheet) {
    sheet_ = std::move(sheet);
    stills_.clear();
    if (marked_ && !isThere(*marked_)) marked_.reset();
    while (!isThere(chosen_) && chosen_.first > 0) --chosen_.first;
    while (!isThere(chosen_) && chosen_.second > 0) --chosen_.second;
    fitInto(room_);
}

void SheetView::setStill(CellKey cell, QImage still) {
    stills_[cell] = std::move(still);
    update(areaOf(cell));
}

QSize SheetView::stillSize() const {
    return (QSizeF(layout_.cellW, layout_.cellH) * textScale() * devicePixelRatioF()).toSize();
}

void SheetView::fitInto(QSize room) {
    room_ = room;
    if (sheet_.columns.empty() || room.isEmpty()) return;
    const QRectF usual = unscaled(QRectF(QPointF(), QSizeF(room)));
    const auto columns = static_cast<double>(sheet_.columns.size()),
               rows = static_cast<double>(sheet_.rows.size());
    constexpr double kBeside = 20, kGap = 8;
    layout_.cellW =
        std::clamp((usual.width() - layout_.rowHeadW - kBeside) / columns - kGap, kLeastCellW, kMostCellW);
    layout_.cellH = kCellShape * layout_.cellW;
    // What is too high by a little is made to fit; what is too high by much is scrolled.
    const double over = layout_.size(sheet_).height() - usual.height();
    if (over > 0) {
        const double least = std::max(std::min(kLeastCellH, layout_.cellH), kFlattest * layout_.cellW);
        layout_.cellH = std::max(least, layout_.cellH - over / rows);
    }
    const QSizeF size = layout_.size(sheet_) * textScale();
    setFixedSize(std::max(room.width(), static_cast<int>(std::ceil(size.width()))),
                 std::max(room.height(), static_cast<int>(std::ceil(size.height()))));
    update();
}

bool SheetView::isThere(CellKey place) const {
    if (place.second >= sheet_.columns.size()) return false;
    return place.first < sheet_.rows.size() + sheet_.columns[place.second].changes.size();
}

void SheetView::choose(CellKey place) {
    if (!isThere(place)) return;
    chosen_ = place;
    update();
    Q_EMIT chosenMoved();
}

void SheetView::moveChosen(int rows, int columns) {
    const auto moved = [](std::size_t from, int by) {
        return by < 0 && from == 0 ? from : from + static_cast<std::size_t>(by);
    };
    CellKey to{moved(chosen_.first, rows), moved(chosen_.second, columns)};
    // A column with fewer measures is entered at its last.
    while (columns != 0 && to.second < sheet_.columns.size() && !isThere(to) && to.first > 0) --to.first;
    choose(to);
}

const JuxtaChange* SheetView::chosenChange() const {
    if (!isThere(chosen_) || chosen_.first < sheet_.rows.size()) return nullptr;
    return &sheet_.columns[chosen_.second].changes[chosen_.first - sheet_.rows.size()];
}

void SheetView::setMarked(std::optional<CellKey> cell) {
    marked_ = cell;
    update();
}

QRectF SheetView::usualAreaOf(CellKey place) const {
    return place.first < sheet_.rows.size()
               ? layout_.cell(place.first, place.second)
               : layout_.change(sheet_, place.second, place.first - sheet_.rows.size());
}

QRect SheetView::areaOf(CellKey place) const {
    return isThere(place) ? scaled(usualAreaOf(place)) : QRect();
}

std::optional<CellKey> SheetView::placeAt(QPointF at) const {
    for (std::size_t c = 0; c < sheet_.columns.size(); ++c)
        for (CellKey place{0, c}; isThere(place); ++place.first)
            if (areaOf(place).contains(at.toPoint())) return place;
    return std::nullopt;
}

void SheetView::mousePressEvent(QMouseEvent* event) {
    if (const auto place = placeAt(event->position())) choose(*place);
}

void SheetView::mouseDoubleClickEvent(QMouseEvent* event) {
    const auto place = placeAt(event->position());
    if (place && place->first < sheet_.rows.size()) Q_EMIT opened();
}

void SheetView::paintEvent(QPaintEvent*) {
    if (sheet_.columns.empty()) return;
    ScaledPainter p(this);
    p.setRenderHints(QPainter::Antialiasing | QPainter::SmoothPixmapTransform);
    paintJuxta(p, sheet_, stills_, playbook_, windowWords(), layout_);
    p.setBrush(Qt::NoBrush);
    if (marked_) {
        p.setPen(QPen(palette::second, 3, Qt::DashLine));
        p.drawRect(usualAreaOf(*marked_).adjusted(2, 2, -2, -2));
    }
    if (!isThere(chosen_)) return;
    p.setPen(QPen(palette::clay, 3));
    const QRectF area = usualAreaOf(chosen_);
    if (chosen_.first < sheet_.rows.size())
        p.drawRect(area.adjusted(1.5, 1.5, -1.5, -1.5));
    else
        p.drawLine(area.topLeft() + QPointF(-6, 4), area.bottomLeft() + QPointF(-6, -4));
}

QString SheetView::spokenValue() const {
    if (!isThere(chosen_)) return {};
    const JuxtaColumn& column = sheet_.columns[chosen_.second];
    QStringList words{say(nameOf(column.at))};
    if (const JuxtaChange* change = chosenChange()) {
        words << say(shortNameOf(*change, playbook_))
              << say(change->trend ? nameOf(*change->trend) : change->notComparable);
        if (change->difference) words << say(differenceOf(*change));
    } else {
        const JuxtaEntry& entry = sheet_.rows[chosen_.first].entry;
        words << text(entry.name) << say("juxta.date", {{"date", entry.when}});
        if (const JuxtaCell& cell = column.cells[chosen_.first]; !cell.frame) words << say(cell.why);
    }
    return words.join(", ");
}

} // namespace jg::ui
