// SPDX-License-Identifier: GPL-3.0-or-later
#include "library/database.h"

#include "base/unfit.h"
#include "library/checksums.h"
#include "library/contents.h"
#include "library/migrations.h"
#include "library/schema.h"

#include <sqlite3.h>

#include <chrono>
#include <stdexcept>
#include <thread>
#include <unistd.h>

namespace jg {

namespace {

constexpr int kBusyMs = 10000;

int schemaOf(SQLite::Database& db) {
    return db.execAndGet("PRAGMA user_version").getInt();
}

/// Two programs may set the mode at once: one of them is told at once that the file is busy, whatever the
/// time-out.
void setWriteAhead(SQLite::Database& db) {
    constexpr int kTries = 100;
    for (int i = 0;; ++i) {
        try {
            db.exec("PRAGMA journal_mode = WAL");
            return;
        } catch (const SQLite::Exception& e) {
            if (i == kTries || (e.getErrorCode() != SQLITE_BUSY && e.getErrorCode() != SQLITE_LOCKED)) throw;
            std::this_thread::sleep_for(std::chrono::milliseconds(20));
        }
    }
}

/// Why a database of that schema is none of ours, if so: one flipped bit of the number would have it migrated
/// for ever, a trigger of a stranger's would write what nobody asked for.
Status mustBeOurs(SQLite::Database& db) {
    const int schema = schemaOf(db);
    if (schema > kSchemaVersion) return fail(ErrorCode::Refused, msg("database.newer"));
    if (schema < 0) return fail(ErrorCode::Damaged, msg("database.no-such-schema", {{"schema", schema}}));
    if (const auto stranger = strangerIn(db, schema))
        return fail(ErrorCode::Damaged, msg("database.stranger", {{"name", *stranger}}));
    return Done{};
}

/// An emptied library is not a new one.
bool wasEmptied(SQLite::Database& db, const std::filesystem::path& library) {
    if (schemaOf(db) != 0) return false;
    std::error_code ec;
    for (const FolderFacts& f : kLibraryFolders)
        if (f.kept && std::filesystem::is_directory(library / f.name, ec) &&
            !std::filesystem::is_empty(library / f.name, ec))
            return true;
    return false;
}

/// One step a transaction; the version is read again inside it, for another program may have been quicker.
void migrate(SQLite::Database& db, const std::filesystem::path& library) {
    db.exec("PRAGMA foreign_keys = OFF");
    while (schemaOf(db) < kSchemaVersion) {
        SQLite::Transaction transaction(db, SQLite::TransactionBehavior::IMMEDIATE);
        const int version = schemaOf(db);
        if (version >= kSchemaVersion) break;
        migrateFrom(version, db, library);
        db.exec("PRAGMA user_version = " + std::to_string(version + 1));
        transaction.commit();
    }
    db.exec("PRAGMA foreign_keys = ON");
}

bool mayWrite(const std::filesystem::path& file) {
    std::error_code ec;
    const bool there = std::filesystem::exists(file, ec);
    return ::eaccess(file.parent_path().c_str(), W_OK) == 0 && (!there || ::eaccess(file.c_str(), W_OK) == 0);
}

/// A path within a URI of SQLite.
std::string escaped(const std::string& path) {
    std::string out;
    for (const char c : path)
        out += c == '%' ? "%25" : c == '?' ? "%3f" : c == '#' ? "%23" : std::string(1, c);
    return out;
}

Result<OpenDatabase> openToRead(const std::filesystem::path& file) {
    // Nothing can be written beside it either, so no other program can be writing it now.
    auto db = std::make_unique<SQLite::Database>("file:" + escaped(file.string()) + "?immutable=1",
                                                 SQLite::OPEN_READONLY | SQLite::OPEN_URI);
    addSumFunction(*db);
    if (const Status ours = mustBeOurs(*db); !ours) return ours.error();
    if (schemaOf(*db) < kSchemaVersion) return fail(ErrorCode::Refused, msg("database.older"));
    return OpenDatabase{std::move(db), true};
}

} // namespace

Result<OpenDatabase> openDatabase(const std::filesystem::path& file) {
    try {
        if (!mayWrite(file)) return openToRead(file);
        auto db = std::make_unique<SQLite::Database>(file.string(),
                                                     SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE, kBusyMs);
        addSumFunction(*db);
        db->exec("PRAGMA trusted_schema = OFF");
        setWriteAhead(*db);
        db->exec("PRAGMA synchronous = FULL");
        if (const Status ours = mustBeOurs(*db); !ours) return ours.error();
        if (wasEmptied(*db, file.parent_path())) return fail(ErrorCode::Damaged, msg("database.emptied"));
        migrate(*db, file.parent_path());
        return OpenDatabase{std::move(db), false};
    } catch (const std::exception& e) {
        return fail(ErrorCode::Damaged,
                    msg("database.cant-open", {{"file", file.string()}, {"why", whyUnfit(e)}}));
    }
}

} // namespace jg
