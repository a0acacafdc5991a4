// SPDX-License-Identifier: GPL-3.0-or-later
// The look: palette, fonts and the one style sheet.
#pragma once

#include "letter/fonts.h"
#include "letter/palette.h"
#include "letter/qt_text.h"
#include "ui/kit/text_scale.h"
#include "ui/kit/words.h"

#include <QApplication>
#include <QIcon>
#include <QLabel>
#include <QPushButton>

class QFormLayout;

namespace jg::ui {

/// Loads fonts, sets style, palette and sheet, with text as large as setTextScale said. False when the
/// shipped fonts are missing.
bool dress(QApplication& app);

/// A shipped icon in a colour of the palette, sharp at every scale.
QIcon icon(const QString& name, const QColor& color = palette::ink);

/// Heading in Vollkorn, plain text, quiet text. Word-wrapped.
QLabel* heading(const QString& text, double px = 22);
QLabel* plain(const QString& text = {}, double px = 13, bool bold = false);
QLabel* quiet(const QString& text = {}, double px = 12.5);
/// The accent button and the outlined one.
QPushButton* mainButton(const QString& text);
QPushButton* plainButton(const QString& text);
/// A sentence of what is wrong, in clay; hidden until there is one.
QLabel* problemLabel(const char* name);
/// Colours a label's text as what asks for attention.
void inClay(QLabel* label);
/// Takes everything out of a layout and the layouts in it. Widgets are hidden and go later: one of them may
/// be at work.
void clearLayout(QLayout& layout);
/// Gives the labels of a form one width, so that forms below each other line up.
void alignLabels(QFormLayout& form);
/// Makes a button the one that stands out, or no longer.
void setAsMain(QPushButton* button, bool on);
/// A thin rule.
QFrame* rule();

} // namespace jg::ui
