// SPDX-License-Identifier: GPL-3.0-or-later
#include "library/checksums.h"

#include "library/rows.h"
#include "library/sha256.h"

#include <sqlite3.h>

#include <initializer_list>

namespace jg {

namespace {

/// Every column as SQL writes it: 'a' and null are told apart, and nothing moves from one column to the next.
std::string all(std::initializer_list<const char*> columns) {
    std::string sql;
    for (const char* c : columns) sql += std::string(sql.empty() ? "" : " || ',' || ") + "quote(@" + c + ")";
    return sql;
}

std::vector<SummedTable> tables() {
    std::vector<SummedTable> t = {
        {"athletes", "@id", all({"name", "document"})},
        {"submissions", "@id", all({"athlete", "received", "promised", "answered", "document"})},
        {"media", "@hash", all({"extension", "bytes"})},
        {"clips", "@id", all({"submission", "media", "survey"})},
        {"reviews", "@id",
         all({"submission", "athlete", "date", "stage", "sent_on", "sent_to", "begun", "revision", "summary",
              "brought", "document"})},
        {"results", "@review", all({"document"})},
        {"derived", "@review || '/' || @delivery", all({"clip", "document"})},
        {"versions", "@row", all({"review", "base", "at", "document"})},
        {"promises", "@row", all({"athlete", "text", "due", "settled", "details"})},
        {"outbox", "@id", all({"review", "recipient", "subject", "file", "state", "reason", "at"})},
        {"playbooks", "@hash", all({"document"})},
        {"settings", "@key", all({"value"})}};
    for (int i = 0; i < kListCount; ++i)
        t.push_back({tableOf(static_cast<ListOf>(i)), "@row", all({"key", "document"})});
    return t;
}

void sumOf(sqlite3_context* context, int, sqlite3_value** values) {
    const auto* text = reinterpret_cast<const char*>(sqlite3_value_text(values[0]));
    const std::string sum =
        text ? sha256({text, static_cast<std::size_t>(sqlite3_value_bytes(values[0]))}) : sha256({});
    sqlite3_result_text(context, sum.data(), static_cast<int>(sum.size()), SQLITE_TRANSIENT);
}

} // namespace

const std::vector<SummedTable>& summedTables() {
    static const std::vector<SummedTable> all = tables();
    return all;
}

std::string columnsOf(const std::string& sql, const char* prefix) {
    std::string out;
    for (const char c : sql) out += c == '@' ? std::string(prefix) : std::string(1, c);
    return out;
}

void addSumFunction(SQLite::Database& db) {
    const int flags = SQLITE_UTF8 | SQLITE_DETERMINISTIC | SQLITE_INNOCUOUS;
    const int done = sqlite3_create_function_v2(db.getHandle(), "jg_sum", 1, flags, nullptr, sumOf, nullptr,
                                                nullptr, nullptr);
    if (done != SQLITE_OK) throw SQLite::Exception(db.getHandle(), done);
}

namespace {

/// The triggers that keep one table's sums and its pulse, and the sums of its rows.
void keepSums(SQLite::Database& db, const SummedTable& t) {
    const std::string id = columnsOf(t.id, "new."), content = columnsOf(t.content, "new.");
    const std::string beat = "; UPDATE pulse SET n = n + 1 WHERE name = '" + t.name + "'; END";
    const std::string drop = "DELETE FROM sums WHERE name = '" + t.name + "' AND id = ";
    // Not "OR REPLACE": the way the outer statement handles a conflict would count instead.
    const std::string put =
        "INSERT INTO sums VALUES ('" + t.name + "', " + id + ", jg_sum(" + content + "))" + beat;
    db.exec("CREATE TRIGGER " + t.name + "_new AFTER INSERT ON " + t.name + " BEGIN " + drop + id + "; " +
            put);
    db.exec("CREATE TRIGGER " + t.name + "_changed AFTER UPDATE ON " + t.name + " BEGIN " + drop +
            columnsOf(t.id, "old.") + "; " + drop + id + "; " + put);
    db.exec("CREATE TRIGGER " + t.name + "_gone AFTER DELETE ON " + t.name + " BEGIN " + drop +
            columnsOf(t.id, "old.") + beat);
    db.exec("INSERT INTO pulse VALUES ('" + t.name + "', 0)");
    db.exec("INSERT INTO sums SELECT '" + t.name + "', " + columnsOf(t.id, "") + ", jg_sum(" +
            columnsOf(t.content, "") + ") FROM " + t.name);
}

} // namespace

void sumEverything(SQLite::Database& db) {
    db.exec("CREATE TABLE pulse (name TEXT PRIMARY KEY, n INTEGER NOT NULL) WITHOUT ROWID");
    const std::vector<AlteredRow> altered = alteredIn4(db);
    for (const std::string& trigger : rowsOf(db, "SELECT name FROM sqlite_master WHERE type = 'trigger'",
                                             [](auto& q) { return textAt(q, 0); }))
        db.exec("DROP TRIGGER " + trigger);
    db.exec("DELETE FROM sums");
    for (const SummedTable& t : summedTables()) keepSums(db, t);
    for (const AlteredRow& row : altered)
        run(db, "UPDATE sums SET sum = 'altered' WHERE name = ? AND id = ?", row.table, row.id);
}

} // namespace jg
