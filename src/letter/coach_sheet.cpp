// SPDX-License-Identifier: GPL-3.0-or-later
#include "letter/coach_sheet.h"

#include "letter/palette.h"
#include "letter/pdf_file.h"
#include "letter/qt_text.h"
#include "letter/rich_text.h"
#include "review/assess/number_words.h"
#include "review/assess/reasons.h"
#include "review/tell/letter_model.h"

#include <QPainter>

#include <array>

namespace jg {

namespace {

constexpr double kMargin = 40, kGap = 10, kAfterRow = 5;
/// Shares of the width: what, number, wanted, what follows, what is to be minded.
constexpr std::array<double, 5> kColumns = {0.23, 0.12, 0.15, 0.23, 0.27};

/// Paints rows below each other and begins pages as it goes.
class Rows {
public:
    Rows(QPdfWriter& writer, QPainter& painter, QSizeF page, const Words& words)
        : writer_(writer)
        , painter_(painter)
        , page_(page)
        , words_(words) {}

    void title(const Message& text) { whole(styled(said(text), 22, palette::ink, "Vollkorn", "600"), 10); }
    void heading(const Message& text) { whole(styled(said(text), 14, palette::ink, "Vollkorn", "600"), 6); }

    void row(const std::array<Message, 5>& cells, bool head = false) {
        std::array<QTextDocument, 5> documents;
        double height = 0;
        for (std::size_t i = 0; i < cells.size(); ++i) {
            prepare(documents[i],
                    styled(said(cells[i]), 8.5, head ? palette::quiet : palette::ink, "Open Sans",
                           head || i == 0 ? "600" : "400"),
                    kColumns[i] * width() - kGap);
            height = std::max(height, documents[i].size().height());
        }
        need(height);
        double x = kMargin;
        for (std::size_t i = 0; i < cells.size(); ++i) {
            paintAt(painter_, documents[i], {x, y_});
            x += kColumns[i] * width();
        }
        y_ += height + kAfterRow;
        painter_.fillRect(QRectF(kMargin, y_ - kAfterRow / 2, width(), 0.5), palette::rule);
    }

private:
    double width() const { return page_.width() - 2 * kMargin; }
    QString said(const Message& message) const { return text(words_(message)).toHtmlEscaped(); }

    void need(double height) {
        if (y_ + height <= page_.height() - kMargin) return;
        writer_.newPage();
        y_ = kMargin;
    }

    void whole(const QString& html, double after) {
        QTextDocument document;
        prepare(document, html, width());
        need(document.size().height() + 40); // a heading never stands alone
        paintAt(painter_, document, {kMargin, y_});
        y_ += document.size().height() + after;
    }

    QPdfWriter& writer_;
    QPainter& painter_;
    QSizeF page_;
    const Words& words_;
    double y_ = kMargin;
};

void addMeasures(const CoachSheet& sheet, Rows& rows) {
    rows.row({msg("coach-sheet.measure"), msg("coach-sheet.number"), msg("coach-sheet.wanted"),
              msg("coach-sheet.follows"), msg("coach-sheet.mind")},
             true);
    for (const MeasureRow& m : sheet.told.measures) {
        std::vector<Message> mind = m.value.warnings;
        if (m.value.reason != m.judgement.text) mind.push_back(m.value.reason);
        if (const auto tried = sheet.tried.find(m.id); tried != sheet.tried.end())
            mind.push_back(tried->second);
        rows.row({asIs(sheet.playbook.nameOfFinding(m.id)),
                  m.value.value ? labelOf(m.value) : asIs(m.value.seen), wordsOf(m.target), m.judgement.text,
                  joined(ListStyle::Sentences, std::move(mind))});
    }
}

/// The items part by part, each part with its own count.
void addItems(const CoachSheet& sheet, Rows& rows) {
    std::vector<CardRow> items;
    std::copy_if(sheet.card.begin(), sheet.card.end(), std::back_inserter(items),
                 [](const CardRow& row) { return !row.isMeasure; });
    const std::vector<CardPartCount> parts = partsOf(items);
    auto part = parts.begin();
    for (std::size_t i = 0; i < items.size(); ++i) {
        if (part != parts.end() && part->first == i) {
            rows.heading(msg("coach-sheet.items",
                             {{"part", part->name}, {"looked", part->looked}, {"all", part->all}}));
            ++part;
        }
        const std::optional<Grade>& grade = items[i].grade;
        rows.row(
            {asIs(sheet.playbook.nameOfFinding(items[i].id)),
             grade && grade->state == GradeState::Graded ? msg("coach-sheet.of-five", {{"step", grade->step}})
                                                         : Message{},
             Message{}, grade ? reasonInWords(grade->reason) : msg("coach-sheet.not-looked"), Message{}});
    }
}

/// Every cause with its owner, and what was found of it.
void addWeighing(const CoachSheet& sheet, Rows& rows) {
    if (sheet.weighed.empty()) return;
    rows.heading(msg("coach-sheet.weighed"));
    for (const Weighed& w : sheet.weighed)
        for (const auto* list : {&w.likely, &w.ruledOut, &w.open})
            for (const Hypothesis& h : *list)
                rows.row({asIs(sheet.playbook.nameOfFinding(w.sign)), h.standing, asIs(h.says),
                          asIs(sheet.playbook.nameOfFinding(h.cause)),
                          joined(ListStyle::Sentences, {asIs(h.why), h.tells})});
}

} // namespace

Status writeCoachSheet(const CoachSheet& sheet, Paper paper, const Words& words,
                       const std::filesystem::path& path, FileStore& files) {
    const Message title = msg("coach-sheet.title", {{"name", sheet.athlete}, {"date", sheet.when}});
    const PdfLook look{pageIdOf(paper), QPageLayout::Portrait, words(title)};
    return writePdfFile(look, path, files, [&](QPdfWriter& writer, QPainter& painter) {
        const double scale = writer.width() / kPageWidth;
        painter.scale(scale, scale);
        Rows rows(writer, painter, pageSizeOf(paper), words);
        rows.title(title);
        addMeasures(sheet, rows);
        addItems(sheet, rows);
        addWeighing(sheet, rows);
    });
}

} // namespace jg
