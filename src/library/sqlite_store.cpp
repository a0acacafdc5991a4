// SPDX-License-Identifier: GPL-3.0-or-later
#include "library/sqlite_store.h"

#include "base/clock.h"
#include "base/file_store.h"
#include "base/ids.h"
#include "base/unfit.h"
#include "library/database.h"
#include "library/rows.h"
#include "library/sha256.h"
#include "review/record/message_json.h"
#include "review/record/review_json.h"

#include <QString>
#include <QStringList>

#include <sqlite3.h>

#include <algorithm>
#include <cerrno>
#include <chrono>
#include <thread>
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
    if (look_.taken()) return fail(ErrorCode::Refused, msg("sqlite-store.looked-at-only"));
    if (LookLock::isTaken(file_.parent_path()))
        return fail(ErrorCode::Refused, msg("sqlite-store.looked-at-elsewhere"));
    if (readOnly_) return fail(ErrorCode::Refused, msg("sqlite-store.this-library-can-only-be-read"));
    return Done{};
}

Status SqliteStore::lookOnly(bool on) {
    if (!on) return look_.drop(), Done{};
    if (readOnly_) return Done{};
    if (auto taken = look_.take(file_.parent_path()); !taken) return taken;
    // Who was writing has ended when this begins; who begins later sees the lock.
    bool handingOver = false;
    const Status waited = read([&](SQLite::Database& db) {
        const SQLite::Transaction turn(db, SQLite::TransactionBehavior::IMMEDIATE);
        handingOver = isHandedOver(db, SystemClock().nowUnix());
    });
    if (waited && !handingOver) return Done{};
    look_.drop();
    return waited ? Status(fail(ErrorCode::Refused, msg("sqlite-store.look-later"))) : waited;
}

Status SqliteStore::write(const std::function<void(SQLite::Database&)>& work) {
    if (const Status may = mayWrite(); !may) return may;
    try {
        SQLite::Transaction transaction(*db_, SQLite::TransactionBehavior::IMMEDIATE);
        if (const Status still = mayWrite(); !still) return still; // names went out of sight while it waited
        work(*db_);
        transaction.commit();
        return Done{};
    } catch (const Rejected& e) {
        return e.why;
    } catch (const UnreadableRow& e) {
        return fail(ErrorCode::Damaged, e.why);
    } catch (const SQLite::Exception& e) {
        if (e.getErrorCode() == SQLITE_FULL) return writeError(file_, ENOSPC);
        if (e.getErrorCode() == SQLITE_BUSY) return fail(ErrorCode::WriteFailed, msg("sqlite-store.busy"));
        return fail(ErrorCode::WriteFailed, msg("sqlite-store.the-library-cant-be-written-e"));
    } catch (const std::exception& e) { // a text that is no UTF-8, or no memory
        return fail(ErrorCode::BadInput, msg("sqlite-store.cant-be-kept", {{"why", whyUnfit(e)}}));
    }
}

Status SqliteStore::snapshot(const std::filesystem::path& file) {
    return read([&](SQLite::Database& db) { run(db, "VACUUM INTO ?", file.string()); });
}

Status SqliteStore::wipeDeleted() {
    Status emptied = Done{};
    const Status done = read([&](SQLite::Database& db) {
        db.exec("VACUUM"); // writes all that is left anew
        constexpr int kTries = 40;
        for (int i = 0; i < kTries; ++i) { // while another program reads, its log can't be emptied
            SQLite::Statement checkpoint(db, "PRAGMA wal_checkpoint(TRUNCATE)");
            if (!checkpoint.executeStep() || checkpoint.getColumn(0).getInt() == 0) return;
            std::this_thread::sleep_for(std::chrono::milliseconds(50));
        }
        emptied = fail(ErrorCode::WriteFailed, msg("sqlite-store.log-in-use"));
    });
    return done ? emptied : done;
}

Status SqliteStore::read(const std::function<void(SQLite::Database&)>& work) {
    try {
        work(*db_);
        return Done{};
    } catch (const Rejected& e) {
        return e.why;
    } catch (const UnreadableRow& e) {
        return fail(ErrorCode::Damaged, e.why);
    } catch (const SQLite::Exception& e) {
        return fail(ErrorCode::Damaged, msg("sqlite-store.the-library-cant-be-read-e"));
    } catch (const std::exception& e) {
        return fail(ErrorCode::Damaged, whyUnfit(e));
    }
}

namespace {

Error noSuch(const char* what, const std::string& id) {
    return fail(ErrorCode::NotFound,
                msg("sqlite-store.no-row", {{"what", msg(std::string("document.") + what)}, {"id", id}}));
}

Athlete athleteAt(SQLite::Statement& row, int column) {
    return orUnreadable(athleteFromJson(textAt(row, column)));
}

/// A new id must be one, and nobody's here.
void mustBeFree(SQLite::Database& db, const char* table, const std::string& id) {
    SQLite::Statement known(db, std::string("SELECT 1 FROM ") + table + " WHERE id = ?");
    known.bind(1, id);
    if (!isId(id) || known.executeStep())
        throw Rejected{fail(ErrorCode::Refused, msg("sqlite-store.id-taken", {{"id", id}}))};
}

/// What is written can be read again.
template <typename T>
std::string checked(const T& value, Result<T> (*read)(std::string_view)) {
    std::string document = toJson(value);
    if (auto again = read(document); !again) throw Rejected{fail(ErrorCode::BadInput, again.error().text)};
    return document;
}

void insertAthlete(SQLite::Database& db, const Athlete& a) {
    mustBeFree(db, "athletes", a.id.value);
    run(db, "INSERT INTO athletes (id, name, document) VALUES (?,?,?)", a.id.value, a.fullName(),
        checked(a, athleteFromJson));
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
        if (clip == s.clips.end() || survey.empty()) continue;
        // It is made again by looking at the film: it hides no submission.
        if (const Status read = readSurvey(survey, *clip); !read) clip->check = {read.error().text};
    }
    return s;
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

namespace {

Athlete changeAthlete(SQLite::Database& db, const AthleteId& id, const ChangeOf<Athlete>& what) {
    const auto found = rowsOf(
        db, "SELECT document FROM athletes WHERE id = ?", [](auto& row) { return athleteAt(row, 0); },
        id.value);
    if (found.empty()) throw Rejected{noSuch("athlete", id.value)};
    Athlete now = found.front();
    orReject(what(now));
    now.id = id;
    if (now != found.front())
        run(db, "UPDATE athletes SET name = ?, document = ? WHERE id = ?", now.fullName(),
            checked(now, athleteFromJson), id.value);
    return now;
}

} // namespace

Status SqliteStore::add(const std::vector<Athlete>& athletes, const std::vector<AthleteEdit>& edits) {
    return write([&](SQLite::Database& db) {
        for (const Athlete& a : athletes) insertAthlete(db, a);
        for (const AthleteEdit& edit : edits)
            changeAthlete(db, edit.shown.id, [&](Athlete& now) { return applyEdit(edit, now); });
    });
}

Result<Athlete> SqliteStore::change(const AthleteId& id, const ChangeOf<Athlete>& what) {
    Athlete now;
    const Status done = write([&](SQLite::Database& db) { now = changeAthlete(db, id, what); });
    if (!done) return done.error();
    return now;
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

namespace {

std::optional<SubmissionId> ofMail(SQLite::Database& db, const std::string& mail) {
    const auto found = rowsOf(
        db, "SELECT id FROM submissions WHERE json_extract(document, '$.mail') = ? LIMIT 1",
        [](auto& row) { return SubmissionId{textAt(row, 0)}; }, mail);
    return found.empty() ? std::nullopt : std::optional(found.front());
}

} // namespace

Result<std::optional<SubmissionId>> SqliteStore::submissionOfMail(const std::string& mail) {
    std::optional<SubmissionId> found;
    const Status done = read([&](SQLite::Database& db) { found = ofMail(db, mail); });
    if (!done) return done.error();
    return found;
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

namespace {

void insertClip(SQLite::Database& db, const SubmissionId& submission, const Clip& c) {
    mustBeFree(db, "clips", c.id.value);
    run(db, "INSERT INTO clips (id, submission, media, survey) VALUES (?,?,?,?)", c.id.value,
        submission.value, c.mediaHash, surveyToJson(c));
}

/// Which films a submission has is settled when it comes in; what is known of them may change.
void mustHaveTheSameFilms(const Submission& now, const Submission& was) {
    const auto same = [](const Clip& a, const Clip& b) {
        return a.id == b.id && a.athlete == b.athlete && a.mediaHash == b.mediaHash;
    };
    if (!std::equal(now.clips.begin(), now.clips.end(), was.clips.begin(), was.clips.end(), same))
        throw Rejected{fail(ErrorCode::Internal, msg("sqlite-store.other-films"))};
}

} // namespace

Status SqliteStore::add(const Submission& s, const Athlete* newAthlete) {
    return write([&](SQLite::Database& db) {
        if (newAthlete) insertAthlete(db, *newAthlete);
        mustBeFree(db, "submissions", s.id.value);
        if (!s.mail.empty() && ofMail(db, s.mail))
            throw Rejected{fail(ErrorCode::Refused, msg("sqlite-store.mail-taken-in"))};
        run(db,
            "INSERT INTO submissions (id, athlete, received, promised, document) VALUES "
            "(?,?,?,NULLIF(?,''),?)",
            s.id.value, s.athlete.value, isoDate(s.received),
            s.promised ? isoDate(*s.promised) : std::string(), checked(s, submissionFromJson));
        for (const Clip& c : s.clips) insertClip(db, s.id, c);
    });
}

Result<Submission> SqliteStore::change(const SubmissionId& id, const ChangeOf<Submission>& what) {
    Submission now;
    const Status done = write([&](SQLite::Database& db) {
        const auto found = rowsOf(
            db, "SELECT document FROM submissions WHERE id = ?",
            [&](auto& row) { return submissionAt(db, row, 0); }, id.value);
        if (found.empty()) throw Rejected{noSuch("submission", id.value)};
        const Submission& was = found.front();
        now = was;
        orReject(what(now));
        now.id = id;
        now.athlete = was.athlete;
        mustHaveTheSameFilms(now, was);
        if (now == was) return;
        run(db, "UPDATE submissions SET received = ?, promised = NULLIF(?,''), document = ? WHERE id = ?",
            isoDate(now.received), now.promised ? isoDate(*now.promised) : std::string(),
            checked(now, submissionFromJson), id.value);
        for (const Clip& c : now.clips)
            run(db, "UPDATE clips SET survey = ?1 WHERE id = ?2 AND survey <> ?1", surveyToJson(c),
                c.id.value);
    });
    if (!done) return done.error();
    return now;
}

Result<Submission> Store::change(const SubmissionId& id, const ClipId& clip, const ChangeOf<Clip>& what) {
    return change(id, [&](Submission& s) -> Status {
        const auto it =
            std::find_if(s.clips.begin(), s.clips.end(), [&](const Clip& c) { return c.id == clip; });
        if (it == s.clips.end()) return fail(ErrorCode::NotFound, msg("review-session.strange-film"));
        return what(*it);
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

namespace {

void insertPromise(SQLite::Database& db, const Promise& p) {
    run(db, "INSERT INTO promises (athlete, text, due, settled, details) VALUES (?,?,NULLIF(?,''),?,?)",
        p.athlete.value, messageAsText(p.text), p.due ? isoDate(*p.due) : std::string(), p.open() ? 0 : 1,
        checked(p, promiseFromJson));
}

} // namespace

Status SqliteStore::add(const std::vector<Promise>& promises) {
    return write([&](SQLite::Database& db) {
        for (const Promise& p : promises) insertPromise(db, p);
    });
}

Result<Promise> SqliteStore::change(std::int64_t row, const ChangeOf<Promise>& what) {
    Promise now;
    const Status done = write([&](SQLite::Database& db) {
        const auto found = rowsOf(db, (std::string(kPromise) + "WHERE row = ?").c_str(), promiseAt, row);
        if (found.empty()) throw Rejected{fail(ErrorCode::NotFound, msg("promise.gone"))};
        now = found.front();
        orReject(what(now));
        if (now == found.front()) return;
        run(db, "UPDATE promises SET text = ?, due = NULLIF(?,''), settled = ?, details = ? WHERE row = ?",
            messageAsText(now.text), now.due ? isoDate(*now.due) : std::string(), now.open() ? 0 : 1,
            checked(now, promiseFromJson), row);
    });
    if (!done) return done.error();
    return now;
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

namespace {

void putSetting(SQLite::Database& db, const std::string& key, const std::string& value) {
    run(db, "INSERT INTO settings VALUES (?,?) ON CONFLICT(key) DO UPDATE SET value = excluded.value", key,
        value);
}

} // namespace

Status SqliteStore::setSetting(const std::string& key, const std::string& value) {
    return write([&](SQLite::Database& db) { putSetting(db, key, value); });
}

Status SqliteStore::changeSettings(const std::vector<SettingChange>& changes) {
    return write([&](SQLite::Database& db) {
        for (const SettingChange& c : changes) {
            const auto found = rowsOf(
                db, "SELECT value FROM settings WHERE key = ?", [](auto& q) { return textAt(q, 0); }, c.key);
            const std::string is = found.empty() ? std::string() : found.front();
            if (is != c.was && is != c.now)
                throw Rejected{fail(ErrorCode::Stale,
                                    msg("sqlite-store.setting-changed", {{"is", is}, {"mine", c.now}}))};
            if (is != c.now) putSetting(db, c.key, c.now);
        }
    });
}

Result<Pulse> SqliteStore::pulse() {
    Pulse pulse;
    const Status done = read([&](SQLite::Database& db) {
        SQLite::Statement query(db, "SELECT name, n FROM pulse");
        while (query.executeStep()) pulse[textAt(query, 0)] = query.getColumn(1).getInt64();
    });
    if (!done) return done.error();
    return pulse;
}

std::int64_t SqliteStore::writesOfOthers() {
    std::int64_t version = 0;
    read([&](SQLite::Database& db) { version = db.execAndGet("PRAGMA data_version").getInt64(); }).ok();
    return version;
}

} // namespace jg
