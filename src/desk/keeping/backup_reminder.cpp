// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/keeping/backup_reminder.h"

#include "library/backup.h"

namespace jg {

Message backupReminder(Library& library, std::int64_t nowUnix) {
    constexpr std::int64_t kOldDays = 14, kDayS = 86400;
    constexpr int kWorthIt = 5; // reviews
    const auto reviews = library.reviews(kWorthIt);
    if (library.readOnly() || !reviews || reviews->size() < kWorthIt) return {};
    const auto at = lastBackup(library);
    if (!at) return msg("backup-reminder.never");
    const std::int64_t days = (nowUnix - *at) / kDayS;
    return days > kOldDays ? msg("backup-reminder.old", {{"days", days}}) : Message{};
}

} // namespace jg
