// SPDX-License-Identifier: GPL-3.0-or-later
#include "letter/rich_text.h"

#include "letter/fonts.h"

#include <QTextCursor>

namespace jg {

QString styled(const QString& inner, double px, const QColor& color, const char* family, const char* weight,
               const char* more) {
    return QString("<div style=\"font-family:'%1';font-size:%2px;font-weight:%3;color:%4;%5\">%6</div>")
        .arg(family)
        .arg(px)
        .arg(weight, color.name(), more, inner);
}

void prepare(QTextDocument& doc, const QString& html, double width) {
    doc.setDocumentMargin(0);
    doc.setDefaultFont(printFont(13.5));
    doc.setHtml(html);
    QTextOption option = doc.defaultTextOption();
    option.setWrapMode(QTextOption::WordWrap);
    doc.setDefaultTextOption(option);
    doc.setTextWidth(width);
    // Fonts named in the HTML lose the strategy of the default font: put it back on every run.
    QTextCursor cursor(&doc);
    cursor.select(QTextCursor::Document);
    QTextCharFormat format;
    format.setFontStyleStrategy(QFont::PreferNoShaping);
    cursor.mergeCharFormat(format);
}

void paintAt(QPainter& painter, QTextDocument& doc, QPointF corner) {
    painter.save();
    painter.translate(corner);
    doc.drawContents(&painter);
    painter.restore();
}

} // namespace jg
