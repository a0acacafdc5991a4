// All numbers and grades of a review on paper, for the coach: it goes into no mail.
#pragma once

#include "base/file_store.h"
#include "letter/paper.h"
#include "review/assess.h"
#include "words/words.h"

#include <filesystem>
#include <map>
#include <string>

namespace jg {

/// What stands on the sheet.
struct CoachSheet {
    std::string athlete;
    Date when{};
    Assessment told;
    Playbook playbook;
    std::map<std::string, Message> tried; ///< by measure: how such an error did where the truth was known
};

/// Measures with number, error, target, what follows and what is to be minded, then items with their grades;
/// as many pages as it takes. Errors: WriteFailed, DiskFull.
Status writeCoachSheet(const CoachSheet& sheet, Paper paper, const Words& words,
                       const std::filesystem::path& path, FileStore& files);

} // namespace jg
