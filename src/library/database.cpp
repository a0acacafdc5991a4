#include "library/database.h"

#include <array>

namespace jg {

namespace {

// Numbered migrations: entry i brings schema i to i + 1. Never changed once released.
constexpr std::array kMigrations = {
    R"sql(
CREATE TABLE settings (key TEXT PRIMARY KEY, value TEXT NOT NULL) WITHOUT ROWID;
CREATE TABLE athletes (id TEXT PRIMARY KEY, name TEXT NOT NULL, document TEXT NOT NULL) WITHOUT ROWID;
CREATE TABLE submissions (
    id TEXT PRIMARY KEY,
    athlete TEXT NOT NULL REFERENCES athletes(id),
    received TEXT NOT NULL,
    promised TEXT,
    document TEXT NOT NULL) WITHOUT ROWID;
CREATE TABLE media (hash TEXT PRIMARY KEY, extension TEXT NOT NULL, bytes INTEGER NOT NULL) WITHOUT ROWID;
CREATE TABLE clips (
    id TEXT PRIMARY KEY,
    submission TEXT NOT NULL REFERENCES submissions(id),
    media TEXT NOT NULL REFERENCES media(hash)) WITHOUT ROWID;
CREATE TABLE reviews (
    id TEXT PRIMARY KEY,
    submission TEXT NOT NULL REFERENCES submissions(id),
    athlete TEXT NOT NULL REFERENCES athletes(id),
    date TEXT NOT NULL,
    stage TEXT NOT NULL,
    document TEXT NOT NULL) WITHOUT ROWID;
CREATE TABLE promises (
    row INTEGER PRIMARY KEY,
    athlete TEXT NOT NULL REFERENCES athletes(id),
    text TEXT NOT NULL,
    due TEXT,
    settled INTEGER NOT NULL DEFAULT 0);
CREATE TABLE outbox (
    id TEXT PRIMARY KEY,
    review TEXT NOT NULL REFERENCES reviews(id),
    recipient TEXT NOT NULL,
    subject TEXT NOT NULL,
    file TEXT NOT NULL,
    state TEXT NOT NULL,
    reason TEXT NOT NULL DEFAULT '',
    at INTEGER NOT NULL) WITHOUT ROWID;
)sql"};

int schemaOf(SQLite::Database& db) {
    return db.execAndGet("PRAGMA user_version").getInt();
}

} // namespace

Result<std::unique_ptr<SQLite::Database>> openDatabase(const std::filesystem::path& file) {
    try {
        auto db = std::make_unique<SQLite::Database>(file.string(),
                                                     SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE, 5000);
        db->exec("PRAGMA journal_mode = WAL");
        db->exec("PRAGMA synchronous = FULL");
        db->exec("PRAGMA foreign_keys = ON");
        const int found = schemaOf(*db);
        if (found > kSchemaVersion)
            return fail(ErrorCode::Refused, "This library was made by a newer version of the program. Update "
                                            "it and open the library again.");
        for (int version = found; version < kSchemaVersion; ++version) {
            SQLite::Transaction transaction(*db, SQLite::TransactionBehavior::IMMEDIATE);
            db->exec(kMigrations.at(static_cast<std::size_t>(version)));
            db->exec("PRAGMA user_version = " + std::to_string(version + 1));
            transaction.commit();
        }
        return db;
    } catch (const SQLite::Exception& e) {
        return fail(ErrorCode::Damaged, file.string() + " can't be opened as a library (" + e.what() +
                                            "). If it is damaged, restore a backup.");
    }
}

} // namespace jg
