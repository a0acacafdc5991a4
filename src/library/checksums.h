// SPDX-License-Identifier: GPL-3.0-or-later
// A checksum of every row, made by the database itself whenever one is written. Inside the library room only.
#pragma once

#include "library/list_entries.h"

#include <SQLiteCpp/SQLiteCpp.h>

#include <string>
#include <vector>

namespace jg {

/// A table whose rows are summed: how a row is called and what of it counts, as SQL with "@" before each of
/// its columns.
struct SummedTable {
    std::string name, id, content;
};

/// All tables but the sums and the pulse, each with every column.
const std::vector<SummedTable>& summedTables();

/// SQL with "@" put in place: "new." within a trigger, nothing within a query.
std::string columnsOf(const std::string& sql, const char* prefix);

/// Gives a connection jg_sum(text), the SHA-256 as hex. Every connection needs it: the triggers call it.
void addSumFunction(SQLite::Database& db);

/// The sums of every column of every row, kept by triggers, and the pulse, which counts the changes of each
/// table (schema 5). A row whose sum was wrong before stays known as altered. Never changed once released.
void sumEverything(SQLite::Database& db);

/// The steps of older schemas. Never changed.
void addSums3(SQLite::Database& db);
void addPromiseDetails4(SQLite::Database& db);
/// Names and ids of the rows whose sums of schema 4 are wrong.
struct AlteredRow {
    std::string table, id;
};
std::vector<AlteredRow> alteredIn4(SQLite::Database& db);

} // namespace jg
