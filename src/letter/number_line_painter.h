// SPDX-License-Identifier: GPL-3.0-or-later
// The small line under a number: where you are, how sure, where we want you. Inside the letter room only.
#pragma once

#include "review/tell/number_line.h"
#include "words/words.h"

#include <QImage>
#include <QPainter>

namespace jg {

/// Height of the line with its words, in the painter's units at a width of 300 and more.
inline constexpr double kNumberLineHeight = 46;

void paintNumberLine(QPainter& painter, QRectF box, const NumberLine& line, const Words& words);

/// The same as a picture, for pages that are no painter's; `scale` pixels a unit.
QImage numberLineImage(const NumberLine& line, const Words& words, double width, double scale);

/// The line in words, for who can't see it.
Message numberLineInWords(const NumberLine& line);

} // namespace jg
