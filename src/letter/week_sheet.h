// SPDX-License-Identifier: GPL-3.0-or-later
// The week on one sheet of paper, to be hung up and ticked off.
#pragma once

#include "base/file_store.h"
#include "letter/paper.h"
#include "review/tell/letter_model.h"
#include "words/words.h"

#include <QPainter>
#include <QSizeF>

#include <string>

namespace jg {

/// Paints the sheet into `page` (design pixels, lying on its long side): days as columns, a box to tick for
/// each drill and week, how each drill is done, cautions and guidance. What does not fit is painted smaller;
/// it is one page always. Needs loadFonts() and a letter with days.
void paintWeekSheet(QPainter& painter, QSizeF page, const LetterModel& letter, const std::string& athlete,
                    const Words& words);

/// The same as a PDF of one page, whole or not at all. Errors: Refused without drills, DiskFull, WriteFailed.
Status writeWeekSheet(const LetterModel& letter, const std::string& athlete, Paper paper, const Words& words,
                      const std::filesystem::path& path, FileStore& files);

/// Weeks from the letter to its next look, 1 to 6; 4 without one.
int weeksOf(const LetterModel& letter);

} // namespace jg
