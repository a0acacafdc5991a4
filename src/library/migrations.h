// SPDX-License-Identifier: GPL-3.0-or-later
// The schema, step by step. Inside the library room only.
#pragma once

#include "library/schema_version.h"

#include <SQLiteCpp/SQLiteCpp.h>

#include <filesystem>

namespace jg {

/// Brings a database of schema `version` to `version + 1`, within the transaction that is open, and the files
/// of the library beside it (none when `library` is empty). Broken off it is done again to its end. Foreign
/// keys must be off. Throws SQLite::Exception, or Unfit for a row that can't be read.
void migrateFrom(int version, SQLite::Database& db, const std::filesystem::path& library);

/// Lists leave their settings for tables, films lose their endings, every column is summed. Never changed
/// once released.
void toSchema5(SQLite::Database& db, const std::filesystem::path& library);

} // namespace jg
