// SPDX-License-Identifier: GPL-3.0-or-later
// All numbers and grades of a review on paper, for the coach: it goes into no mail.
#pragma once

#include "base/file_store.h"
#include "letter/paper.h"
#include "review/assess/assess.h"
#include "review/assess/card.h"
#include "review/tell/weighing.h"
#include "words/words.h"

#include <filesystem>
#include <map>
#include <string>
#include <vector>

namespace jg {

/// What stands on the sheet.
struct CoachSheet {
    std::string athlete;
    Date when{};
    Assessment told;
    Playbook playbook;
    std::vector<Weighed> weighed;         ///< of the corrections
    std::vector<CardRow> card;            ///< in the order of the body
    std::map<std::string, Message> tried; ///< by measure: how such an error did where the truth was known
};

/// Measures with number, error, target, what follows and what is to be minded, items with their grades part
/// by part, each with its count, then what was weighed; as many pages as it takes. Errors: WriteFailed,
/// DiskFull.
Status writeCoachSheet(const CoachSheet& sheet, Paper paper, const Words& words,
                       const std::filesystem::path& path, FileStore& files);

} // namespace jg
