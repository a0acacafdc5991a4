// SPDX-License-Identifier: GPL-3.0-or-later
#include "letter/week_sheet.h"

#include "letter/palette.h"
#include "letter/pdf_file.h"
#include "letter/rich_text.h"

#include <algorithm>
#include <cmath>

namespace jg {

namespace {

constexpr double kMargin = 36;
constexpr double kGap = 8;

/// Lays the sheet out from the top; with no painter it only measures.
class Sheet {
public:
    Sheet(QPainter* painter, double width, const LetterModel& letter, const std::string& athlete,
          const Words& words)
        : painter_(painter)
        , width_(width)
        , letter_(letter)
        , athlete_(athlete)
        , words_(words) {}

    /// Gives the height.
    double layOut() {
        head();
        days();
        hows();
        return y_;
    }

private:
    QString said(const Message& message) const {
        return QString::fromStdString(words_(message)).toHtmlEscaped();
    }

    double block(const QString& html, double x, double y, double width) {
        QTextDocument doc;
        prepare(doc, html, width);
        if (painter_) paintAt(*painter_, doc, {x, y});
        return doc.size().height();
    }

    void line(const QString& html, double after) { y_ += block(html, 0, y_, width_) + after; }

    void head() {
        line(styled(said(msg("sheet.title", {{"name", athlete_}})), 24, palette::ink, "Vollkorn", "600"), 2);
        const Message from = msg("sheet.from", {{"date", letter_.writtenOn}});
        const Message until =
            letter_.nextLookOn ? msg("sheet.until", {{"date", *letter_.nextLookOn}}) : Message{};
        line(
            styled(said(joined(ListStyle::Dots, {from, until, asIs(letter_.signature)})), 12, palette::quiet),
            8);
        for (const Message& caution : letter_.cautions)
            line(styled(said(caution), 12.5, palette::ink, "Open Sans", "600"), 6);
    }

    /// One box for each week until the next look.
    double boxes(double x, double y, double width) {
        constexpr double kBox = 11;
        double at = x, down = y;
        for (int week = 0; week < weeksOf(letter_); ++week) {
            if (at + kBox > x + width) at = x, down += kBox + 4;
            if (painter_) {
                painter_->setPen(QPen(palette::ink, 1));
                painter_->setBrush(Qt::white);
                painter_->drawRect(QRectF(at, down, kBox, kBox));
            }
            at += kBox + 5;
        }
        return down + kBox - y;
    }

    void days() {
        const double width = (width_ - 6 * kGap) / 7;
        double bottom = y_ + 90;
        for (int weekday = 0; weekday < 7; ++weekday)
            bottom = std::max(bottom, column(weekday, weekday * (width + kGap), width));
        if (painter_) {
            painter_->setBrush(Qt::NoBrush);
            painter_->setPen(QPen(palette::rule, 1));
            for (int weekday = 0; weekday < 7; ++weekday)
                painter_->drawRect(QRectF(weekday * (width + kGap), y_, width, bottom - y_));
        }
        y_ = bottom + 12;
    }

    double column(int weekday, double x, double width) {
        double y = y_ + 6;
        const double inner = width - 12;
        y +=
            block(styled(said(weekdayShort(weekday)), 14, palette::ink, "Open Sans", "600"), x + 6, y, inner);
        Message body = letter_.bodyOn(weekday);
        if (body.empty()) body = msg("letter.rest");
        y += block(styled(said(body), 11, palette::moss, "Open Sans", "600"), x + 6, y, inner) + 5;
        for (const LetterWeekRow& row : letter_.week) {
            if (!row.on(weekday)) continue;
            y += block(styled(said(row.what), 11.5, palette::ink), x + 6, y, inner);
            y += block(styled(said(row.dose), 10.5, palette::quiet), x + 6, y, inner) + 3;
            y += boxes(x + 6, y, inner) + 9;
        }
        return y;
    }

    void hows() {
        for (const LetterWeekRow& row : letter_.week)
            line(styled(QString("<b>%1</b> %2").arg(said(row.what), said(row.how)), 11.5, palette::ink), 4);
        for (const Message& note : letter_.weekNotes) line(styled(said(note), 10.5, palette::quiet), 3);
        line(styled(said(msg("sheet.stop")), 10.5, palette::quiet), 0);
    }

    QPainter* painter_;
    double width_;
    const LetterModel& letter_;
    const std::string& athlete_;
    const Words& words_;
    double y_ = 0;
};

} // namespace

int weeksOf(const LetterModel& letter) {
    if (!letter.nextLookOn) return 4;
    return std::clamp((daysBetween(letter.writtenOn, *letter.nextLookOn) + 6) / 7, 1, 6);
}

void paintWeekSheet(QPainter& painter, QSizeF page, const LetterModel& letter, const std::string& athlete,
                    const Words& words) {
    const double width = page.width() - 2 * kMargin, height = page.height() - 2 * kMargin;
    double scale = 1.3; // a short week is printed large
    // Smaller letters take fewer lines, so a few rounds find the size.
    while (scale > 0.3 && Sheet(nullptr, width / scale, letter, athlete, words).layOut() * scale > height)
        scale *= 0.95;
    painter.save();
    painter.translate(kMargin, kMargin);
    painter.scale(scale, scale);
    painter.setRenderHint(QPainter::Antialiasing);
    Sheet(&painter, width / scale, letter, athlete, words).layOut();
    painter.restore();
}

Status writeWeekSheet(const LetterModel& letter, const std::string& athlete, Paper paper, const Words& words,
                      const std::filesystem::path& path, FileStore& files) {
    if (letter.week.empty()) return fail(ErrorCode::Refused, msg("sheet.no-drills"));
    const PdfLook look{pageIdOf(paper), QPageLayout::Landscape,
                       words(msg("sheet.title", {{"name", athlete}}))};
    return writePdfFile(look, path, files, [&](QPdfWriter& writer, QPainter& painter) {
        const double scale = 288.0 / 96;
        painter.scale(scale, scale);
        paintWeekSheet(painter, QSizeF(writer.width() / scale, writer.height() / scale), letter, athlete,
                       words);
    });
}

} // namespace jg
