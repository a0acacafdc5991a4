// SPDX-License-Identifier: GPL-3.0-or-later
#include "tests/support/harm.h"

#include "library/rows.h"

namespace jg::test {

void harm(const std::filesystem::path& library, const std::string& sql) {
    SQLite::Database db((library / "library.sqlite").string(), SQLite::OPEN_READWRITE);
    db.exec("PRAGMA foreign_keys = OFF");
    const auto triggers = rowsOf(db, "SELECT name, sql FROM sqlite_master WHERE type = 'trigger'",
                                 [](auto& q) { return std::pair(textAt(q, 0), textAt(q, 1)); });
    for (const auto& [name, text] : triggers) db.exec("DROP TRIGGER " + name);
    db.exec(sql);
    for (const auto& [name, text] : triggers) db.exec(text);
}

} // namespace jg::test
