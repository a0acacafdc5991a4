#include "letter/juxta_sheet.h"

#include "base/number.h"
#include "letter/csv.h"
#include "letter/fonts.h"
#include "letter/mark_painter.h"
#include "letter/palette.h"
#include "letter/pdf_file.h"
#include "letter/qt_text.h"
#include "letter/still.h"

#include <QBuffer>

#include <algorithm>
#include <cmath>

namespace jg {

namespace {

// Design pixels.
constexpr double kRowHeadW = 176, kSideMargin = 20, kTitleH = 64, kColumnHead = 40, kCellW = 300,
                 kCellH = 226, kCellGap = 8, kChangeH = 46, kBottomH = 20;
// Of a cell's height: the body, and where the ground lies.
constexpr double kBodyPart = 0.76, kGroundPart = 0.93;

QSize sizeOf(const JuxtaSheet& sheet) {
    std::size_t most = 0;
    for (const JuxtaColumn& c : sheet.columns) most = std::max(most, c.changes.size());
    const auto rows = static_cast<double>(sheet.rows.size()),
               columns = static_cast<double>(sheet.columns.size());
    return QSize(static_cast<int>(kRowHeadW + columns * (kCellW + kCellGap) + kSideMargin),
                 static_cast<int>(kTitleH + kColumnHead + rows * (kCellH + kCellGap) +
                                  static_cast<double>(most) * kChangeH + kBottomH + 16));
}

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
    SheetPainter(QPainter& painter, const JuxtaSheet& sheet, const Playbook& playbook, const Words& words)
        : painter_(painter)
        , sheet_(sheet)
        , playbook_(playbook)
        , words_(words) {}

    void head(double width) {
        painter_.fillRect(QRectF(0, 0, width, kTitleH - 8), palette::sheet);
        painter_.setPen(QPen(palette::rule, 1));
        painter_.drawLine(QPointF(0, kTitleH - 8), QPointF(width, kTitleH - 8));
        const JuxtaEntry &first = sheet_.rows.front().entry, &last = sheet_.rows.back().entry;
        const Message title =
            first.name == last.name
                ? msg("juxta.title-one", {{"name", last.name}, {"count", sheet_.rows.size()}})
                : msg("juxta.title-two", {{"name", first.name}, {"other", last.name}});
        write(title, headFont(21), palette::ink, {kSideMargin, 0, width / 2, kTitleH - 8}, Qt::AlignVCenter);
        write(msg("juxta.how"), textFont(13), palette::quiet,
              {width / 2, 0, width / 2 - kSideMargin, kTitleH - 8}, Qt::AlignVCenter | Qt::AlignRight);
    }

    void columnHeads() {
        for (std::size_t c = 0; c < sheet_.columns.size(); ++c)
            write(info(sheet_.columns[c].moment).name(), headFont(17), palette::ink,
                  {leftOf(c), kTitleH, kCellW, kColumnHead}, Qt::AlignVCenter);
    }

    void rowHead(std::size_t r) {
        const JuxtaRow& row = sheet_.rows[r];
        const double y = topOf(r);
        const Clip& clip = row.entry.clip;
        write(msg("juxta.date", {{"date", row.entry.when}}), headFont(17), palette::ink,
              {kSideMargin, y + 4, kRowHeadW - kSideMargin - 8, 26}, Qt::AlignLeft);
        std::vector<Message> facts{asIs(row.entry.name), nameOf(clip.view)};
        if (clip.captureFps > 0) facts.push_back(msg("juxta.rate", {{"rate", std::lround(clip.captureFps)}}));
        if (row.fit && row.fit->mirrored) facts.push_back(msg("juxta.mirrored"));
        if (!row.fit) facts.push_back(msg("juxta.no-height"));
        double at = y + 34;
        for (const Message& fact : facts) {
            write(fact, textFont(12.5), palette::quiet, {kSideMargin, at, kRowHeadW - kSideMargin - 8, 40},
                  Qt::AlignLeft | Qt::TextWordWrap);
            at += fact.id == "juxta.no-height" ? 36 : 18;
        }
    }

    void cell(std::size_t r, std::size_t c, const Picture& picture) {
        const JuxtaRow& row = sheet_.rows[r];
        const JuxtaColumn& column = sheet_.columns[c];
        const JuxtaCell& cell = column.cells[r];
        const QRectF area = cellAt(r, c);
        const bool turned = row.fit && row.fit->mirrored;
        QImage image = toImage(picture);
        if (turned) image = image.mirrored(true, false);
        ViewTransform view = ViewTransform::fit(QSizeF(picture.width, picture.height), area);
        if (row.fit) {
            const double middle = turned ? picture.width - cell.middleX : cell.middleX;
            view.scale = kBodyPart * kCellH / row.fit->heightPx;
            view.offset = {area.center().x() - middle * view.scale,
                           area.top() + kGroundPart * kCellH - row.fit->groundY * view.scale};
        }
        MarkScene scene =
            sceneFor(row.entry.marks, playbook_, row.entry.results, *cell.frame, focusOf(column));
        if (turned) scene = mirrored(std::move(scene), picture.width);
        painter_.save();
        painter_.setClipRect(area);
        painter_.fillRect(area, palette::stage);
        painter_.drawImage(
            QRectF(view.toView({0, 0}), QSizeF(picture.width * view.scale, picture.height * view.scale)),
            image);
        paintScene(painter_, scene, view, area, words_, 0.8);
        painter_.restore();
    }

    void emptyCell(std::size_t r, std::size_t c, const Message& why) {
        const QRectF area = cellAt(r, c);
        painter_.fillRect(area, palette::shade);
        write(why, textFont(13), palette::quiet, area.adjusted(16, 16, -16, -16),
              Qt::AlignCenter | Qt::TextWordWrap);
    }

    void changes() {
        const double top = topOf(sheet_.rows.size()) + 8;
        write(msg("juxta.changed"), headFont(17), palette::ink,
              {kSideMargin, top, kRowHeadW - kSideMargin - 8, 26}, Qt::AlignLeft);
        write(msg("juxta.changed-how"), textFont(12), palette::quiet,
              {kSideMargin, top + 28, kRowHeadW - kSideMargin - 16, 90}, Qt::AlignLeft | Qt::TextWordWrap);
        for (std::size_t c = 0; c < sheet_.columns.size(); ++c) {
            double y = top;
            for (const JuxtaChange& change : sheet_.columns[c].changes) {
                oneChange(change, leftOf(c), y);
                y += kChangeH;
            }
        }
    }

private:
    static double leftOf(std::size_t column) {
        return kRowHeadW + static_cast<double>(column) * (kCellW + kCellGap);
    }
    static double topOf(std::size_t row) {
        return kTitleH + kColumnHead + static_cast<double>(row) * (kCellH + kCellGap);
    }
    static QRectF cellAt(std::size_t r, std::size_t c) { return {leftOf(c), topOf(r), kCellW, kCellH}; }

    void write(const Message& message, const QFont& font, const QColor& colour, const QRectF& area,
               int flags) {
        painter_.setFont(font);
        painter_.setPen(colour);
        painter_.drawText(area, flags, text(words_(message)));
    }

    /// The measure a column's pictures are about: the first that has changed, else its first.
    static std::optional<std::string> focusOf(const JuxtaColumn& column) {
        for (const JuxtaChange& c : column.changes)
            if (c.trend && *c.trend != Trend::InsideError) return c.measure;
        return column.changes.empty() ? std::nullopt : std::optional(column.changes.front().measure);
    }

    void oneChange(const JuxtaChange& change, double x, double y) {
        painter_.setPen(QPen(palette::rule, 1));
        painter_.drawLine(QPointF(x, y), QPointF(x + kCellW, y));
        const MeasureDefinition* m = playbook_.measure(change.measure);
        write(asIs(m ? m->shortName : change.measure), textFont(13), palette::ink,
              {x, y + 4, kCellW * 0.5, 20}, Qt::AlignLeft);
        const Message verdict = change.trend ? nameOf(*change.trend) : change.notComparable;
        const bool sure = change.trend && *change.trend != Trend::InsideError;
        write(verdict, textFont(12.5, sure),
              !sure                            ? palette::quiet
              : *change.trend == Trend::Better ? palette::moss
                                               : palette::clay,
              {x + kCellW * 0.4, y + 4, kCellW * 0.6 - 2, 20}, Qt::AlignRight);
        painter_.setFont(textFont(13, true));
        painter_.setPen(palette::ink);
        painter_.drawText(QRectF(x, y + 23, kCellW - 2, 20), Qt::AlignLeft, numbersOf(change));
    }

    /// All of up to three rows, else the first and the last that there are.
    QString numbersOf(const JuxtaChange& change) const {
        constexpr std::size_t kAll = 3;
        QStringList numbers;
        for (const auto& value : change.values)
            if (value || change.values.size() <= kAll)
                numbers << text(words_(value ? labelOf(*value) : msg("juxta.none")));
        if (change.values.size() > kAll) numbers = {numbers.front(), numbers.back()};
        return numbers.join(QString::fromUtf8(" \u2192 "));
    }

    QPainter& painter_;
    const JuxtaSheet& sheet_;
    const Playbook& playbook_;
    const Words& words_;
};

} // namespace

Result<QImage> paintJuxta(const JuxtaSheet& sheet, const Playbook& playbook, const JuxtaPicture& picture,
                          const Words& words, std::stop_token stop,
                          const std::function<void(double)>& progress) {
    constexpr int kSharp = 2; // pixels a design pixel
    const QSize size = sizeOf(sheet);
    QImage out(size * kSharp, QImage::Format_RGB32);
    out.fill(palette::paper);
    QPainter painter(&out);
    painter.scale(kSharp, kSharp);
    painter.setRenderHints(QPainter::Antialiasing | QPainter::SmoothPixmapTransform);
    SheetPainter paint(painter, sheet, playbook, words);
    paint.head(size.width());
    paint.columnHeads();
    const double all = static_cast<double>(sheet.rows.size() * sheet.columns.size());
    double done = 0;
    for (std::size_t r = 0; r < sheet.rows.size(); ++r) {
        paint.rowHead(r);
        for (std::size_t c = 0; c < sheet.columns.size(); ++c) {
            if (stop.stop_requested()) return fail(ErrorCode::Cancelled, msg("juxta.stopped"));
            const JuxtaCell& cell = sheet.columns[c].cells[r];
            if (!cell.frame) {
                paint.emptyCell(r, c, cell.why);
            } else {
                auto shown = picture(r, *cell.frame);
                if (!shown) return shown.error();
                paint.cell(r, c, *shown);
            }
            if (progress) progress(++done / all);
        }
    }
    paint.changes();
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
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    if (!sheet.save(&buffer, "PNG")) return writeError(path, ENOSPC);
    return files.write(path, std::string_view(bytes.constData(), static_cast<std::size_t>(bytes.size())));
}

std::string juxtaAsCsv(const JuxtaSheet& sheet, const Playbook& playbook) {
    std::string out = "position,measure,name,unit";
    for (const JuxtaRow& row : sheet.rows)
        out += "," + csvField(row.entry.name + " " + isoDate(row.entry.when)) + ",+-";
    out += ",change\r\n";
    for (const JuxtaColumn& column : sheet.columns)
        for (const JuxtaChange& change : column.changes) {
            const auto known = std::find_if(change.values.begin(), change.values.end(),
                                            [](const auto& v) { return v.has_value(); });
            out += std::string(info(column.moment).id) + "," + change.measure + "," +
                   csvField(playbook.nameOfFinding(change.measure)) + "," + (*known)->unit;
            for (const auto& v : change.values)
                out += v ? "," + fixed(*v->value, 3) + "," + fixed(v->half95(), 3) : ",,";
            out += "," + csvField(english()(change.trend ? nameOf(*change.trend) : change.notComparable)) +
                   "\r\n";
        }
    return out;
}

} // namespace jg
