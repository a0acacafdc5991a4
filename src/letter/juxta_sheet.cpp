// SPDX-License-Identifier: GPL-3.0-or-later
#include "letter/juxta_sheet.h"

#include "letter/encoded.h"
#include "letter/fonts.h"
#include "letter/palette.h"
#include "letter/pdf_file.h"
#include "letter/qt_text.h"
#include "letter/still.h"
#include "letter/veils.h"
#include "review/assess/number_words.h"
#include "review/tell/letter_model.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace jg {

namespace {

// Design pixels.
constexpr double kSideMargin = 20, kColumnHead = 40, kCellGap = 8, kChangeH = 46, kBottomH = 24;
constexpr double kLeastMarks = 0.85;   ///< of that in a smaller cell: numbers stay legible
constexpr double kMarks = 0.8;         ///< size of the marks in a cell of the usual height
constexpr std::size_t kShortName = 16; ///< letters that stand in one line
// Of a cell's height: the body, and where the ground lies.
constexpr double kBodyPart = 0.76, kGroundPart = 0.93;
constexpr double kMostAside = 0.15; ///< of a cell's width: the body stays well inside
constexpr int kSharp = 2;           ///< pixels a design pixel, of what is written

MarkScene mirrored(MarkScene scene, double width) {
    const auto turn = [&](ImagePoint& p) { p.x = width - p.x; };
    for (SceneLine& l : scene.lines)
        for (ImagePoint& p : l.points) turn(p);
    for (ScenePoint& p : scene.points) turn(p.at);
    for (SceneArc& a : scene.arcs) turn(a.a), turn(a.vertex), turn(a.b);
    for (SceneLabel& l : scene.labels) turn(l.at);
    for (SceneBox& b : scene.boxes) turn(b.a), turn(b.b);
    return scene;
}

class SheetPainter {
public:
    SheetPainter(QPainter& painter, const JuxtaSheet& sheet, const Playbook& playbook, const Words& words,
                 const JuxtaLayout& layout)
        : painter_(painter)
        , sheet_(sheet)
        , playbook_(playbook)
        , words_(words)
        , layout_(layout) {}

    void head() {
        const double width = layout_.size(sheet_).width(), height = layout_.titleH - 8;
        painter_.fillRect(QRectF(0, 0, width, height), palette::sheet);
        painter_.setPen(QPen(palette::rule, 1));
        painter_.drawLine(QPointF(0, height), QPointF(width, height));
        write(titleOf(sheet_), headFont(21), palette::ink, {kSideMargin, 0, width / 2, height},
              Qt::AlignVCenter);
        write(mannerOf(sheet_), textFont(13), sheet_.childBesideAdult() ? palette::clay : palette::quiet,
              {width / 2, 0, width / 2 - kSideMargin, height}, Qt::AlignVCenter | Qt::AlignRight);
    }

    void columnHeads() {
        for (std::size_t c = 0; c < sheet_.columns.size(); ++c)
            write(nameOf(sheet_.columns[c].at), headFont(17), palette::ink, layout_.columnHead(c),
                  Qt::AlignVCenter);
    }

    void rowHead(std::size_t r) {
        const JuxtaRow& row = sheet_.rows[r];
        const JuxtaEntry& entry = row.entry;
        const QRectF area = layout_.rowHead(r);
        const bool named = !entry.baseline.empty();
        write(named ? asIs(entry.baseline) : msg("juxta.date", {{"date", entry.when}}), headFont(17),
              palette::ink, {area.left(), area.top() + 4, area.width(), 48},
              Qt::AlignLeft | Qt::TextWordWrap);
        std::vector<Message> facts{
            named ? day(entry.when, DateStyle::Year)
                  : msg("juxta.year", {{"year", std::to_string(static_cast<int>(entry.when.year()))}}),
            msg("juxta.who", {{"name", entry.name}, {"age", entry.age}})};
        if (entry.marks.number != 1) facts.push_back(msg("juxta.delivery", {{"number", entry.marks.number}}));
        facts.push_back(nameOf(entry.clip.view));
        if (entry.clip.captureFps > 0)
            facts.push_back(msg("juxta.rate", {{"rate", std::lround(entry.clip.captureFps)}}));
        if (row.fit && row.fit->mirrored) facts.push_back(msg("juxta.mirrored"));
        if (!row.fit) facts.push_back(msg("juxta.no-height"));
        double at = area.top() + (named && entry.baseline.size() > kShortName ? 56 : 34);
        for (const Message& fact : facts) {
            write(fact, textFont(12.5), palette::quiet, {area.left(), at, area.width(), 40},
                  Qt::AlignLeft | Qt::TextWordWrap);
            at += fact.id == "juxta.no-height" ? 36 : 18;
        }
    }

    void cell(CellKey key, const QImage& still) {
        const JuxtaRow& row = sheet_.rows[key.first];
        const JuxtaColumn& column = sheet_.columns[key.second];
        const QRectF area = layout_.cell(key.first, key.second);
        if (still.isNull()) {
            painter_.fillRect(area, palette::stage);
            return;
        }
        painter_.drawImage(area, still);
        const MarkScene scene = mirroredFor(row, sceneFor(row.entry.marks, playbook_, row.entry.results,
                                                          *column.cells[key.first].frame, focusOf(column)));
        painter_.save();
        painter_.setClipRect(area);
        paintScene(painter_, scene, juxtaView(sheet_, key, area), area, words_,
                   kMarks * std::clamp(area.height() / JuxtaLayout().cellH, kLeastMarks, 1.0));
        painter_.restore();
    }

    void emptyCell(std::size_t r, std::size_t c, const Message& why) {
        const QRectF area = layout_.cell(r, c);
        painter_.fillRect(area, palette::shade);
        write(why, textFont(13), palette::quiet, area.adjusted(16, 16, -16, -16),
              Qt::AlignCenter | Qt::TextWordWrap);
    }

    void changes() {
        const QRectF head = layout_.changesHead(sheet_);
        write(msg("juxta.changed"), headFont(17), palette::ink, {head.left(), head.top(), head.width(), 26},
              Qt::AlignLeft);
        write(msg("juxta.changed-how", {{"compared", sheet_.compared()},
                                        {"changed", sheet_.changed()},
                                        {"chance", Decimal{changedByChance(sheet_.compared()), 1}}}),
              textFont(12), palette::quiet, head.adjusted(0, 28, -8, 0), Qt::AlignLeft | Qt::TextWordWrap);
        for (std::size_t c = 0; c < sheet_.columns.size(); ++c)
            for (std::size_t i = 0; i < sheet_.columns[c].changes.size(); ++i)
                oneChange(sheet_.columns[c].changes[i], layout_.change(sheet_, c, i));
    }

private:
    void write(const Message& message, const QFont& font, const QColor& colour, const QRectF& area,
               int flags) {
        painter_.setFont(font);
        painter_.setPen(colour);
        painter_.drawText(area, flags, text(words_(message)));
    }

    /// The measure a column's pictures are about: the first that has changed, else its first.
    static std::optional<std::string> focusOf(const JuxtaColumn& column) {
        for (const JuxtaChange& c : column.changes)
            if (c.trend && isReal(*c.trend)) return c.measure;
        return column.changes.empty() ? std::nullopt : std::optional(column.changes.front().measure);
    }

    void oneChange(const JuxtaChange& change, const QRectF& area) {
        painter_.setPen(QPen(palette::rule, 1));
        painter_.drawLine(area.topLeft(), area.topRight());
        const double x = area.left(), y = area.top(), w = area.width();
        write(shortNameOf(change, playbook_), textFont(13), palette::ink, {x, y + 4, w * 0.5, 20},
              Qt::AlignLeft);
        Message verdict = change.trend ? nameOf(*change.trend) : change.notComparable;
        if (change.overruled) verdict = msg("juxta.overruled", {{"verdict", verdict}});
        const bool sure = change.trend && isReal(*change.trend);
        write(verdict, textFont(12.5, sure),
              !sure                            ? palette::quiet
              : *change.trend == Trend::Better ? palette::moss
                                               : palette::clay,
              {x + w * 0.4, y + 4, w * 0.6 - 2, 20}, Qt::AlignRight);
        painter_.setFont(textFont(13, true));
        painter_.setPen(palette::ink);
        const QString by = change.difference ? text(words_(differenceOf(change))) : QString();
        const double room = w - 12 - QFontMetricsF(textFont(12.5)).horizontalAdvance(by);
        painter_.drawText(QRectF(x, y + 23, room, 20), Qt::AlignLeft, numbersOf(change, room));
        if (change.difference)
            write(differenceOf(change), textFont(12.5), palette::quiet,
                  {x + w * 0.5, y + 23, w * 0.5 - 2, 20}, Qt::AlignRight);
    }

    /// All of up to three rows where there is room, else the two that are compared.
    QString numbersOf(const JuxtaChange& change, double room) const {
        constexpr std::size_t kAll = 3;
        const auto written = [&](const std::optional<MeasureValue>& v) {
            return text(words_(v ? labelOf(*v) : msg("juxta.none")));
        };
        const QString arrow = QString::fromUtf8(" \u2192 ");
        QStringList all;
        for (const auto& value : change.values) all << written(value);
        const QString line = all.join(arrow);
        if (change.values.size() <= kAll && QFontMetricsF(textFont(13, true)).horizontalAdvance(line) <= room)
            return line;
        return written(change.values[change.first]) + arrow + written(change.values[change.last]);
    }

    QPainter& painter_;
    const JuxtaSheet& sheet_;
    const Playbook& playbook_;
    const Words& words_;
    const JuxtaLayout& layout_;
};

/// The body in the middle, on the ground line. For rows that fit.
ViewTransform centredView(const JuxtaSheet& sheet, CellKey key, const QRectF& area) {
    const JuxtaRow& row = sheet.rows[key.first];
    const double x = sheet.columns[key.second].cells[key.first].middleX;
    const double middle = row.fit->mirrored ? row.entry.clip.width - x : x;
    ViewTransform view;
    view.scale = kBodyPart * area.height() / row.fit->heightPx;
    view.offset = {area.center().x() - middle * view.scale,
                   area.top() + kGroundPart * area.height() - row.fit->groundY * view.scale};
    return view;
}

/// How far all cells of a column move aside alike, so that less of them lies outside their films.
double columnShift(const JuxtaSheet& sheet, std::size_t column, const QRectF& area) {
    double wished = 0;
    int rows = 0;
    for (std::size_t r = 0; r < sheet.rows.size(); ++r) {
        if (!sheet.rows[r].fit || !sheet.columns[column].cells[r].frame) continue;
        const ViewTransform view = centredView(sheet, {r, column}, area);
        const double left = view.offset.x() - area.left(), // what is empty; below zero, what is cut off
            right = area.right() - view.offset.x() - sheet.rows[r].entry.clip.width * view.scale;
        if (left > 0 && right < 0) wished -= std::min(left, -right);
        if (right > 0 && left < 0) wished += std::min(right, -left);
        ++rows;
    }
    const double most = kMostAside * area.width();
    return rows == 0 ? 0 : std::clamp(wished / rows, -most, most);
}

/// Paints between stills; `stills` fills as they are read.
void paintAll(SheetPainter& paint, const JuxtaSheet& sheet, const JuxtaStills& stills, bool title) {
    if (title) paint.head();
    paint.columnHeads();
    for (std::size_t r = 0; r < sheet.rows.size(); ++r) {
        paint.rowHead(r);
        for (std::size_t c = 0; c < sheet.columns.size(); ++c) {
            const auto still = stills.find({r, c});
            if (!sheet.columns[c].cells[r].frame)
                paint.emptyCell(r, c, sheet.columns[c].cells[r].why);
            else
                paint.cell({r, c}, still == stills.end() ? QImage() : still->second);
        }
    }
    paint.changes();
}

} // namespace

QSizeF JuxtaLayout::size(const JuxtaSheet& sheet) const {
    std::size_t most = 3; // what the words beside them need
    for (const JuxtaColumn& c : sheet.columns) most = std::max(most, c.changes.size());
    const auto columns = static_cast<double>(sheet.columns.size());
    return {rowHeadW + columns * (cellW + kCellGap) + kSideMargin,
            changesHead(sheet).top() + static_cast<double>(most) * kChangeH + kBottomH};
}

QRectF JuxtaLayout::cell(std::size_t r, std::size_t c) const {
    return {rowHeadW + static_cast<double>(c) * (cellW + kCellGap),
            titleH + kColumnHead + static_cast<double>(r) * (cellH + kCellGap), cellW, cellH};
}

QRectF JuxtaLayout::rowHead(std::size_t r) const {
    return {kSideMargin, cell(r, 0).top(), rowHeadW - kSideMargin - 8, cellH};
}

QRectF JuxtaLayout::columnHead(std::size_t c) const {
    return {cell(0, c).left(), titleH, cellW, kColumnHead};
}

QRectF JuxtaLayout::changesHead(const JuxtaSheet& sheet) const {
    return {kSideMargin, cell(sheet.rows.size(), 0).top() + 8, rowHeadW - kSideMargin - 8, 3 * kChangeH};
}

QRectF JuxtaLayout::change(const JuxtaSheet& sheet, std::size_t c, std::size_t i) const {
    return {cell(0, c).left(), changesHead(sheet).top() + static_cast<double>(i) * kChangeH, cellW, kChangeH};
}

ViewTransform juxtaView(const JuxtaSheet& sheet, CellKey key, QRectF area) {
    const JuxtaRow& row = sheet.rows[key.first];
    if (!row.fit) return ViewTransform::fit(QSizeF(row.entry.clip.width, row.entry.clip.height), area);
    ViewTransform view = centredView(sheet, key, area);
    view.offset.rx() += columnShift(sheet, key.second, area);
    return view;
}

MarkScene mirroredFor(const JuxtaRow& row, MarkScene scene) {
    return row.fit && row.fit->mirrored ? mirrored(std::move(scene), row.entry.clip.width) : scene;
}

QImage juxtaStill(const JuxtaSheet& sheet, CellKey key, const Picture& picture, QSize size) {
    const JuxtaRow& row = sheet.rows[key.first];
    const std::int64_t frame = sheet.columns[key.second].cells[key.first].frame.value_or(0);
    QImage image = shownImage(picture, row.entry.marks.veils, frame,
                              QSizeF(row.entry.clip.width, row.entry.clip.height));
    if (row.fit && row.fit->mirrored) image = image.mirrored(true, false);
    const ViewTransform view = juxtaView(sheet, key, QRectF(QPointF(0, 0), QSizeF(size)));
    QImage out(size, QImage::Format_RGB32);
    out.fill(palette::stage);
    QPainter painter(&out);
    painter.setRenderHint(QPainter::SmoothPixmapTransform);
    const QRectF whole(view.toView({0, 0}),
                       QSizeF(row.entry.clip.width * view.scale, row.entry.clip.height * view.scale));
    painter.drawImage(whole, image);
    painter.end();
    if (const QRect shown = whole.toAlignedRect().intersected(out.rect()); !shown.isEmpty()) {
        QImage part = out.copy(shown);
        lightAlike(part);
        QPainter again(&out);
        again.drawImage(shown.topLeft(), part);
    }
    return out;
}

void paintJuxta(QPainter& painter, const JuxtaSheet& sheet, const JuxtaStills& stills,
                const Playbook& playbook, const Words& words, const JuxtaLayout& layout) {
    SheetPainter paint(painter, sheet, playbook, words, layout);
    paintAll(paint, sheet, stills, layout.titleH > 0);
}

Message differenceOf(const JuxtaChange& change) {
    return differenceInWords(*change.difference, change.values[change.last]->unit);
}

Message differenceInWords(const Estimate& by, const std::string& unit) {
    return msg(
        by.value < 0 ? "juxta.difference-less" : "juxta.difference-more",
        {{"number", numberInWords(std::abs(by.value), unit)}, {"error", numberInWords(by.half95(), unit)}});
}

Result<QImage> drawJuxta(const JuxtaSheet& sheet, const Playbook& playbook, const JuxtaPicture& picture,
                         const Words& words, std::stop_token stop,
                         const std::function<void(double)>& progress) {
    const JuxtaLayout layout;
    JuxtaStills stills;
    const double all = static_cast<double>(sheet.rows.size() * sheet.columns.size());
    const QSize cut = (QSizeF(layout.cellW, layout.cellH) * kSharp).toSize();
    double done = 0;
    for (std::size_t r = 0; r < sheet.rows.size(); ++r)
        for (std::size_t c = 0; c < sheet.columns.size(); ++c) {
            if (stop.stop_requested()) return fail(ErrorCode::Cancelled, msg("juxta.stopped"));
            if (const auto frame = sheet.columns[c].cells[r].frame) {
                auto shown = picture(r, *frame);
                if (!shown) return shown.error();
                stills[{r, c}] = juxtaStill(sheet, {r, c}, *shown, cut);
            }
            if (progress) progress(++done / all);
        }
    QImage out((layout.size(sheet) * kSharp).toSize(), QImage::Format_RGB32);
    out.fill(palette::paper);
    QPainter painter(&out);
    painter.scale(kSharp, kSharp);
    painter.setRenderHints(QPainter::Antialiasing | QPainter::SmoothPixmapTransform);
    paintJuxta(painter, sheet, stills, playbook, words, layout);
    return out;
}

Status writeJuxta(const QImage& sheet, const std::filesystem::path& path, FileStore& files) {
    if (path.extension() == ".pdf")
        return writePdfFile(
            {.orientation = sheet.width() > sheet.height() ? QPageLayout::Landscape : QPageLayout::Portrait},
            path, files, [&](QPdfWriter& writer, QPainter& painter) {
                const double scale = std::min(static_cast<double>(writer.width()) / sheet.width(),
                                              static_cast<double>(writer.height()) / sheet.height());
                const QSizeF size = QSizeF(sheet.size()) * scale;
                painter.drawImage(QRectF(QPointF((writer.width() - size.width()) / 2, 0), size), sheet);
            });
    if (path.extension() != ".png")
        return fail(ErrorCode::BadInput, msg("juxta.ending", {{"ending", path.extension().string()}}));
    const std::string png = encoded(sheet);
    return png.empty() ? Status(writeError(path, ENOSPC)) : files.write(path, png);
}

} // namespace jg
