// The library's database: opening, migrations, rows. Inside the library room only.
#pragma once

#include "base/result.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <SQLiteCpp/VariadicBind.h>

#include <filesystem>
#include <memory>

namespace jg {

/// The newest schema this program knows.
inline constexpr int kSchemaVersion = 1;

/// Opens (or creates) library.sqlite with WAL and foreign keys and brings it to the newest schema.
/// Errors: Damaged, Refused (made by a newer program), WriteFailed.
Result<std::unique_ptr<SQLite::Database>> openDatabase(const std::filesystem::path& file);

} // namespace jg
