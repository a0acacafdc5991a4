// The schema, step by step. Inside the library room only.
#pragma once

#include <SQLiteCpp/SQLiteCpp.h>

namespace jg {

/// The newest schema this program knows.
inline constexpr int kSchemaVersion = 4;

/// Brings a database of schema `version` to `version + 1`, within the transaction that is open. Foreign keys
/// must be off. Throws SQLite::Exception, or Unfit for a row that can't be read.
void migrateFrom(int version, SQLite::Database& db);

} // namespace jg
