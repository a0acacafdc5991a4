// SPDX-License-Identifier: GPL-3.0-or-later
// The lists of a SqliteStore: tables of one shape.
#include "library/rows.h"
#include "library/sqlite_store.h"

#include <algorithm>
#include <map>

namespace jg {

namespace {

std::string sqlFor(ListOf list, const char* before, const char* after) {
    return std::string(before) + tableOf(list) + after;
}

ListEntry rowAt(SQLite::Statement& q) {
    return {q.getColumn(0).getInt64(), textAt(q, 1), textAt(q, 2)};
}

std::vector<ListEntry> allOf(SQLite::Database& db, ListOf list) {
    return rowsOf(db, sqlFor(list, "SELECT row, key, document FROM ", " ORDER BY row").c_str(), rowAt);
}

void putRow(SQLite::Database& db, ListOf list, const std::string& key, const std::string& document) {
    run(db,
        sqlFor(list, "INSERT INTO ",
               " (key, document) VALUES (?,?) ON CONFLICT(key) DO UPDATE SET document = excluded.document")
            .c_str(),
        key, document);
}

void dropRow(SQLite::Database& db, ListOf list, const std::string& key) {
    run(db, sqlFor(list, "DELETE FROM ", " WHERE key = ?").c_str(), key);
}

/// What is gone goes first, so that its key is free.
void writeDifference(SQLite::Database& db, ListOf list, const std::vector<ListEntry>& was,
                     const std::vector<ListEntry>& now) {
    std::map<std::int64_t, const ListEntry*> kept;
    for (const ListEntry& r : now)
        if (r.row != 0) kept[r.row] = &r;
    for (const ListEntry& r : was) {
        const auto it = kept.find(r.row);
        if (it == kept.end() || it->second->key != r.key) dropRow(db, list, r.key);
    }
    for (const ListEntry& r : now)
        if (std::find(was.begin(), was.end(), r) == was.end()) putRow(db, list, r.key, r.document);
}

} // namespace

Result<std::vector<ListEntry>> SqliteStore::rows(ListOf list) {
    std::vector<ListEntry> all;
    const Status done = read([&](SQLite::Database& db) { all = allOf(db, list); });
    if (!done) return done.error();
    return all;
}

Result<std::optional<ListEntry>> SqliteStore::row(ListOf list, const std::string& key) {
    std::vector<ListEntry> found;
    const Status done = read([&](SQLite::Database& db) {
        found =
            rowsOf(db, sqlFor(list, "SELECT row, key, document FROM ", " WHERE key = ?").c_str(), rowAt, key);
    });
    if (!done) return done.error();
    return found.empty() ? std::nullopt : std::optional(found.front());
}

Status SqliteStore::put(ListOf list, const std::string& key, const std::string& document) {
    return write([&](SQLite::Database& db) { putRow(db, list, key, document); });
}

Status SqliteStore::drop(ListOf list, const std::string& key) {
    return write([&](SQLite::Database& db) { dropRow(db, list, key); });
}

Status SqliteStore::changeRows(ListOf list, const ChangeOf<std::vector<ListEntry>>& what) {
    return write([&](SQLite::Database& db) {
        const std::vector<ListEntry> was = allOf(db, list);
        std::vector<ListEntry> now = was;
        orReject(what(now));
        writeDifference(db, list, was, now);
    });
}

} // namespace jg
