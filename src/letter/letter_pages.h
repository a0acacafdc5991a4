// SPDX-License-Identifier: GPL-3.0-or-later
// The letter as pages: the same painting for the preview and the PDF.
#pragma once

#include "base/file_store.h"
#include "letter/paper.h"
#include "review/tell/letter_model.h"
#include "words/words.h"

#include <QImage>
#include <QPainter>

#include <functional>
#include <map>
#include <optional>
#include <string>
#include <vector>

namespace jg {

/// Lays a letter out on pages and paints them. Needs loadFonts(). One thread owns it.
class LetterPages {
public:
    /// `stills` by finding id, those of a LetterThen by its own keys; `words` are the reader's
    /// language.
    LetterPages(LetterModel model, std::map<std::string, QImage> stills, Words words,
                Paper paper = Paper::A4);

    Paper paper() const { return paper_; }
    /// Of a page, in design pixels.
    QSizeF size() const { return pageSizeOf(paper_); }

    int count() const { return static_cast<int>(pages_.size()); }
    /// Paints a page in design pixels onto the painter's current coordinates.
    void paint(QPainter& painter, int page) const;

    /// One thing on a page, placed.
    struct Block {
        enum class Kind { Html, Fill, Image, NumberLine } kind = Kind::Html;
        QRectF rect;
        QString html;
        QColor color;
        QImage image;
        std::string key = {}; ///< of the sentence it is; empty = none that may be changed
        std::optional<NumberLine> line = {};
    };

    /// Where a sentence stands that may be changed.
    struct Place {
        std::string key; ///< LetterSentence::key
        int page = 0;
        QRectF rect;
    };
    std::vector<Place> places() const;
    /// What stands on a page, as it is placed.
    const std::vector<Block>& blocks(int page) const { return pages_.at(static_cast<std::size_t>(page)); }
    const LetterModel& model() const { return model_; }
    const Words& words() const { return words_; }

private:
    void layOut();
    void newPage();
    void need(double height);
    /// Lays something out on one page: on the next when this one has too little room left.
    void together(const std::function<void()>& layOut);
    double bottom() const;
    double html(const QString& html, double x, double width, double* bottom = nullptr,
                const std::string& key = {});
    void heading(const Message& text, double px, const std::string& key = {});
    double paragraphs(const LetterCorrection& c, double x, double width);
    QString said(const Message& message) const; ///< escaped
    void keeps();
    void correction(const LetterCorrection& c);
    void then(const LetterThen& t);
    void head();
    void boxed(const Message& words, const std::string& key, const Message& lead = {});
    void cautions();
    void goodbye();
    void grownUps();
    void week();
    void weekDays();
    void notes();

    LetterModel model_;
    std::map<std::string, QImage> stills_;
    Words words_;
    Paper paper_;
    std::vector<std::vector<Block>> pages_;
    double y_ = 0;
};

/// Writes the letter as PDF (on its paper, embedded fonts, selectable text), whole or not at all. Errors:
/// DiskFull, WriteFailed.
Status writePdf(const LetterPages& pages, const std::string& title, const std::filesystem::path& path,
                FileStore& files);

} // namespace jg
