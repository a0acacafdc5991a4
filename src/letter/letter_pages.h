// The letter as pages: the same painting for the preview and the PDF.
#pragma once

#include "base/file_store.h"
#include "review/letter_model.h"
#include "words/words.h"

#include <QImage>
#include <QPainter>

#include <map>
#include <string>
#include <vector>

namespace jg {

/// Page size in design pixels (A4, 800 wide).
inline constexpr double kPageWidth = 800;
inline constexpr double kPageHeight = 1131;

/// Lays a letter out on pages and paints them. Needs loadFonts(). One thread owns it.
class LetterPages {
public:
    /// `stills` by finding id; `words` are the reader's language.
    LetterPages(LetterModel model, std::map<std::string, QImage> stills, Words words);

    int count() const { return static_cast<int>(pages_.size()); }
    /// Paints a page in design pixels onto the painter's current coordinates.
    void paint(QPainter& painter, int page) const;

    /// One thing on a page, placed.
    struct Block {
        enum class Kind { Html, Rule, Fill, Image } kind = Kind::Html;
        QRectF rect;
        QString html;
        QColor color;
        QImage image;
    };

private:
    void layOut();
    void newPage();
    void need(double height);
    double html(const QString& html, double x, double width, double* bottom = nullptr);
    void heading(const Message& text, double px);
    QString said(const Message& message) const; ///< escaped
    void keeps();
    void correction(const LetterCorrection& c);
    void week();
    void weekDays();
    void notes();

    LetterModel model_;
    std::map<std::string, QImage> stills_;
    Words words_;
    std::vector<std::vector<Block>> pages_;
    double y_ = 0;
};

/// Writes the letter as PDF (A4, embedded fonts, selectable text), whole or not at all. Errors: DiskFull,
/// WriteFailed.
Status writePdf(const LetterPages& pages, const std::string& title, const std::filesystem::path& path,
                FileStore& files);

} // namespace jg
