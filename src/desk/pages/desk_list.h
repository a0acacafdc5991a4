// SPDX-License-Identifier: GPL-3.0-or-later
// What is waiting, what is owed, what went out.
#pragma once

#include "base/date.h"
#include "library/library.h"

#include <map>
#include <optional>
#include <string>
#include <vector>

namespace jg {

inline constexpr int kSoonDays = 7; ///< a promise stands on the desk so long before it is due

/// One waiting submission.
struct DeskRow {
    Submission submission;
    Athlete athlete;
    std::optional<ReviewSummary> review;
    int minutes = 0;   ///< a rough guess of the work left
    bool pain = false; ///< an open report of the athlete, with this film or another
    Message progress;  ///< "Measuring, 9 of 13 done." or empty
    Veils hidden = {}; ///< on the first film, whose still is shown
};

struct DeskList {
    std::vector<DeskRow> waiting;           ///< pain first, then by promised date, undated last
    std::vector<Promise> owed;              ///< late, due within kSoonDays, or without a date
    int owedLater = 0;                      ///< how many more are due after that
    std::vector<ReviewSummary> sentLately;  ///< within seven days
    std::map<AthleteId, std::string> names; ///< of everybody named above
    int athletes = 0;                       ///< in the whole library
    int unsentMails = 0;
    std::size_t mails = 0;        ///< that lie in the watched folder and may bring films
    std::vector<Message> leftOut; ///< what can't be read, each in a sentence
};

/// A review whose results an older version did not keep is assessed once here. A row that can't be read is
/// left out and told. Errors: those of reading the store.
Result<DeskList> readDesk(Store& store, const Playbook& playbook, Date today);

/// The counts kept with a review; of one that an older version kept, those of now. Errors: those of reading
/// the store.
Result<Counts> countsOf(Store& store, const Playbook& playbook, const ReviewSummary& summary);

/// "promised for yesterday", "for tonight", "for Friday", "for 4 December", "no date".
Message promisedInWords(const std::optional<Date>& promised, Date today);

/// "open side 60 (3 films), front 240": view and capture rate, alike films told once.
Message filmsInWords(const std::vector<Clip>& clips);

} // namespace jg
