// A checksum of every row, made by the database itself whenever one is written. Inside the library room only.
#pragma once

#include <SQLiteCpp/SQLiteCpp.h>

#include <span>
#include <string>

namespace jg {

/// A table whose rows are summed: how a row is called and what of it counts, as SQL with "@" before each of
/// its columns.
struct SummedTable {
    const char* name;
    const char* id;
    const char* content;
};
std::span<const SummedTable> summedTables();

/// SQL with "@" put in place: "new." within a trigger, nothing within a query.
std::string columnsOf(const char* sql, const char* prefix);

/// Gives a connection jg_sum(text), the SHA-256 as hex. Every connection needs it: the triggers call it.
void addSumFunction(SQLite::Database& db);

/// The table of sums, the triggers that keep it, and the sums of the rows there are (schema 3). Never changed
/// once released.
void addSums(SQLite::Database& db);

/// Promises get details: who owes, when it was made and how it ended (schema 4). Never changed once released.
void addPromiseDetails(SQLite::Database& db);

} // namespace jg
