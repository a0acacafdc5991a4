// SPDX-License-Identifier: GPL-3.0-or-later
// The sums of schemas 3 and 4, as they were released.
#include "library/checksums.h"
#include "library/rows.h"

#include <string_view>

namespace jg {

namespace {

const SummedTable kTables4[] = {
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

/// Of promises before they had details.
const SummedTable kPromises3 = {"promises", "@row",
                                "@athlete || '|' || @text || '|' || ifnull(@due, '') || '|' || @settled"};

void keepSums4(SQLite::Database& db, const SummedTable& t) {
    const std::string &name = t.name, id = columnsOf(t.id, "new."), content = columnsOf(t.content, "new.");
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

void addSums3(SQLite::Database& db) {
    db.exec("CREATE TABLE sums (name TEXT NOT NULL, id TEXT NOT NULL, sum TEXT NOT NULL, "
            "PRIMARY KEY (name, id)) WITHOUT ROWID");
    for (const SummedTable& t : kTables4) keepSums4(db, t.name == kPromises3.name ? kPromises3 : t);
}

void addPromiseDetails4(SQLite::Database& db) {
    db.exec("ALTER TABLE promises ADD COLUMN details TEXT NOT NULL DEFAULT ''");
    for (const char* when : {"new", "changed", "gone"}) db.exec(std::string("DROP TRIGGER promises_") + when);
    db.exec("DELETE FROM sums WHERE name = 'promises'");
    for (const SummedTable& t : kTables4)
        if (t.name == kPromises3.name) keepSums4(db, t);
}

std::vector<AlteredRow> alteredIn4(SQLite::Database& db) {
    std::vector<AlteredRow> all;
    for (const SummedTable& t : kTables4) {
        const std::string own = t.name + ".", id = columnsOf(t.id, own.c_str());
        const std::string sql = "SELECT " + id + " FROM " + t.name + " LEFT JOIN sums s ON s.name = '" +
                                t.name + "' AND s.id = CAST(" + id +
                                " AS TEXT) WHERE s.sum IS NOT NULL AND s.sum IS NOT jg_sum(" +
                                columnsOf(t.content, own.c_str()) + ")";
        for (std::string& row : rowsOf(db, sql.c_str(), [](auto& q) { return textAt(q, 0); }))
            all.push_back({t.name, std::move(row)});
    }
    return all;
}

} // namespace jg
