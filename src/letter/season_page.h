// SPDX-License-Identifier: GPL-3.0-or-later
// An athlete's season on paper: what was found and became of it, numbers over time, letters, outings.
#pragma once

#include "base/file_store.h"
#include "letter/paper.h"
#include "letter/trend_painter.h"
#include "words/words.h"

#include <filesystem>
#include <string>
#include <vector>

namespace jg {

/// A measure of the season with what is sure of it.
struct SeasonMeasure {
    std::string name;
    TrendPicture picture;
    std::optional<Date> sureSince;
};

/// One letter: when it went out, or that it did not, and what it was about.
struct SeasonLetter {
    Date when{};
    Message words;
};

/// Values only. Addresses are not among them: the page may lie about.
struct SeasonPage {
    std::string name;
    Message facts; ///< age, hand, level, growth
    Date from{}, to{};
    std::vector<std::pair<std::string, LogLine>> findings; ///< by the name they have
    std::vector<SeasonMeasure> measures;
    std::vector<SeasonLetter> letters;
    std::vector<Message> outings; ///< as entered, a line each
};

/// Lays it out on pages of the paper and writes it whole or not at all. Needs loadFonts(). Errors: Refused
/// when there is no review to tell of, DiskFull, WriteFailed.
Status writeSeasonPage(const SeasonPage& page, Paper paper, const Words& words,
                       const std::filesystem::path& path, FileStore& files);

} // namespace jg
