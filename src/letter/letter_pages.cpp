// SPDX-License-Identifier: GPL-3.0-or-later
#include "letter/letter_pages.h"

#include "letter/fonts.h"
#include "letter/house_mark.h"
#include "letter/number_line_painter.h"
#include "letter/palette.h"
#include "letter/pdf_file.h"
#include "letter/rich_text.h"

#include <cmath>

namespace jg {

namespace {

constexpr double kPageMargin = 64;
constexpr double kTop = 56;
constexpr double kMarkHeight = 32; ///< of the mark, design pixels
constexpr double kWidth = kPageWidth - 2 * kPageMargin;

} // namespace

LetterPages::LetterPages(LetterModel model, std::map<std::string, QImage> stills, Words words, Paper paper)
    : model_(std::move(model))
    , stills_(std::move(stills))
    , words_(std::move(words))
    , paper_(paper) {
    layOut();
}

QString LetterPages::said(const Message& message) const {
    return QString::fromStdString(words_(message)).toHtmlEscaped();
}

void LetterPages::newPage() {
    pages_.emplace_back();
    y_ = kTop;
    if (pages_.size() > 1) return;
    const QImage mark = markImage(model_.mark);
    const QSizeF size = markSize(mark, kMarkHeight);
    const double beside = mark.isNull() ? 0 : size.width() + 12;
    if (!mark.isNull())
        pages_.back().push_back({Block::Kind::Image,
                                 {kPageMargin, y_ + 10 - size.height() / 2, size.width(), size.height()},
                                 {},
                                 {},
                                 mark});
    html(styled(said(asIs(model_.from)), 18, palette::ink, "Vollkorn", "600"), kPageMargin + beside,
         kWidth * 0.4 - beside);
    const double about =
        html(styled(said(model_.about), 12.5, palette::quiet, "Open Sans", "400", "text-align:right;"),
             kPageMargin + kWidth * 0.4, kWidth * 0.6);
    pages_.back().back().rect.translate(0, 4);
    y_ += std::max(30.0, about + 8);
    pages_.back().push_back({Block::Kind::Fill, {kPageMargin, y_, kWidth, 2}, {}, palette::ink, {}});
    y_ += 24;
}

double LetterPages::bottom() const {
    return size().height() - kTop;
}

void LetterPages::need(double height) {
    if (y_ + height > bottom()) newPage();
}

void LetterPages::together(const std::function<void()>& layOut) {
    const std::size_t page = pages_.size(), blocks = pages_.back().size();
    const double y = y_;
    layOut();
    const auto lowest = [&] {
        double at = 0;
        for (std::size_t i = blocks; i < pages_[page - 1].size(); ++i)
            at = std::max(at, pages_[page - 1][i].rect.bottom());
        return at;
    };
    if (pages_.size() == page && lowest() <= bottom()) return;
    if (y <= kTop) return; // it had a page of its own already
    pages_.resize(page);
    pages_.back().resize(blocks);
    newPage();
    layOut();
}

/// Places HTML at y_ without moving it; gives its height.
double LetterPages::html(const QString& text, double x, double width, double* bottom,
                         const std::string& key) {
    QTextDocument doc;
    prepare(doc, text, width);
    const double height = doc.size().height();
    pages_.back().push_back({Block::Kind::Html, {x, y_, width, height}, text, {}, {}, key});
    if (bottom) *bottom = std::max(*bottom, y_ + height);
    return height;
}

void LetterPages::heading(const Message& text, double px, const std::string& key) {
    y_ +=
        html(styled(said(text), px, palette::ink, "Vollkorn", "600"), kPageMargin, kWidth, nullptr, key) + 6;
}

void LetterPages::keeps() {
    if (model_.keeps.empty()) return;
    const double gap = 18;
    const double width = (kWidth - 2 * gap) / 3;
    need(80);
    double bottom = y_;
    for (std::size_t i = 0; i < model_.keeps.size() && i < 3; ++i) {
        const double x = kPageMargin + static_cast<double>(i) * (width + gap);
        pages_.back().push_back({Block::Kind::Fill, {x, y_, width, 3}, {}, palette::moss, {}});
        y_ += 11;
        const double head =
            html(styled(said(msg("letter.keep-heading")), 15.5, palette::moss, "Vollkorn", "600"), x, width);
        y_ += head;
        html(styled(said(model_.keeps[i]), 13, palette::ink), x, width, &bottom,
             i < model_.kept.size() ? "keep:" + model_.kept[i] : "");
        y_ -= 11 + head;
    }
    y_ = bottom + 24;
}

/// Number with its line, reason, cue and need below each other; gives their height.
double LetterPages::paragraphs(const LetterCorrection& c, double x, double width) {
    constexpr double kAfter = 8;
    const double top = y_;
    const auto paragraph = [&](const char* key, const Message& lead, const Message& body) {
        if (body.empty()) return;
        const QString head = lead.empty() ? QString() : QString("<b>%1</b> ").arg(said(lead));
        y_ += html(styled(head + said(body), 13.5, palette::ink, "Open Sans", "400", "line-height:116%;"), x,
                   width, nullptr, key + c.finding) +
              kAfter;
    };
    paragraph("number:", {}, c.number);
    if (c.line) {
        pages_.back().push_back(
            {Block::Kind::NumberLine, {x + 4, y_, width - 8, kNumberLineHeight}, {}, {}, {}, {}, c.line});
        y_ += kNumberLineHeight + kAfter;
    }
    paragraph("why:", msg("letter.why"), c.why);
    paragraph("feel:", msg("letter.feel"), c.feel);
    paragraph("size:", {}, c.size);
    paragraph("weighed:", {}, c.weighed);
    paragraph("need:", {}, c.need);
    const double height = y_ - top - kAfter;
    y_ = top;
    return std::max(0.0, height);
}

void LetterPages::correction(const LetterCorrection& c) {
    // Three corrections share the first page with what to keep.
    const double stillWidth = model_.corrections.size() > 2 ? 252 : 340;
    const auto still = stills_.find(c.finding);
    const double stillHeight =
        still == stills_.end() ? 0 : stillWidth * still->second.height() / still->second.width();
    heading(c.title, 21, "title:" + c.finding);
    y_ += 2;
    double bottom = y_;
    double x = kPageMargin, width = kWidth;
    if (stillHeight > 0) {
        pages_.back().push_back(
            {Block::Kind::Image, {kPageMargin, y_, stillWidth, stillHeight}, {}, {}, still->second});
        y_ += stillHeight + 6;
        html(styled(said(c.caption), 11.5, palette::quiet), kPageMargin, stillWidth, &bottom);
        y_ -= stillHeight + 6;
        x += stillWidth + 22;
        width -= stillWidth + 22;
    }
    bottom = std::max(bottom, y_ + paragraphs(c, x, width));
    y_ = bottom + 20;
}

/// Another day's picture and this review's beside each other, and what has changed.
void LetterPages::then(const LetterThen& t) {
    constexpr double kGap = 18;
    const double width = (kWidth - kGap) / 2;
    heading(t.title, 21);
    y_ += 2;
    double bottom = y_, x = kPageMargin;
    for (const auto& [key, caption] : {std::pair(t.thenKey(), t.then), std::pair(t.nowKey(), t.now)}) {
        const auto still = stills_.find(key);
        const double height =
            still == stills_.end() ? 0 : width * still->second.height() / still->second.width();
        if (height > 0)
            pages_.back().push_back({Block::Kind::Image, {x, y_, width, height}, {}, {}, still->second});
        y_ += height + 6;
        html(styled(said(caption), 12.5, palette::ink, "Open Sans", "600"), x, width, &bottom);
        y_ -= height + 6;
        x += width + kGap;
    }
    y_ = bottom + 8;
    for (std::size_t i = 0; i < t.changes.size(); ++i)
        y_ += html(styled(said(t.changes[i]), 13.5, palette::ink, "Open Sans", "400", "line-height:116%;"),
                   kPageMargin, kWidth, nullptr, "then:" + t.stop.value + ":" + std::to_string(i)) +
              6;
    y_ += 14;
}

/// The seven days as columns: what is done on which, and the days of rest.
void LetterPages::weekDays() {
    constexpr double kGap = 6;
    const double width = (kWidth - 6 * kGap) / 7;
    double bottom = y_ + 70;
    const double top = y_;
    const std::size_t first = pages_.back().size();
    for (int weekday = 0; weekday < 7; ++weekday) {
        const double x = kPageMargin + weekday * (width + kGap);
        const Message body = model_.bodyOn(weekday);
        QString drills;
        for (const LetterWeekRow& row : model_.week) {
            if (!row.on(weekday)) continue;
            drills += QString("<p style=\"margin:0 0 5px 0\">%1<br/><span style=\"color:%2\">%3</span></p>")
                          .arg(said(row.what), palette::quiet.name(), said(row.dose));
        }
        const bool rests = body.empty();
        y_ = top + 8;
        y_ += html(styled(said(weekdayShort(weekday)), 12.5, palette::ink, "Open Sans", "600"), x + 6,
                   width - 12);
        y_ += html(styled(said(rests ? msg("letter.rest") : body), 10.5,
                          rests ? palette::quiet : palette::moss, "Open Sans", "600"),
                   x + 6, width - 12) +
              4;
        html(styled(drills, 10.5, palette::ink), x + 6, width - 12, &bottom);
    }
    bottom += 6;
    std::vector<Block> fills;
    for (int weekday = 0; weekday < 7; ++weekday) {
        const double x = kPageMargin + weekday * (width + kGap);
        const auto busy = std::find_if(model_.week.begin(), model_.week.end(),
                                       [&](const LetterWeekRow& row) { return row.on(weekday); });
        fills.push_back({Block::Kind::Fill, {x, top, width, bottom - top}, {}, palette::sheet, {}});
        if (busy == model_.week.end()) continue;
        // The two halves of the body: a full bar and a broken one, beside the word.
        if (busy->lower)
            fills.push_back({Block::Kind::Fill, {x, top, width, 4}, {}, palette::moss, {}});
        else
            for (int part = 0; part < 3; ++part)
                fills.push_back({Block::Kind::Fill,
                                 {x + part * width / 3, top, width / 3 - 4, 4},
                                 {},
                                 palette::moss,
                                 {}});
    }
    pages_.back().insert(pages_.back().begin() + static_cast<std::ptrdiff_t>(first), fills.begin(),
                         fills.end());
    y_ = bottom + 12;
}

void LetterPages::week() {
    if (model_.week.empty()) return;
    together([&] {
        heading(msg("letter.week"), 21);
        weekDays();
    });
    for (const LetterWeekRow& r : model_.week) {
        need(40);
        const Message what = r.ball ? msg("letter.with-ball", {{"drill", r.what}}) : r.what;
        y_ += html(styled(QString("<b>%1</b> %2").arg(said(what), said(r.how)), 11.5, palette::ink),
                   kPageMargin, kWidth) +
              5;
    }
    for (const Message& note : model_.weekNotes) {
        need(34);
        y_ += html(styled(said(note), 11, palette::quiet), kPageMargin, kWidth) + 4;
    }
    y_ += 14;
}

void LetterPages::notes() {
    constexpr std::size_t kMostNotSeen = 4;
    struct Note {
        Message lead, text;
        std::string key = {};
    };
    std::vector<Message> notSeen(
        model_.notSeen.begin(),
        model_.notSeen.begin() + static_cast<std::ptrdiff_t>(std::min(kMostNotSeen, model_.notSeen.size())));
    if (model_.notSeen.size() > kMostNotSeen)
        notSeen.push_back(msg("letter.not-seen-more", {{"count", model_.notSeen.size() - kMostNotSeen}}));
    std::vector<Note> notes;
    if (!model_.nextLook.empty())
        notes.push_back({msg("letter.next-look-heading"), model_.nextLook, "next-look"});
    if (!model_.since.empty())
        notes.insert(notes.begin(), {model_.sinceHeading, joined(ListStyle::Sentences, model_.since)});
    if (!notSeen.empty())
        notes.push_back({msg("letter.not-seen-heading"), joined(ListStyle::Sentences, std::move(notSeen))});
    if (notes.empty()) return;
    const double gap = 20;
    const auto count = static_cast<double>(notes.size());
    const double width = (kWidth - (count - 1) * gap) / count;
    const std::size_t first = pages_.back().size();
    double bottom = y_;
    for (std::size_t i = 0; i < notes.size(); ++i) {
        const double x = kPageMargin + static_cast<double>(i) * (width + gap);
        y_ += 12;
        html(styled(QString("<b>%1</b> %2").arg(said(notes[i].lead), said(notes[i].text)), 12.5, palette::ink,
                    "Open Sans", "400", "line-height:114%;"),
             x + 14, width - 28, &bottom, notes[i].key);
        y_ -= 12;
    }
    const double height = bottom - y_ + 12;
    for (std::size_t i = 0; i < notes.size(); ++i)
        pages_.back().insert(pages_.back().begin() + static_cast<std::ptrdiff_t>(first),
                             Block{Block::Kind::Fill,
                                   {kPageMargin + static_cast<double>(i) * (width + gap), y_, width, height},
                                   {},
                                   palette::paper,
                                   {}});
    y_ += height + 18;
}

/// Small print on paper: what is said beside the letter itself.
void LetterPages::boxed(const Message& words, const std::string& key, const Message& lead) {
    if (words.empty()) return;
    const QString head = lead.empty() ? QString() : QString("<b>%1</b> ").arg(said(lead));
    const std::size_t at = pages_.back().size();
    y_ += 10;
    const double height =
        html(styled(head + said(words), 12, palette::ink, "Open Sans", "400", "line-height:114%;"),
             kPageMargin + 14, kWidth - 28, nullptr, key);
    pages_.back().insert(
        pages_.back().begin() + static_cast<std::ptrdiff_t>(at),
        Block{Block::Kind::Fill, {kPageMargin, y_ - 10, kWidth, height + 20}, {}, palette::paper, {}});
    y_ += height + 24;
}

/// What matters before anything else: pain, and coming back from an injury.
void LetterPages::cautions() {
    for (const Message& caution : model_.cautions) {
        const std::size_t at = pages_.back().size();
        y_ += 12;
        const double height =
            html(styled(said(caution), 13.5, palette::ink, "Open Sans", "400", "line-height:114%;"),
                 kPageMargin + 18, kWidth - 34);
        const auto behind = pages_.back().begin() + static_cast<std::ptrdiff_t>(at);
        const QRectF box(kPageMargin, y_ - 12, kWidth, height + 24),
            edge(kPageMargin, y_ - 12, 4, height + 24);
        pages_.back().insert(behind, {{Block::Kind::Fill, box, {}, palette::paper, {}},
                                      {Block::Kind::Fill, edge, {}, palette::clay, {}}});
        y_ += height + 30;
    }
}

void LetterPages::head() {
    heading(model_.greeting, 31, "greeting");
    boxed(model_.foreword, "foreword");
    const auto paragraph = [&](const Message& words, const char* key) {
        if (words.empty()) return;
        y_ += html(styled(said(words), 15, palette::ink, "Open Sans", "400", "line-height:118%;"),
                   kPageMargin, kWidth, nullptr, key) +
              20;
    };
    if (!model_.opening.empty()) paragraph(asIs(model_.opening), "opening");
    paragraph(model_.summary, "summary");
}

void LetterPages::goodbye() {
    y_ += html(styled(said(model_.closing), 13, palette::ink, "Open Sans", "400", "line-height:116%;"),
               kPageMargin, kWidth, nullptr, "closing") +
          16;
    y_ +=
        html(styled(said(asIs(model_.signature)), 18, palette::ink, "Vollkorn", "600", "font-style:italic;"),
             kPageMargin, kWidth);
}

void LetterPages::grownUps() {
    for (std::size_t i = 0; i < model_.forGrownUps.size(); ++i)
        boxed(model_.forGrownUps[i], "grown-ups:" + std::to_string(i),
              i == 0 ? msg("letter.grown-ups-heading") : Message{});
}

void LetterPages::layOut() {
    newPage();
    cautions();
    head();
    keeps();
    for (const LetterCorrection& c : model_.corrections) together([&] { correction(c); });
    for (const LetterThen& t : model_.thens) together([&] { then(t); });
    week();
    together([&] { notes(); });
    together([&] { goodbye(); });
    together([&] { grownUps(); });
}

std::vector<LetterPages::Place> LetterPages::places() const {
    std::vector<Place> all;
    for (std::size_t page = 0; page < pages_.size(); ++page)
        for (const Block& b : pages_[page])
            if (!b.key.empty()) all.push_back({b.key, static_cast<int>(page), b.rect});
    return all;
}

void LetterPages::paint(QPainter& painter, int page) const {
    painter.fillRect(QRectF(QPointF(), size()), Qt::white);
    for (const Block& b : pages_.at(static_cast<std::size_t>(page))) {
        if (b.kind == Block::Kind::Image) {
            painter.setRenderHint(QPainter::SmoothPixmapTransform);
            painter.drawImage(b.rect, b.image);
        } else if (b.kind == Block::Kind::Html) {
            QTextDocument doc;
            prepare(doc, b.html, b.rect.width());
            paintAt(painter, doc, b.rect.topLeft());
        } else if (b.kind == Block::Kind::NumberLine) {
            paintNumberLine(painter, b.rect, *b.line, words_);
        } else {
            painter.fillRect(b.rect, b.color);
        }
    }
}

Status writePdf(const LetterPages& pages, const std::string& title, const std::filesystem::path& path,
                FileStore& files) {
    return writePdfFile({.paper = pageIdOf(pages.paper()), .title = title}, path, files,
                        [&](QPdfWriter& writer, QPainter& painter) {
                            const double scale = writer.width() / kPageWidth;
                            painter.scale(scale, scale);
                            for (int i = 0; i < pages.count(); ++i) {
                                if (i > 0) writer.newPage();
                                pages.paint(painter, i);
                            }
                        });
}

} // namespace jg
