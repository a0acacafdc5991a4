// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/sending/due_mails.h"

#include "base/clock.h"
#include "base/document.h"
#include "base/letters.h"
#include "base/time_zone.h"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <array>
#include <cstdio>
#include <tuple>

namespace jg {

using nlohmann::json;

namespace {

std::optional<DueMail> dueFrom(const std::string& text) {
    const json row = parseDocumentOrNone(text);
    if (!row.is_object() || !row.contains("at") || !row["at"].is_number_integer()) return std::nullopt;
    const bool tried = row.contains("tries") && row["tries"].is_number_integer();
    return DueMail{row["at"], tried ? std::max(0, row["tries"].get<int>()) : 0};
}

} // namespace

std::map<std::string, DueMail> dueMails(Store& store) {
    std::map<std::string, DueMail> all;
    const auto rows = store.rows(ListOf::DueMails);
    if (!rows) return all;
    for (const ListEntry& row : *rows)
        if (const auto due = dueFrom(row.document)) all[row.key] = *due;
    return all;
}

Status setDue(Store& store, const std::string& item, const DueMail& due) {
    return store.put(ListOf::DueMails, item, json{{"at", due.at}, {"tries", due.tries}}.dump());
}

Status clearDue(Store& store, const std::string& item) {
    return store.drop(ListOf::DueMails, item);
}

Result<std::vector<OutboxItem>> mailsDueAt(Store& store, std::int64_t nowUnix) {
    const auto all = dueMails(store);
    std::vector<OutboxItem> due;
    if (all.empty()) return due;
    auto outbox = store.outbox();
    if (!outbox) return outbox.error();
    for (OutboxItem& item : *outbox) {
        const auto it = all.find(item.id);
        if (it != all.end() && it->second.at <= nowUnix && waits(item)) due.push_back(std::move(item));
    }
    std::sort(due.begin(), due.end(), [&](const OutboxItem& a, const OutboxItem& b) {
        return std::pair(all.at(a.id).at, a.id) < std::pair(all.at(b.id).at, b.id);
    });
    return due;
}

std::int64_t pauseAfter(int tries) {
    constexpr std::array<int, 5> kMinutes = {1, 5, 15, 60, 240};
    constexpr std::int64_t kMinute = 60;
    const auto at = static_cast<std::size_t>(std::max(1, tries)) - 1;
    return kMinute * kMinutes[std::min(at, kMinutes.size() - 1)];
}

Result<OutboxItem> sendLater(Library& library, const DispatchRecipe& recipe, std::int64_t atUnix,
                             const Clock& clock, IdSource& ids, std::stop_token stop,
                             const SendProgress& progress) {
    auto item = layReady(library, recipe, clock, ids, stop, progress);
    if (!item) return item;
    if (auto due = setDue(library, item->id, {atUnix, 0}); !due) return due.error();
    return item;
}

Status sendDue(Library& library, const Playbook& playbook, OutboxItem item, const SendOrder& order,
               const Clock& clock, std::stop_token stop, const SendProgress& progress) {
    const auto all = dueMails(library);
    const auto was = all.find(item.id);
    const int tries = was == all.end() ? 0 : was->second.tries;
    SendOrder atOnce = order;
    atOnce.takeBackS = 0;
    const Status sent = sendAgain(library, playbook, item, atOnce, clock, stop, progress);
    if (!sent && sent.error().code == ErrorCode::Cancelled) return sent; // it stays due
    if (!sent && !library.mayWrite()) return sent;                       // names are out of sight
    // Whoever hands it over now says what becomes of it.
    if (!sent && sent.error().text.id == "sqlite-outbox.handing-over") return sent;
    const bool nobody = !sent && sent.error().code == ErrorCode::Network;
    const Status kept = nobody
                            ? setDue(library, item.id, {clock.nowUnix() + pauseAfter(tries + 1), tries + 1})
                            : clearDue(library, item.id);
    return sent ? kept : sent;
}

namespace {

/// "7:05" or "19:42".
std::optional<std::pair<int, int>> clockIn(const std::string& words) {
    int hour = 0, minute = 0;
    char more = 0;
    if (words.size() < 4 || std::sscanf(words.c_str(), "%2d:%2d%c", &hour, &minute, &more) != 2)
        return std::nullopt;
    const bool fits = words[words.size() - 3] == ':' && hour >= 0 && hour < 24 && minute >= 0 && minute < 60;
    return fits ? std::optional(std::pair(hour, minute)) : std::nullopt;
}

} // namespace

std::optional<std::int64_t> timeFromWords(const std::string& words, std::int64_t nowUnix) {
    std::string rest(trimmed(lowered(words)));
    CivilTime at = civilAt(nowUnix);
    const auto space = rest.find(' ');
    const bool dayGiven = space != rest.npos;
    if (dayGiven) {
        const std::string first = rest.substr(0, space);
        const auto named = first == "today"      ? std::optional(at.date)
                           : first == "tomorrow" ? std::optional(addDays(at.date, 1))
                                                 : parseIsoDate(first);
        if (!named) return std::nullopt;
        at.date = *named;
        rest = std::string(trimmed(rest.substr(space)));
    }
    const auto clock = clockIn(rest);
    if (!clock) return std::nullopt;
    std::tie(at.hour, at.minute) = *clock;
    std::int64_t unix = unixAt(at);
    if (unix <= nowUnix && !dayGiven) {
        at.date = addDays(at.date, 1);
        unix = unixAt(at);
    }
    return unix > nowUnix ? std::optional(unix) : std::nullopt;
}

} // namespace jg
