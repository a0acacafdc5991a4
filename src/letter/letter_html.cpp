// SPDX-License-Identifier: GPL-3.0-or-later
#include "letter/letter_html.h"

#include "letter/encoded.h"
#include "letter/house_mark.h"
#include "letter/number_line_painter.h"
#include "letter/palette.h"
#include "letter/qt_text.h"

#include <QStringList>

namespace jg {

namespace {

constexpr int kStillWidth = 900;       ///< pixels: sharp on a phone held upright
constexpr int kStillQuality = 85;      ///< of JPEG
constexpr double kLineWidth = 320;     ///< of a number's line, in its own units
constexpr double kLineSharpness = 2.5; ///< pixels a unit

QString styleSheet() {
    QString css =
        "body{margin:0;background:%paper;color:%ink;font:17px/1.5 'Open Sans',system-ui,sans-serif}"
        "main{max-width:40rem;margin:0 auto;padding:1.2rem;background:#fff}"
        "header{display:flex;flex-wrap:wrap;justify-content:space-between;gap:.2rem 1rem;"
        "border-bottom:2px solid %ink;padding-bottom:.4rem;color:%quiet;font-size:.85rem}"
        "header b{color:%ink}.mark{display:inline-block;width:auto;max-width:8.8rem;height:2.2rem;"
        "vertical-align:middle;margin-right:.6rem}"
        "h1,h2{font-family:Vollkorn,Georgia,serif;line-height:1.2;margin:1.4rem 0 .5rem}"
        "h1{font-size:1.9rem}h2{font-size:1.4rem}h3{font-size:1rem;margin:.2rem 0}"
        "p{margin:.5rem 0}img{display:block;width:100%;height:auto}"
        "figure{margin:.6rem 0}figcaption{color:%quiet;font-size:.85rem}"
        ".caution{border-left:.3rem solid %clay;background:%paper;padding:.7rem 1rem;margin:1rem 0}"
        ".keep{border-top:.2rem solid %moss;padding-top:.3rem;margin:.8rem 0}"
        ".line{max-width:22rem}"
        "ol.days{list-style:none;margin:0;padding:0}"
        "ol.days li{background:%sheet;border-left:.3rem solid %moss;padding:.5rem .8rem;margin:.4rem 0}"
        "ol.days li.rest{border-color:%rule;color:%quiet}"
        "label{display:block;padding:.25rem 0}input{width:1.1rem;height:1.1rem;margin-right:.5rem}"
        ".small{color:%quiet;font-size:.85rem}"
        "@media print{body{background:#fff;font-size:12px}main{max-width:none;padding:0}"
        "article,li,figure{break-inside:avoid}figure{max-width:20rem}}";
    const std::pair<const char*, QColor> colours[] = {{"%paper", palette::paper}, {"%ink", palette::ink},
                                                      {"%quiet", palette::quiet}, {"%clay", palette::clay},
                                                      {"%moss", palette::moss},   {"%sheet", palette::sheet},
                                                      {"%rule", palette::rule}};
    for (const auto& [name, colour] : colours) css.replace(name, colour.name());
    return css;
}

QString embedded(const QImage& image, const char* format, int quality) {
    return QString::fromStdString(dataUri(image, format, quality));
}

/// Writes the letter from top to bottom.
class HtmlLetter {
public:
    HtmlLetter(const LetterModel& letter, const std::map<std::string, QImage>& stills, const Words& words)
        : m_(letter)
        , stills_(stills)
        , words_(words) {}

    QString write() {
        head();
        for (const Message& caution : m_.cautions)
            add("<p class=\"caution\" role=\"note\">", caution, "</p>");
        add("<h1>", m_.greeting, "</h1>");
        add("<p class=\"small\">", m_.foreword, "</p>");
        add("<p>", asIs(m_.opening), "</p>");
        add("<p>", m_.summary, "</p>");
        since();
        for (const Message& keep : m_.keeps) {
            out_ += "<section class=\"keep\">";
            add("<h2>", msg("letter.keep-heading"), "</h2>");
            add("<p>", keep, "</p>");
            out_ += "</section>\n";
        }
        for (const LetterCorrection& c : m_.corrections) correction(c);
        for (const LetterThen& t : m_.thens) then(t);
        week();
        notes();
        add("<p>", m_.closing, "</p>");
        add("<p><em>", asIs(m_.signature), "</em></p>");
        grownUps();
        return out_ + "</main></body></html>\n";
    }

private:
    QString said(const Message& message) const { return text(words_(message)).toHtmlEscaped(); }

    void add(const char* before, const Message& message, const char* after) {
        if (!message.empty()) out_ += before + said(message) + after + "\n";
    }

    void head() {
        out_ = QString("<!doctype html>\n<html lang=\"%1\"><head><meta charset=\"utf-8\">" +
                       QString(kNothingFetched) +
                       "<meta name=\"viewport\" content=\"width=device-width,initial-scale=1\">"
                       "<title>%2</title><style>%3</style></head><body><main>\n<header><b>%6%4</b>"
                       "<span>%5</span></header>\n")
                   .arg(text(words_.tag()), said(m_.greeting), styleSheet(), said(asIs(m_.from)),
                        said(m_.about), mark());
    }

    QString mark() const {
        const QImage picture = markImage(m_.mark);
        if (picture.isNull()) return {};
        return QString("<img class=\"mark\" alt=\"%1\" src=\"%2\">")
            .arg(said(asIs(m_.from)), embedded(picture, "PNG", -1));
    }

    void grownUps() {
        if (m_.forGrownUps.empty()) return;
        add("<h2>", msg("letter.grown-ups-heading"), "</h2>");
        for (const Message& sentence : m_.forGrownUps) add("<p class=\"small\">", sentence, "</p>");
    }

    void since() {
        if (m_.since.empty()) return;
        add("<h2>", m_.sinceHeading, "</h2>");
        for (const Message& sentence : m_.since) add("<p>", sentence, "</p>");
    }

    void correction(const LetterCorrection& c) {
        out_ += "<article>";
        add("<h2>", c.title, "</h2>");
        figure(c.finding, c.title, c.caption);
        add("<p>", c.number, "</p>");
        if (c.line)
            out_ +=
                QString("<img class=\"line\" alt=\"%1\" src=\"%2\">\n")
                    .arg(said(numberLineInWords(*c.line)),
                         embedded(numberLineImage(*c.line, words_, kLineWidth, kLineSharpness), "PNG", -1));
        lead(msg("letter.why"), c.why);
        lead(msg("letter.feel"), c.feel);
        add("<p>", c.size, "</p>");
        add("<p>", c.weighed, "</p>");
        add("<p>", c.need, "</p>");
        out_ += "</article>\n";
    }

    void then(const LetterThen& t) {
        out_ += "<article>";
        add("<h2>", t.title, "</h2>");
        figure(t.thenKey(), t.title, t.then);
        figure(t.nowKey(), t.title, t.now);
        for (const Message& change : t.changes) add("<p>", change, "</p>");
        out_ += "</article>\n";
    }

    void figure(const std::string& key, const Message& title, const Message& caption) {
        const auto still = stills_.find(key);
        if (still == stills_.end()) return;
        const QImage small = still->second.width() > kStillWidth
                                 ? still->second.scaledToWidth(kStillWidth, Qt::SmoothTransformation)
                                 : still->second;
        const Message alt = joined(ListStyle::Sentences, {title, caption});
        out_ += QString("<figure><img alt=\"%1\" width=\"%2\" height=\"%3\" src=\"%4\"><figcaption>%5"
                        "</figcaption></figure>\n")
                    .arg(said(alt))
                    .arg(small.width())
                    .arg(small.height())
                    .arg(embedded(small, "JPEG", kStillQuality), said(caption));
    }

    void lead(const Message& lead, const Message& body) {
        if (!body.empty()) out_ += "<p><b>" + said(lead) + "</b> " + said(body) + "</p>\n";
    }

    void week() {
        if (m_.week.empty()) return;
        add("<h2>", msg("letter.week"), "</h2>");
        out_ += "<ol class=\"days\">\n";
        for (int weekday = 0; weekday < 7; ++weekday) {
            const Message body = m_.bodyOn(weekday);
            const QString name = said(weekdayShort(weekday));
            if (body.empty()) {
                out_ += "<li class=\"rest\"><h3>" + name + " · " + said(msg("letter.rest")) + "</h3></li>\n";
                continue;
            }
            out_ += "<li><h3>" + name + " · " + said(body) + "</h3>";
            for (const LetterWeekRow& row : m_.week)
                if (row.on(weekday))
                    out_ += "<label><input type=\"checkbox\">" + said(row.what) + " <span class=\"small\">" +
                            said(row.dose) + "</span></label>";
            out_ += "</li>\n";
        }
        out_ += "</ol>\n";
        for (const LetterWeekRow& row : m_.week) {
            const Message what = row.ball ? msg("letter.with-ball", {{"drill", row.what}}) : row.what;
            out_ += "<p><b>" + said(what) + "</b> " + said(row.how) + "</p>\n";
        }
        for (const Message& note : m_.weekNotes) add("<p class=\"small\">", note, "</p>");
    }

    void notes() {
        lead(msg("letter.next-look-heading"), m_.nextLook);
        if (m_.notSeen.empty()) return;
        add("<h2>", msg("letter.not-seen-heading"), "</h2>");
        for (const Message& sentence : m_.notSeen) add("<p class=\"small\">", sentence, "</p>");
    }

    const LetterModel& m_;
    const std::map<std::string, QImage>& stills_;
    const Words& words_;
    QString out_;
};

} // namespace

std::string letterAsHtml(const LetterModel& letter, const std::map<std::string, QImage>& stills,
                         const Words& words) {
    return HtmlLetter(letter, stills, words).write().toStdString();
}

std::string mailAsHtml(const std::string& plain, const std::string& language) {
    QString out =
        QString("<!doctype html><html lang=\"%1\"><head><meta charset=\"utf-8\">" + QString(kNothingFetched) +
                "</head><body style=\"font-family:sans-serif;font-size:16px;"
                "line-height:1.5;color:%2;max-width:36em\">")
            .arg(text(language), palette::ink.name());
    for (const QString& paragraph : text(plain).trimmed().split("\n\n", Qt::SkipEmptyParts)) {
        const QStringList rows = paragraph.split('\n', Qt::SkipEmptyParts);
        const bool list = !rows.empty() && rows.back().startsWith("- ");
        QString open, items;
        for (const QString& row : rows) {
            if (list && row.startsWith("- "))
                items += "<li>" + row.mid(2).toHtmlEscaped() + "</li>";
            else
                open += (open.isEmpty() ? "" : "<br>") + row.toHtmlEscaped();
        }
        if (!open.isEmpty()) out += "<p>" + open + "</p>";
        if (list) out += "<ul>" + items + "</ul>";
    }
    return (out + "</body></html>\n").toStdString();
}

} // namespace jg
