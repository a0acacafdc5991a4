// SPDX-License-Identifier: GPL-3.0-or-later
#include "library/schema.h"

#include "base/mutex.h"
#include "library/checksums.h"
#include "library/migrations.h"
#include "library/rows.h"

#include <array>
#include <cctype>
#include <map>

namespace jg {

namespace {

using Shape = std::map<std::string, std::string>; ///< name and SQL

/// Without white space and quotes: SQLite writes a table that was altered or renamed in its own way.
std::string plainSql(const std::string& sql) {
    std::string plain;
    for (const char c : sql)
        if (c != '"' && std::isspace(static_cast<unsigned char>(c)) == 0) plain += c;
    return plain;
}

Shape shapeOf(SQLite::Database& db) {
    Shape shape;
    SQLite::Statement all(db,
                          "SELECT type || ' ' || name, tbl_name || ' ' || ifnull(sql, '') FROM sqlite_master "
                          "WHERE name NOT LIKE 'sqlite\\_%' ESCAPE '\\'");
    while (all.executeStep()) shape[textAt(all, 0)] = plainSql(textAt(all, 1));
    return shape;
}

/// As the migrations make it out of nothing.
Shape madeShape(int version) {
    SQLite::Database fresh(":memory:", SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE);
    addSumFunction(fresh);
    for (int v = 0; v < version; ++v) migrateFrom(v, fresh, {});
    return shapeOf(fresh);
}

const Shape& expectedShape(int version) {
    static Mutex mutex;
    static std::array<std::optional<Shape>, kSchemaVersion + 1> made;
    const Holding lock(mutex);
    auto& shape = made.at(static_cast<std::size_t>(version));
    if (!shape) shape = madeShape(version);
    return *shape;
}

} // namespace

std::optional<std::string> strangerIn(SQLite::Database& db, int version) {
    const Shape &wanted = expectedShape(version), found = shapeOf(db);
    for (const auto& [name, sql] : found)
        if (const auto it = wanted.find(name); it == wanted.end() || it->second != sql) return name;
    for (const auto& [name, sql] : wanted)
        if (!found.contains(name)) return name;
    return std::nullopt;
}

} // namespace jg
