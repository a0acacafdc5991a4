// SPDX-License-Identifier: GPL-3.0-or-later
// The letter as one HTML file: for a phone, without a connection, for a screen reader, and to print.
#pragma once

#include "review/tell/letter_model.h"
#include "words/words.h"

#include <QImage>

#include <map>
#include <string>

namespace jg {

/// Everything in one file: no script, no link, no picture from elsewhere. `stills` by finding id. Needs
/// loadFonts(). Pure; any one thread.
std::string letterAsHtml(const LetterModel& letter, const std::map<std::string, QImage>& stills,
                         const Words& words);

/// Paragraphs of a text (empty lines between them, "- " before the rows of a list) as the HTML part of a
/// mail.
std::string mailAsHtml(const std::string& text, const std::string& language);

} // namespace jg
