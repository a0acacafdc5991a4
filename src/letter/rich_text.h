// SPDX-License-Identifier: GPL-3.0-or-later
// Rich text as it is printed: fonts, colours, and the strategy that keeps a PDF's text readable. Inside the
// letter room only.
#pragma once

#include <QColor>
#include <QPainter>
#include <QPointF>
#include <QString>
#include <QTextDocument>

namespace jg {

/// HTML of a block in one font and colour.
QString styled(const QString& inner, double px, const QColor& color, const char* family = "Open Sans",
               const char* weight = "400", const char* more = "");

/// Fills a document that is painted at `width`.
void prepare(QTextDocument& doc, const QString& html, double width);

/// Paints a prepared document with its corner there.
void paintAt(QPainter& painter, QTextDocument& doc, QPointF corner);

} // namespace jg
