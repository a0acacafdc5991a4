#include "library/sqlite_store.h"

#include "base/file_store.h"
#include "library/database.h"
#include "library/rows.h"
#include "library/sha256.h"
#include "review/message_json.h"
#include "review/review_json.h"

#include <QString>
#include <QStringList>

#include <sqlite3.h>

#include <algorithm>
#include <cerrno>
#include <utility>

namespace jg {

SqliteStore::SqliteStore() = default;
SqliteStore::~SqliteStore() = default;

Status SqliteStore::openFile(const std::filesystem::path& file) {
    auto opened = openDatabase(file);
    if (!opened) return opened.error();
    file_ = file;
    db_ = std::move(opened->db);
    readOnly_ = opened->readOnly;
    return Done{};
}

Status SqliteStore::mayWrite() const {
    if (lookOnly_) return fail(ErrorCode::Refused, msg("sqlite-store.looked-at-only"));
    if (readOnly_) return fail(ErrorCode::Refused, msg("sqlite-store.this-library-can-only-be-read"));
    return Done{};
}

Status SqliteStore::write(const std::function<void(SQLite::Database&)>& work) {
    if (const Status may = mayWrite(); !may) return may;
    try {
        SQLite::Transaction transaction(*db_, SQLite::TransactionBehavior::IMMEDIATE);
        work(*db_);
        transaction.commit();
        return Done{};
    } catch (const UnreadableRow& e) {
        return fail(ErrorCode::Damaged, e.why);
    } catch (const SQLite::Exception& e) {
        if (e.getErrorCode() == SQLITE_FULL) return writeError(file_, ENOSPC);
        if (e.getErrorCode() == SQLITE_BUSY)
            return fail(ErrorCode::WriteFailed, msg("sqlite-store.another-program-is-writing-to-this"));
        return fail(ErrorCode::WriteFailed, msg("sqlite-store.the-library-cant-be-written-e"));
    }
}

Status SqliteStore::snapshot(const std::filesystem::path& file) {
    return read([&](SQLite::Database& db) { run(db, "VACUUM INTO ?", file.string()); });
}

Status SqliteStore::wipeDeleted() {
    return read([](SQLite::Database& db) {
        db.exec("VACUUM"); // writes all that is left anew
        db.exec("PRAGMA wal_checkpoint(TRUNCATE)");
    });
}

Status SqliteStore::read(const std::function<void(SQLite::Database&)>& work) {
    try {
        work(*db_);
        return Done{};
    } catch (const UnreadableRow& e) {
        return fail(ErrorCode::Damaged, e.why);
    } catch (const SQLite::Exception& e) {
        return fail(ErrorCode::Damaged, msg("sqlite-store.the-library-cant-be-read-e"));
    }
}

namespace {

Athlete athleteAt(SQLite::Statement& row, int column) {
    return orUnreadable(athleteFromJson(textAt(row, column)));
}

void putAthlete(SQLite::Database& db, const Athlete& a) {
    run(db,
        "INSERT INTO athletes VALUES (?,?,?) ON CONFLICT(id) DO UPDATE SET name = excluded.name, document = "
        "excluded.document",
        a.id.value, a.fullName(), toJson(a));
}

/// The submission with what the film check found of its clips.
Submission submissionAt(SQLite::Database& db, SQLite::Statement& row, int column) {
    Submission s = orUnreadable(submissionFromJson(textAt(row, column)));
    SQLite::Statement clips(db, "SELECT id, survey FROM clips WHERE submission = ?");
    clips.bind(1, s.id.value);
    while (clips.executeStep()) {
        const std::string id = textAt(clips, 0), survey = textAt(clips, 1);
        const auto clip =
            std::find_if(s.clips.begin(), s.clips.end(), [&](const Clip& c) { return c.id.value == id; });
        if (clip != s.clips.end() && !survey.empty()) orUnreadable(readSurvey(survey, *clip));
    }
    return s;
}

Error noSuch(const char* what, const std::string& id) {
    return fail(ErrorCode::NotFound, msg("sqlite-store.there-is-no-what-id-in",
                                         {{"what", msg(std::string("document.") + what)}, {"id", id}}));
}

} // namespace

Result<std::vector<Athlete>> SqliteStore::athletes() {
    std::vector<Athlete> all;
    const Status done = read([&](SQLite::Database& db) {
        all = readableRowsOf(db, "SELECT document FROM athletes ORDER BY name, id", &leftOut_,
                             [](auto& row) { return athleteAt(row, 0); });
    });
    if (!done) return done.error();
    return all;
}

Result<Athlete> SqliteStore::athlete(const AthleteId& id) {
    std::vector<Athlete> found;
    const Status done = read([&](SQLite::Database& db) {
        found = rowsOf(
            db, "SELECT document FROM athletes WHERE id = ?", [](auto& row) { return athleteAt(row, 0); },
            id.value);
    });
    if (!done) return done.error();
    if (found.empty()) return noSuch("athlete", id.value);
    return found.front();
}

Status SqliteStore::save(const Athlete& a) {
    return write([&](SQLite::Database& db) { putAthlete(db, a); });
}

Result<std::vector<AthleteRow>> SqliteStore::athleteRows(const std::string& search) {
    const QStringList words = QString::fromStdString(search).split(' ', Qt::SkipEmptyParts);
    std::vector<AthleteRow> all;
    const Status done = read([&](SQLite::Database& db) {
        // Names first: only of those that match are the documents read and the reviews counted, by their
        // index.
        SQLite::Statement names(db, "SELECT name, id FROM athletes ORDER BY name, id");
        SQLite::Statement one(db,
                              "SELECT document, (SELECT count(*) FROM reviews WHERE athlete = a.id), (SELECT "
                              "max(date) FROM reviews WHERE athlete = a.id) FROM athletes a WHERE id = ?");
        while (names.executeStep()) {
            const QString name = QString::fromStdString(textAt(names, 0));
            if (!std::all_of(words.begin(), words.end(),
                             [&](const QString& w) { return name.contains(w, Qt::CaseInsensitive); }))
                continue;
            one.reset();
            one.bind(1, textAt(names, 1));
            if (!one.executeStep()) continue;
            try {
                all.push_back({athleteAt(one, 0), one.getColumn(1).getInt(), dateAt(one, 2)});
            } catch (const UnreadableRow& e) {
                leftOut_.push_back(msg("library.left-out", {{"name", textAt(names, 0)}, {"why", e.why}}));
            }
        }
    });
    if (!done) return done.error();
    return all;
}

Result<std::vector<Submission>> SqliteStore::submissions() {
    std::vector<Submission> all;
    const Status done = read([&](SQLite::Database& db) {
        all = readableRowsOf(db, "SELECT document FROM submissions ORDER BY received, id", &leftOut_,
                             [&](auto& row) { return submissionAt(db, row, 0); });
    });
    if (!done) return done.error();
    return all;
}

Result<std::vector<Submission>> SqliteStore::painOf(const AthleteId& athlete) {
    std::vector<Submission> all;
    const Status done = read([&](SQLite::Database& db) {
        all = rowsOf(
            db,
            "SELECT document FROM submissions WHERE athlete = ? AND json_extract(document, '$.pain') <> '' "
            "ORDER BY received DESC, id",
            [&](auto& row) { return submissionAt(db, row, 0); }, athlete.value);
    });
    if (!done) return done.error();
    return all;
}

Result<std::vector<AthleteId>> SqliteStore::athletesOfMedia(const std::string& hash) {
    std::vector<AthleteId> all;
    const Status done = read([&](SQLite::Database& db) {
        all = rowsOf(
            db,
            "SELECT DISTINCT s.athlete FROM clips c JOIN submissions s ON s.id = c.submission WHERE c.media "
            "= ? "
            "ORDER BY s.athlete",
            [](auto& row) { return AthleteId{textAt(row, 0)}; }, hash);
    });
    if (!done) return done.error();
    return all;
}

Result<Submission> SqliteStore::submission(const SubmissionId& id) {
    std::vector<Submission> found;
    const Status done = read([&](SQLite::Database& db) {
        found = rowsOf(
            db, "SELECT document FROM submissions WHERE id = ?",
            [&](auto& row) { return submissionAt(db, row, 0); }, id.value);
    });
    if (!done) return done.error();
    if (found.empty()) return noSuch("submission", id.value);
    return found.front();
}

Status SqliteStore::save(const Submission& sub, const Athlete* newAthlete) {
    return write([&](SQLite::Database& db) {
        if (newAthlete) putAthlete(db, *newAthlete);
        run(db,
            "INSERT INTO submissions (id, athlete, received, promised, document) VALUES "
            "(?,?,?,NULLIF(?,''),?) "
            "ON CONFLICT(id) DO UPDATE SET received = excluded.received, promised = excluded.promised, "
            "document = excluded.document",
            sub.id.value, sub.athlete.value, isoDate(sub.received),
            sub.promised ? isoDate(*sub.promised) : std::string(), toJson(sub));
        for (const Clip& c : sub.clips)
            run(db,
                "INSERT INTO clips (id, submission, media, survey) VALUES (?,?,?,?) ON CONFLICT(id) DO "
                "UPDATE "
                "SET media = excluded.media, survey = excluded.survey",
                c.id.value, sub.id.value, c.mediaHash, surveyToJson(c));
    });
}

namespace {

constexpr const char* kPromise = "SELECT row, athlete, text, due, details, settled FROM promises ";

Promise promiseAt(SQLite::Statement& q) {
    Promise p = orUnreadable(promiseFromJson(textAt(q, 4)));
    if (p.open() && q.getColumn(5).getInt() != 0) p.kept = Kept::Kept; // by an older version
    p.row = q.getColumn(0).getInt64();
    p.athlete.value = textAt(q, 1);
    p.text = messageFromText(textAt(q, 2));
    p.due = dateAt(q, 3);
    return p;
}

} // namespace

template <typename... Values>
Result<std::vector<Promise>> SqliteStore::promisesWhere(const char* which, const Values&... values) {
    std::vector<Promise> all;
    const std::string sql = std::string(kPromise) + which;
    const Status done = read([&](SQLite::Database& db) {
        all = readableRowsOf(db, sql.c_str(), &leftOut_, promiseAt, values...);
    });
    if (!done) return done.error();
    return all;
}

Result<std::vector<Promise>> SqliteStore::promises() {
    return promisesWhere("ORDER BY settled, due, row");
}

Result<std::vector<Promise>> SqliteStore::openPromises(Date dueBy) {
    return promisesWhere("WHERE settled = 0 AND (due IS NULL OR due <= ?) ORDER BY due IS NULL, due, row",
                         isoDate(dueBy));
}

Result<int> SqliteStore::promisesDueAfter(Date day) {
    return count(
        ("SELECT count(*) FROM promises WHERE settled = 0 AND due > '" + isoDate(day) + "'").c_str());
}

Result<std::vector<Promise>> SqliteStore::promisesTo(const AthleteId& athlete) {
    return promisesWhere("WHERE athlete = ? ORDER BY settled, due, row", athlete.value);
}

Status SqliteStore::save(const Promise& p) {
    return write([&](SQLite::Database& db) {
        run(db,
            "INSERT INTO promises (row, athlete, text, due, settled, details) VALUES "
            "(NULLIF(?,0),?,?,NULLIF(?,''),?,?) ON CONFLICT(row) DO UPDATE SET text = excluded.text, due = "
            "excluded.due, settled = excluded.settled, details = excluded.details",
            p.row, p.athlete.value, messageAsText(p.text), p.due ? isoDate(*p.due) : std::string(),
            p.open() ? 0 : 1, toJson(p));
    });
}

std::vector<Message> SqliteStore::takeLeftOut() {
    return std::exchange(leftOut_, {});
}

Result<int> SqliteStore::count(const char* sql) {
    int n = 0;
    const Status done = read([&](SQLite::Database& db) { n = db.execAndGet(sql).getInt(); });
    if (!done) return done.error();
    return n;
}

Result<int> SqliteStore::athleteCount() {
    return count("SELECT count(*) FROM athletes");
}

Result<std::string> SqliteStore::keepPlaybook(const std::string& text) {
    const std::string hash = sha256(text);
    if (playbookText(hash)) return hash;
    const Status done = write([&](SQLite::Database& db) {
        run(db, "INSERT INTO playbooks VALUES (?,?) ON CONFLICT(hash) DO NOTHING", hash, text);
    });
    if (!done) return done.error();
    return hash;
}

Result<std::string> SqliteStore::playbookText(const std::string& hash) {
    std::vector<std::string> found;
    const Status done = read([&](SQLite::Database& db) {
        found = rowsOf(
            db, "SELECT document FROM playbooks WHERE hash = ?", [](auto& q) { return textAt(q, 0); }, hash);
    });
    if (!done) return done.error();
    if (found.empty()) return noSuch("playbook", hash);
    return found.front();
}

std::string SqliteStore::setting(const std::string& key, const std::string& otherwise) {
    std::vector<std::string> found;
    const Status done = read([&](SQLite::Database& db) {
        found = rowsOf(
            db, "SELECT value FROM settings WHERE key = ?", [](auto& q) { return textAt(q, 0); }, key);
    });
    return done && !found.empty() ? found.front() : otherwise;
}

Status SqliteStore::setSetting(const std::string& key, const std::string& value) {
    return write([&](SQLite::Database& db) {
        run(db, "INSERT INTO settings VALUES (?,?) ON CONFLICT(key) DO UPDATE SET value = excluded.value",
            key, value);
    });
}

} // namespace jg
