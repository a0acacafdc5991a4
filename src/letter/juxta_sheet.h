// SPDX-License-Identifier: GPL-3.0-or-later
// The sheet of deliveries under each other, as a picture or a page.
#pragma once

#include "base/file_store.h"
#include "film/picture.h"
#include "letter/mark_painter.h"
#include "review/compare/juxta.h"
#include "words/words.h"

#include <QImage>
#include <QPainter>

#include <functional>
#include <map>
#include <stop_token>
#include <utility>

namespace jg {

/// Where the sheet's parts lie, in design pixels.
struct JuxtaLayout {
    double titleH = 64; ///< 0 = without a title
    double rowHeadW = 176;
    double cellW = 300, cellH = 226;

    QSizeF size(const JuxtaSheet& sheet) const;
    QRectF cell(std::size_t row, std::size_t column) const;
    QRectF rowHead(std::size_t row) const;
    QRectF columnHead(std::size_t column) const;
    QRectF changesHead(const JuxtaSheet& sheet) const;
    QRectF change(const JuxtaSheet& sheet, std::size_t column, std::size_t place) const;
};

/// A cell: row and column.
using CellKey = std::pair<std::size_t, std::size_t>;
/// Stills of cells, each as sharp as it was cut.
using JuxtaStills = std::map<CellKey, QImage>;

/// Cuts a frame of a row's film for a cell of `size` pixels: the athlete about in the middle, all bodies one
/// height on one ground line, one thrown with the other hand mirrored, all about equally light. `picture` may
/// be smaller than the film. Without marks. Pure; any thread.
QImage juxtaStill(const JuxtaSheet& sheet, CellKey cell, const Picture& picture, QSize size);

/// Where a point of a row's film lies in a cell's `area`, once mirroredFor() has turned its scene.
ViewTransform juxtaView(const JuxtaSheet& sheet, CellKey cell, QRectF area);

/// The scene as it is drawn for the row: mirrored where the row is.
MarkScene mirroredFor(const JuxtaRow& row, MarkScene scene);

/// Paints the sheet with what stills there are; a cell without one is still to come. What can't be shown says
/// why. Needs loadFonts().
void paintJuxta(QPainter& painter, const JuxtaSheet& sheet, const JuxtaStills& stills,
                const Playbook& playbook, const Words& words, const JuxtaLayout& layout);

/// Gives a frame of a row's film. Errors: those of Reader.
using JuxtaPicture = std::function<Result<Picture>(std::size_t row, std::int64_t frame)>;

/// The whole sheet, twice as sharp as design pixels. Needs loadFonts(). Errors: those of `picture`,
/// Cancelled.
Result<QImage> drawJuxta(const JuxtaSheet& sheet, const Playbook& playbook, const JuxtaPicture& picture,
                         const Words& words, std::stop_token stop = {},
                         const std::function<void(double)>& progress = {});

/// Writes it by the ending of `path`: .png, or .pdf (one page, upright or lying as the sheet is). Whole or
/// not at all. Errors: BadInput for another ending, WriteFailed, DiskFull.
Status writeJuxta(const QImage& sheet, const std::filesystem::path& path, FileStore& files);

/// "+8 +-6", the difference of two numbers with its error and unit.
Message differenceOf(const JuxtaChange& change);
Message differenceInWords(const Estimate& difference, const std::string& unit);

} // namespace jg
