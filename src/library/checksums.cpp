#include "library/checksums.h"

#include "library/sha256.h"

#include <sqlite3.h>

#include <string_view>

namespace jg {

namespace {

constexpr SummedTable kTables[] = {
    {"athletes", "@id", "@document"},
    {"submissions", "@id", "@athlete || '|' || @document"},
    {"clips", "@id", "@submission || '|' || @media || '|' || @survey"},
    {"reviews", "@id",
     "@submission || '|' || @athlete || '|' || ifnull(@sent_on, '') || '|' || @sent_to || '|' || @document"},
    {"results", "@review", "@document"},
    {"derived", "@review || '/' || @delivery", "@clip || '|' || @document"},
    {"versions", "@row", "@review || '|' || @base || '|' || @document"},
    {"promises", "@row",
     "@athlete || '|' || @text || '|' || ifnull(@due, '') || '|' || @settled || '|' || @details"},
    {"outbox", "@id",
     "@review || '|' || @recipient || '|' || @subject || '|' || @file || '|' || @state || '|' || @reason || "
     "'|' || @at"},
    {"settings", "@key", "@value"}};

// Of promises before they had details (schema 3). Never changed.
constexpr SummedTable kPromises3 = {"promises", "@row",
                                    "@athlete || '|' || @text || '|' || ifnull(@due, '') || '|' || @settled"};

void sumOf(sqlite3_context* context, int, sqlite3_value** values) {
    const auto* text = reinterpret_cast<const char*>(sqlite3_value_text(values[0]));
    const std::string sum =
        text ? sha256({text, static_cast<std::size_t>(sqlite3_value_bytes(values[0]))}) : sha256({});
    sqlite3_result_text(context, sum.data(), static_cast<int>(sum.size()), SQLITE_TRANSIENT);
}

} // namespace

std::span<const SummedTable> summedTables() {
    return kTables;
}

std::string columnsOf(const char* sql, const char* prefix) {
    std::string out;
    for (const char* c = sql; *c; ++c) out += *c == '@' ? std::string(prefix) : std::string(1, *c);
    return out;
}

void addSumFunction(SQLite::Database& db) {
    const int flags = SQLITE_UTF8 | SQLITE_DETERMINISTIC | SQLITE_INNOCUOUS;
    const int done = sqlite3_create_function_v2(db.getHandle(), "jg_sum", 1, flags, nullptr, sumOf, nullptr,
                                                nullptr, nullptr);
    if (done != SQLITE_OK) throw SQLite::Exception(db.getHandle(), done);
}

namespace {

/// The triggers that keep one table's sums, and the sums of its rows.
void keepSums(SQLite::Database& db, const SummedTable& t) {
    const std::string name = t.name, id = columnsOf(t.id, "new."), content = columnsOf(t.content, "new.");
    // Not "OR REPLACE": the way the outer statement handles a conflict would count instead.
    const std::string keep = " BEGIN DELETE FROM sums WHERE name = '" + name + "' AND id = " + id +
                             "; INSERT INTO sums VALUES ('" + name + "', " + id + ", jg_sum(" + content +
                             ")); END";
    db.exec("CREATE TRIGGER " + name + "_new AFTER INSERT ON " + name + keep);
    db.exec("CREATE TRIGGER " + name + "_changed AFTER UPDATE ON " + name + keep);
    db.exec("CREATE TRIGGER " + name + "_gone AFTER DELETE ON " + name +
            " BEGIN DELETE FROM sums WHERE name = '" + name + "' AND id = " + columnsOf(t.id, "old.") +
            "; END");
    db.exec("INSERT INTO sums SELECT '" + name + "', " + columnsOf(t.id, "") + ", jg_sum(" +
            columnsOf(t.content, "") + ") FROM " + name);
}

} // namespace

void addSums(SQLite::Database& db) {
    db.exec("CREATE TABLE sums (name TEXT NOT NULL, id TEXT NOT NULL, sum TEXT NOT NULL, "
            "PRIMARY KEY (name, id)) WITHOUT ROWID");
    for (const SummedTable& t : kTables)
        keepSums(db, t.name == std::string_view(kPromises3.name) ? kPromises3 : t);
}

void addPromiseDetails(SQLite::Database& db) {
    db.exec("ALTER TABLE promises ADD COLUMN details TEXT NOT NULL DEFAULT ''");
    for (const char* when : {"new", "changed", "gone"}) db.exec(std::string("DROP TRIGGER promises_") + when);
    db.exec("DELETE FROM sums WHERE name = 'promises'");
    for (const SummedTable& t : kTables)
        if (t.name == std::string_view(kPromises3.name)) keepSums(db, t);
}

} // namespace jg
