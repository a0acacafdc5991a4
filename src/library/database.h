// SPDX-License-Identifier: GPL-3.0-or-later
// The library's database: opening it and bringing it to the newest schema. Inside the library room only.
#pragma once

#include "base/result.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <SQLiteCpp/VariadicBind.h>

#include <filesystem>
#include <memory>

namespace jg {

/// An open database; `readOnly` when its folder lets nothing be written.
struct OpenDatabase {
    std::unique_ptr<SQLite::Database> db;
    bool readOnly = false;
};

/// Opens (or creates) library.sqlite with WAL and foreign keys and brings it to the newest schema. Several
/// processes may do so at once: one brings it there, the others find it done. Where nothing can be written it
/// is opened to read. Errors: Damaged (also a schema that no version wrote, and an empty database beside
/// films), Refused (made by a newer program; or older and not to be written), WriteFailed.
Result<OpenDatabase> openDatabase(const std::filesystem::path& file);

} // namespace jg
