// SPDX-License-Identifier: GPL-3.0-or-later
// Letters that go out later by themselves: at a time, or once more after nobody answered.
#pragma once

#include "base/clock.h"
#include "desk/sending/outgoing.h"

#include <cstdint>
#include <map>
#include <optional>
#include <string>
#include <vector>

namespace jg {

/// When a mail of the outbox is handed over by itself.
struct DueMail {
    std::int64_t at = 0; ///< seconds since 1970 UTC
    int tries = 0;       ///< that nobody answered to
    bool operator==(const DueMail&) const = default;
};

/// True of what did not go out and still may.
inline bool waits(const OutboxItem& item) {
    return item.state == MailState::Ready || item.state == MailState::Refused;
}

/// By id of the outbox; each a row of its own. What can't be read is not due: it waits in
/// the outbox for a hand.
std::map<std::string, DueMail> dueMails(Store& store);
/// Errors: those of writing.
Status setDue(Store& store, const std::string& item, const DueMail& due);
Status clearDue(Store& store, const std::string& item);

/// Those whose time has come and that are ready or were refused by nobody's fault, oldest first. Errors:
/// those of reading.
Result<std::vector<OutboxItem>> mailsDueAt(Store& store, std::int64_t nowUnix);

/// How long after the n-th try without an answer the next one comes, seconds: 1, 5, 15, 60, then 240 minutes.
/// Own choice.
std::int64_t pauseAfter(int tries);

/// Makes the letter and lays it into the outbox until its time; it is checked and made anew then. Errors: as
/// sendLetter() before the handing over.
Result<OutboxItem> sendLater(Library& library, const DispatchRecipe& recipe, std::int64_t atUnix,
                             const Clock& clock, IdSource& ids, std::stop_token stop = {},
                             const SendProgress& progress = {});

/// Hands a due mail over, as sendAgain() without a time to take it back: that was until now. When nobody
/// answers it is due again after a pause; all else waits for a hand. Errors: those of sendAgain().
Status sendDue(Library& library, const Playbook& playbook, OutboxItem item, const SendOrder& order,
               const Clock& clock, std::stop_token stop = {}, const SendProgress& progress = {});

/// A time as a person types it, the next that comes: "21:30", "tomorrow 7:00", "2026-12-01 07:15"; by the
/// house's time zone. Nothing for what is none, or has passed.
std::optional<std::int64_t> timeFromWords(const std::string& words, std::int64_t nowUnix);

} // namespace jg
