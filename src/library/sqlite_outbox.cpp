// SPDX-License-Identifier: GPL-3.0-or-later
// The outbox of a SqliteStore.
#include "library/rows.h"
#include "library/sqlite_store.h"
#include "review/record/message_json.h"

#include <algorithm>

namespace jg {

namespace {

constexpr const char* kColumns = "id, review, recipient, subject, file, state, reason, at";

OutboxItem itemAt(SQLite::Statement& q) {
    // A state of a newer program is one nobody here can be sure of.
    return {textAt(q, 0),
            {textAt(q, 1)},
            textAt(q, 2),
            textAt(q, 3),
            textAt(q, 4),
            mailStateFromId(textAt(q, 5)).value_or(MailState::Unsure),
            messageFromText(textAt(q, 6)),
            q.getColumn(7).getInt64()};
}

void update(SQLite::Database& db, const OutboxItem& i) {
    run(db,
        "UPDATE outbox SET recipient = ?, subject = ?, file = ?, state = ?, reason = ?, at = ? WHERE id = ?",
        i.recipient, i.subject, i.file, std::string(idOf(i.state)), messageAsText(i.reason), i.at, i.id);
}

OutboxItem itemOf(SQLite::Database& db, const std::string& id) {
    const std::string sql = std::string("SELECT ") + kColumns + " FROM outbox WHERE id = ?";
    const auto found = rowsOf(
        db, sql.c_str(), [](auto& q) { return itemAt(q); }, id);
    if (found.empty()) throw Rejected{fail(ErrorCode::NotFound, msg("sqlite-outbox.gone"))};
    return found.front();
}

Status mayGo(SQLite::Database& db, const ReviewId& review, std::int64_t now, Repeat repeat) {
    const std::string sql = std::string("SELECT ") + kColumns + " FROM outbox WHERE review = ?";
    for (const OutboxItem& i : rowsOf(
             db, sql.c_str(), [](auto& q) { return itemAt(q); }, review.value)) {
        const MailState state = stateAt(i, now);
        if (state == MailState::HandingOver)
            return fail(ErrorCode::Refused, msg("sqlite-outbox.handing-over"));
        if (state == MailState::Unsure && repeat == Repeat::Never)
            return fail(ErrorCode::Refused,
                        msg("sqlite-outbox.earlier-unsure", {{"recipient", i.recipient}}));
    }
    if (repeat == Repeat::Always) return Done{};
    for (const auto& on : rowsOf(
             db, "SELECT sent_on FROM reviews WHERE id = ? AND sent_on IS NOT NULL",
             [](auto& q) { return dateAt(q, 0); }, review.value))
        return fail(ErrorCode::Refused,
                    on ? msg("sqlite-outbox.sent-on", {{"date", *on}}) : msg("sqlite-outbox.sent"));
    return Done{};
}

} // namespace

bool isHandedOver(SQLite::Database& db, std::int64_t nowUnix) {
    const std::string sql = std::string("SELECT ") + kColumns + " FROM outbox WHERE state = 'handing-over'";
    const auto going = rowsOf(db, sql.c_str(), [](auto& q) { return itemAt(q); });
    return std::any_of(going.begin(), going.end(),
                       [&](const OutboxItem& i) { return stateAt(i, nowUnix) == MailState::HandingOver; });
}

Result<std::vector<OutboxItem>> SqliteStore::outbox() {
    std::vector<OutboxItem> all;
    const Status done = read([&](SQLite::Database& db) {
        const std::string sql = std::string("SELECT ") + kColumns + " FROM outbox ORDER BY at DESC, id";
        all = readableRowsOf(db, sql.c_str(), &leftOut_, [](auto& q) { return itemAt(q); });
    });
    if (!done) return done.error();
    return all;
}

Status SqliteStore::add(const OutboxItem& i) {
    return write([&](SQLite::Database& db) {
        run(db,
            "INSERT INTO outbox (id, review, recipient, subject, file, state, reason, at) VALUES "
            "(?,?,?,?,?,?,?,?)",
            i.id, i.review.value, i.recipient, i.subject, i.file, std::string(idOf(i.state)),
            messageAsText(i.reason), i.at);
    });
}

Result<OutboxItem> SqliteStore::mail(const std::string& id) {
    OutboxItem item;
    const Status done = read([&](SQLite::Database& db) { item = itemOf(db, id); });
    if (!done) return done.error();
    return item;
}

Result<OutboxItem> SqliteStore::changeMail(const std::string& id, const ChangeOf<OutboxItem>& what) {
    OutboxItem item;
    const Status done = write([&](SQLite::Database& db) {
        item = itemOf(db, id);
        orReject(what(item));
        item.id = id;
        update(db, item);
    });
    if (!done) return done.error();
    return item;
}

Status SqliteStore::mayHandOver(const ReviewId& review, std::int64_t nowUnix, Repeat repeat) {
    Status may = Done{};
    const Status done = read([&](SQLite::Database& db) { may = mayGo(db, review, nowUnix, repeat); });
    return done ? may : done;
}

Status SqliteStore::beginHandOver(const OutboxItem& item, std::int64_t nowUnix, Repeat repeat) {
    return write([&](SQLite::Database& db) {
        orReject(mayGo(db, item.review, nowUnix, repeat));
        OutboxItem now = item;
        now.state = MailState::HandingOver;
        now.reason = {};
        now.at = nowUnix;
        itemOf(db, now.id); // it may have gone with its athlete
        update(db, now);
    });
}

Result<int> SqliteStore::unsentMails() {
    return count("SELECT count(*) FROM outbox WHERE state <> 'sent'");
}

} // namespace jg
