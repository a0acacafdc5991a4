// SPDX-License-Identifier: GPL-3.0-or-later
// How large the system wants its text, and what follows from it for the window.
#pragma once

#include "letter/fonts.h"

#include <QPainter>
#include <QWidget>

namespace jg::ui {

/// How much larger than usual a system's font asks the text to be, 1 .. 1.5. Desktops ship 9 to 12 points at
/// 96 dots an inch: those are usual.
double scaleOfSystemFont(const QFont& font, double dotsPerInch);

/// The scale in use, 1 .. 1.5. Set once, before any widget is made. Window's thread only.
double textScale();
void setTextScale(double scale);
/// Sets it by the system's font, as it is before `dress` sets ours.
void followSystemText();

/// A length that holds text, in pixels, as large as the text now is.
int em(double px);

/// Gives a dialog a size in usual pixels, as large as its text and no larger than the window above it.
void resizeForText(QWidget& dialog, double width, double height);

/// The shipped fonts at the scale in use. What is painted by a ScaledPainter takes textFont and headFont.
QFont labelFont(double px, bool bold = false);
QFont headingFont(double px, bool italic = false);

/// Paints a widget in usual pixels; they come out as large as its text.
class ScaledPainter : public QPainter {
public:
    explicit ScaledPainter(QPaintDevice* device);
};

/// Width and height of a widget in the pixels of its ScaledPainter.
double usualWidth(const QWidget& widget);
double usualHeight(const QWidget& widget);
/// From the pixels of a ScaledPainter to those of its widget, and back.
QRect scaled(const QRectF& usual);
QRectF unscaled(const QRectF& box);

} // namespace jg::ui
