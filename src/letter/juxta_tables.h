// SPDX-License-Identifier: GPL-3.0-or-later
// The numbers of a sheet for other programs: a table, a document, a page for a browser.
#pragma once

#include "review/compare/juxta.h"
#include "words/words.h"

#include <QImage>

#include <string>
#include <vector>

namespace jg {

/// Every number of the sheet: position, measure, unit, a value and its half width a row, the difference, and
/// what became of it. RFC 4180, point as decimal sign. Pure.
std::string juxtaAsCsv(const JuxtaSheet& sheet, const Playbook& playbook);

/// All numbers of deliveries as one long table, a row each: date, athlete, age, delivery, film, conditions,
/// measure, value with unit and error, state, target, verdict, and what the measure meant (its
/// definition; one that reads otherwise is another measure). RFC 4180, point as decimal sign. Pure.
std::string numbersAsCsv(const std::vector<JuxtaEntry>& entries, const Playbook& playbook);

/// The sheet with its rows and what can't be compared (docs/formats.md, juxtagraph-sheet-1). Pure.
std::string juxtaAsJson(const JuxtaSheet& sheet, const Playbook& playbook);

/// One file: the picture, and below it the numbers as a table, in the reader's language. Needs no network.
std::string juxtaAsHtml(const JuxtaSheet& sheet, const QImage& picture, const Playbook& playbook,
                        const Words& words);

} // namespace jg
