// SPDX-License-Identifier: GPL-3.0-or-later
#include "letter/season_page.h"

#include "letter/fonts.h"
#include "letter/palette.h"
#include "letter/pdf_file.h"
#include "letter/qt_text.h"
#include "letter/rich_text.h"

#include <algorithm>

namespace jg {

namespace {

constexpr double kSeasonSide = 56, kSeasonTop = 50;
constexpr double kSeasonWidth = kPageWidth - 2 * kSeasonSide;
constexpr double kNameW = 252;  ///< of the names at the left
constexpr double kWordsW = 200; ///< of the words at the right
constexpr double kFindingH = 24, kMeasureH = 44;

/// Lays the parts out below each other, page by page.
class SeasonPainter {
public:
    SeasonPainter(const SeasonPage& page, Paper paper, const Words& words, QPdfWriter& writer, QPainter& p)
        : page_(page)
        , height_(pageSizeOf(paper).height())
        , words_(words)
        , writer_(writer)
        , p_(p) {}

    void paint() {
        head();
        findings();
        measures();
        lines(msg("season.letters"), letterLines());
        lines(msg("season.outings"), page_.outings);
    }

private:
    QString said(const Message& message) const { return text(words_(message)); }

    /// Begins a page when less than `height` is left.
    void need(double height) {
        if (y_ + height <= height_ - kSeasonTop) return;
        writer_.newPage();
        y_ = kSeasonTop;
    }

    void write(const QRectF& box, const QString& words, const QFont& font, const QColor& colour,
               Qt::Alignment align = Qt::AlignLeft | Qt::AlignVCenter) {
        p_.setFont(font);
        p_.setPen(colour);
        p_.drawText(box, static_cast<int>(align),
                    QFontMetricsF(font).elidedText(words, Qt::ElideRight, box.width()));
    }

    void rule(double y) {
        p_.setPen(QPen(palette::rule, 1));
        p_.drawLine(QPointF(kSeasonSide, y), QPointF(kSeasonSide + kSeasonWidth, y));
    }

    void head() {
        write({kSeasonSide, y_, kSeasonWidth, 40}, said(msg("season.title", {{"name", page_.name}})),
              headFont(28), palette::ink);
        y_ += 42;
        const Message span = page_.from == page_.to
                                 ? day(page_.to, DateStyle::Year)
                                 : msg("season.span", {{"from", WrittenDate{page_.from, DateStyle::Year}},
                                                       {"to", WrittenDate{page_.to, DateStyle::Year}}});
        write({kSeasonSide, y_, kSeasonWidth, 20}, said(joined(ListStyle::Dots, {span, page_.facts})),
              textFont(12.5), palette::quiet);
        y_ += 30;
    }

    void heading(const Message& words, double with) {
        need(34 + with);
        write({kSeasonSide, y_, kSeasonWidth, 28}, said(words), headFont(19), palette::ink);
        y_ += 32;
        rule(y_);
    }

    double xOf(Date when) const {
        const double left = kSeasonSide + kNameW + 20, right = kSeasonSide + kSeasonWidth - 24;
        return left + placeOnAxis(page_.from, page_.to, when) * (right - left);
    }

    void findings() {
        if (page_.findings.empty()) return;
        heading(msg("season.findings"), 3 * kFindingH);
        dates();
        for (const auto& [name, line] : page_.findings) {
            need(kFindingH);
            write({kSeasonSide, y_, kNameW, kFindingH}, text(name), textFont(12.5, line.workedOn),
                  palette::ink);
            p_.setRenderHint(QPainter::Antialiasing);
            for (const LogDot& dot : line.dots) paintFate(p_, dot.fate, {xOf(dot.when), y_ + kFindingH / 2});
            y_ += kFindingH;
            rule(y_);
        }
        legend();
        y_ += 22;
    }

    void dates() {
        double lastRight = -100;
        for (const LogDot& dot : page_.findings.front().second.dots) {
            const QString date = said(day(dot.when));
            const double w = QFontMetricsF(textFont(11)).horizontalAdvance(date),
                         x = std::min(xOf(dot.when) - w / 2, kSeasonSide + kSeasonWidth - w);
            if (x < lastRight + 8) continue;
            lastRight = x + w;
            write({x, y_, w + 2, 20}, date, textFont(11), palette::quiet);
        }
        y_ += 22;
    }

    void legend() {
        double x = kSeasonSide + 10;
        need(26);
        y_ += 4;
        for (const Fate fate : {Fate::Found, Fate::WorkedOn, Fate::Good, Fate::Kept, Fate::CameBack,
                                Fate::CantTell, Fate::Open}) {
            const QString words = said(nameOf(fate));
            const double w = QFontMetricsF(textFont(10.5)).horizontalAdvance(words);
            paintFate(p_, fate, {x, y_ + 11});
            write({x + 13, y_, w + 2, 22}, words, textFont(10.5), palette::quiet);
            x += 42 + w;
        }
        y_ += 22;
    }

    void measures() {
        if (page_.measures.empty()) return;
        heading(msg("season.measures"), 2 * kMeasureH);
        for (const SeasonMeasure& m : page_.measures) {
            need(kMeasureH);
            const MeasureLine& line = m.picture.line;
            write({kSeasonSide, y_ + 4, kNameW, 20}, text(m.name), textFont(12.5), palette::ink);
            write({kSeasonSide, y_ + 22, kNameW, 18}, said(wordsOf(line.target)), textFont(11),
                  palette::quiet);
            paintTrend(
                p_, {kSeasonSide + kNameW + 10, y_ + 5, kSeasonWidth - kNameW - kWordsW - 20, kMeasureH - 11},
                m.picture);
            const double x = kSeasonSide + kSeasonWidth - kWordsW;
            const auto right = Qt::AlignRight | Qt::AlignVCenter;
            const bool worse = line.trend == Trend::Worse, better = line.trend == Trend::Better;
            write({x, y_ + 4, kWordsW, 20}, said(changeInWords(line)), textFont(12.5, true), palette::ink,
                  right);
            write({x, y_ + 22, kWordsW, 18}, said(trendInWords(line, m.sureSince)),
                  textFont(11, worse || better),
                  worse    ? palette::clay
                  : better ? palette::moss
                           : palette::quiet,
                  right);
            y_ += kMeasureH;
            rule(y_);
        }
        y_ += 22;
    }

    std::vector<Message> letterLines() const {
        std::vector<Message> all;
        for (const SeasonLetter& l : page_.letters) all.push_back(l.words);
        return all;
    }

    void lines(const Message& title, const std::vector<Message>& all) {
        if (all.empty()) return;
        heading(title, 40);
        y_ += 6;
        for (const Message& line : all) {
            QTextDocument doc;
            prepare(doc, styled(said(line).toHtmlEscaped(), 12.5, palette::ink), kSeasonWidth);
            need(doc.size().height());
            paintAt(p_, doc, {kSeasonSide, y_});
            y_ += doc.size().height() + 5;
        }
        y_ += 16;
    }

    const SeasonPage& page_;
    double height_;
    const Words& words_;
    QPdfWriter& writer_;
    QPainter& p_;
    double y_ = kSeasonTop;
};

} // namespace

Status writeSeasonPage(const SeasonPage& page, Paper paper, const Words& words,
                       const std::filesystem::path& path, FileStore& files) {
    if (page.findings.empty() && page.measures.empty())
        return fail(ErrorCode::Refused, msg("season.nothing-yet", {{"name", page.name}}));
    return writePdfFile(
        {.paper = pageIdOf(paper), .title = words(msg("season.title", {{"name", page.name}}))}, path, files,
        [&](QPdfWriter& writer, QPainter& painter) {
            const double scale = writer.width() / kPageWidth;
            painter.scale(scale, scale);
            SeasonPainter(page, paper, words, writer, painter).paint();
        });
}

} // namespace jg
