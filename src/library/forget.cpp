// SPDX-License-Identifier: GPL-3.0-or-later
// Deleting an athlete whole: rows, then files, then what the database still holds of what was deleted.
#include "base/document.h"
#include "library/backup.h"
#include "library/library.h"
#include "library/rows.h"
#include "library/sha256.h"
#include "review/record/review_json.h"

#include <nlohmann/json.hpp>

#include <QString>
#include <QStringList>

#include <fstream>
#include <set>

namespace jg {

namespace fs = std::filesystem;
using nlohmann::json;

namespace {

int countOf(SQLite::Database& db, const char* sql, const std::string& id) {
    SQLite::Statement q(db, sql);
    q.bind(1, id);
    return q.executeStep() ? q.getColumn(0).getInt() : 0;
}

std::vector<std::string> textsOf(SQLite::Database& db, const char* sql, const std::string& id) {
    return rowsOf(
        db, sql, [](auto& q) { return textAt(q, 0); }, id);
}

/// Takes named in a review's document; of one that can't be read none are known.
void addTakes(const std::string& document, std::set<std::string>& files) {
    const auto review = reviewFromJson(document);
    if (!review) return;
    for (const std::string& take : review->takeFiles()) files.insert(takeFile(take));
}

/// Films of no other athlete, with what is made of them.
std::vector<std::string> ownFilms(SQLite::Database& db, const std::string& id) {
    return textsOf(
        db,
        "SELECT DISTINCT c.media FROM clips c JOIN submissions s ON s.id = c.submission WHERE s.athlete = ?1 "
        "AND NOT EXISTS (SELECT 1 FROM clips o JOIN submissions t ON t.id = o.submission WHERE o.media = "
        "c.media AND t.athlete <> ?1)",
        id);
}

void addFilms(const std::vector<std::string>& hashes, std::set<std::string>& files) {
    for (const std::string& hash : hashes)
        for (const std::string& file : {filmFile(hash), stillFile(hash), scrubFile(hash)}) files.insert(file);
}

/// Takes and letters that rows name: of an athlete (`is` "=") or of all others ("<>").
void addNamed(SQLite::Database& db, const std::string& is, const std::string& id,
              std::set<std::string>& files) {
    const auto texts = [&](const std::string& sql) { return textsOf(db, (sql + is + " ?").c_str(), id); };
    for (const char* sql :
         {"SELECT document FROM reviews WHERE athlete ",
          "SELECT v.document FROM versions v JOIN reviews r ON r.id = v.review WHERE r.athlete "})
        for (const std::string& text : texts(sql)) addTakes(text, files);
    for (const std::string& file :
         texts("SELECT o.file FROM outbox o JOIN reviews r ON r.id = o.review WHERE r.athlete "))
        files.insert(letterFile(file));
}

std::set<std::string> filesOf(SQLite::Database& db, const std::string& id) {
    std::set<std::string> files;
    addFilms(ownFilms(db, id), files);
    addNamed(db, "=", id, files);
    files.erase(""); // a name that is none
    return files;
}

/// Files that rows of other athletes name: whatever these are called, and whoever names them too, they stay.
std::set<std::string> filesOfOthers(SQLite::Database& db, const std::string& id) {
    std::set<std::string> files;
    addFilms(textsOf(db,
                     "SELECT DISTINCT c.media FROM clips c JOIN submissions s ON s.id = c.submission WHERE "
                     "s.athlete <> ?",
                     id),
             files);
    addNamed(db, "<>", id, files);
    return files;
}

/// Takes away what is another athlete's: named by a row of theirs, or called by a review of theirs as a take
/// is.
void leaveOthers(SQLite::Database& db, const std::string& id, std::set<std::string>& files) {
    const std::set<std::string> named = filesOfOthers(db, id);
    const auto reviews = textsOf(db, "SELECT id FROM reviews WHERE athlete <> ?", id);
    std::erase_if(files, [&](const std::string& file) {
        return named.contains(file) ||
               std::any_of(reviews.begin(), reviews.end(), [&](const std::string& review) {
                   return file.starts_with(takeFile(review + "-"));
               });
    });
}

/// By what their files are known where no row names them: ids of their rows, films, the name.
std::set<std::string> marksOf(SQLite::Database& db, const std::string& id, const std::string& name) {
    std::set<std::string> marks = {id, name};
    for (const char* sql :
         {"SELECT id FROM submissions WHERE athlete = ?", "SELECT id FROM reviews WHERE athlete = ?",
          "SELECT c.id FROM clips c JOIN submissions s ON s.id = c.submission WHERE s.athlete = ?"})
        for (std::string& text : textsOf(db, sql, id)) marks.insert(std::move(text));
    for (std::string& hash : ownFilms(db, id)) marks.insert(std::move(hash));
    constexpr std::size_t kTellsNobody = 4; // so short a word stands in anything
    std::erase_if(marks, [](const std::string& mark) { return mark.size() < kTellsNobody; });
    return marks;
}

void deleteRows(SQLite::Database& db, const std::string& id) {
    const std::string reviews = "(SELECT id FROM reviews WHERE athlete = ?1)",
                      submissions = "(SELECT id FROM submissions WHERE athlete = ?1)";
    run(db,
        ("DELETE FROM due_mails WHERE key IN (SELECT id FROM outbox WHERE review IN " + reviews + ")")
            .c_str(),
        id);
    for (const char* table : {"derived", "results", "versions", "outbox"})
        run(db, ("DELETE FROM " + std::string(table) + " WHERE review IN " + reviews).c_str(), id);
    run(db, "DELETE FROM reviews WHERE athlete = ?1", id);
    const auto films =
        textsOf(db, ("SELECT DISTINCT media FROM clips WHERE submission IN " + submissions).c_str(), id);
    run(db, ("DELETE FROM clips WHERE submission IN " + submissions).c_str(), id);
    for (const std::string& hash : films)
        run(db, "DELETE FROM media WHERE hash = ?1 AND NOT EXISTS (SELECT 1 FROM clips WHERE media = ?1)",
            hash);
    run(db, "DELETE FROM promises WHERE athlete = ?1", id);
    run(db, "DELETE FROM submissions WHERE athlete = ?1", id);
    if (run(db, "DELETE FROM athletes WHERE id = ?1", id) == 0)
        throw Rejected{fail(ErrorCode::NotFound, msg("library.no-athlete"))};
}

/// The coach's own sentences that speak of somebody by name.
int deletePhrases(SQLite::Database& db, const Belongings& b) {
    const QStringList names = QString::fromStdString(b.name).split(' ', Qt::SkipEmptyParts);
    int gone = 0;
    for (const auto& [row, text] : rowsOf(db, "SELECT row, document FROM phrases", [](auto& q) {
             return std::pair(q.getColumn(0).getInt64(), textAt(q, 1));
         })) {
        const QString words = QString::fromStdString(text);
        for (const QString& name : names)
            if (name.size() > 1 && words.contains(name, Qt::CaseInsensitive)) {
                gone += run(db, "DELETE FROM phrases WHERE row = ?", row);
                break;
            }
    }
    return gone;
}

void keepRecord(SQLite::Database& db, const Belongings& b, Date today) {
    const json record = {{"on", isoDate(today)}, {"submissions", b.submissions}, {"reviews", b.reviews},
                         {"mails", b.mails},     {"files", b.files.size()},      {"backups", b.backups}};
    run(db,
        "INSERT INTO forgotten (key, document) VALUES (?,?) ON CONFLICT(key) DO UPDATE SET document = "
        "excluded.document",
        forgottenKey(b.athlete), record.dump());
}

constexpr const char* kOwed = "forget.owed"; ///< files that a deletion has still to remove, and the wiping

/// So that a program that is killed in the middle is finished by the next.
void oweFiles(SQLite::Database& db, const std::vector<std::string>& files) {
    const auto owed = rowsOf(
        db, "SELECT value FROM settings WHERE key = ?", [](auto& q) { return textAt(q, 0); },
        std::string(kOwed));
    json all = owed.empty() ? json() : parseDocumentOrNone(owed.front());
    if (!all.is_array()) all = json::array();
    for (const std::string& file : files) all.push_back(file);
    run(db, "INSERT INTO settings VALUES (?,?) ON CONFLICT(key) DO UPDATE SET value = excluded.value",
        std::string(kOwed), all.dump());
}

bool mentions(const std::string& text, const std::set<std::string>& marks) {
    return std::any_of(marks.begin(), marks.end(),
                       [&](const auto& mark) { return text.find(mark) != text.npos; });
}

/// A file whose name or content tells of one of them.
bool tellsOf(const fs::path& file, const std::set<std::string>& marks) {
    if (mentions(file.filename().string(), marks)) return true;
    const auto text = readFile(file);
    return text && mentions(*text, marks);
}

/// Files that no row names: takes that were broken off or left, what a repair set aside, what the stand-in
/// post office took, mails left in the folder of those sent.
std::set<std::string> unnamedFiles(SQLite::Database& db, const fs::path& library,
                                   const std::set<std::string>& marks) {
    std::set<std::string> mails;
    for (std::string& file : rowsOf(db, "SELECT file FROM outbox", [](auto& q) { return textAt(q, 0); }))
        mails.insert(std::move(file));
    std::set<std::string> files;
    for (const FolderFacts& f : kLibraryFolders) {
        if (f.folder == LibraryFolder::Work) continue; // their jobs clear them
        std::error_code ec;
        for (const auto& entry : fs::recursive_directory_iterator(library / f.name, ec)) {
            if (!entry.is_regular_file(ec) || entry.is_symlink(ec)) continue;
            const std::string name = entry.path().filename().string();
            const bool text = f.folder == LibraryFolder::SetAside || f.folder == LibraryFolder::PostOffice ||
                              (f.folder == LibraryFolder::Sent && !mails.contains(name));
            if (text ? tellsOf(entry.path(), marks) : mentions(name, marks))
                files.insert(fs::relative(entry.path(), library, ec).generic_string());
        }
    }
    return files;
}

Belongings belongings(SQLite::Database& db, const fs::path& library, const AthleteId& athlete) {
    Belongings b;
    b.athlete = athlete;
    const std::string& id = athlete.value;
    const auto names = textsOf(db, "SELECT name FROM athletes WHERE id = ?", id);
    if (names.empty()) throw Rejected{fail(ErrorCode::NotFound, msg("library.no-athlete"))};
    b.name = names.front();
    b.submissions = countOf(db, "SELECT count(*) FROM submissions WHERE athlete = ?", id);
    b.reviews = countOf(db, "SELECT count(*) FROM reviews WHERE athlete = ?", id);
    b.promises = countOf(db, "SELECT count(*) FROM promises WHERE athlete = ?", id);
    b.mails = countOf(
        db, "SELECT count(*) FROM outbox o JOIN reviews r ON r.id = o.review WHERE r.athlete = ?", id);
    std::set<std::string> files = filesOf(db, id);
    files.merge(unnamedFiles(db, library, marksOf(db, id, b.name)));
    leaveOthers(db, id, files);
    b.files.assign(files.begin(), files.end());
    b.backups = rowsOf(db, "SELECT key FROM backups ORDER BY row", [](auto& q) { return textAt(q, 0); });
    return b;
}

} // namespace

std::string forgottenKey(const AthleteId& athlete) {
    return sha256(athlete.value);
}

Result<Belongings> Library::belongingsOf(const AthleteId& athlete) {
    Belongings b;
    const Status done = read([&](SQLite::Database& db) { b = belongings(db, folder_, athlete); });
    if (!done) return done.error();
    return b;
}

Result<std::vector<Message>> Library::forgetAthlete(const AthleteId& athlete, Date today) {
    Belongings b;
    int phrases = 0;
    const Status deleted = write([&](SQLite::Database& db) {
        b = belongings(db, folder_, athlete);
        if (countOf(db,
                    "SELECT count(*) FROM outbox o JOIN reviews r ON r.id = o.review WHERE r.athlete = ? AND "
                    "o.state = 'handing-over'",
                    athlete.value) > 0)
            throw UnreadableRow(msg("library.mail-on-its-way"));
        deleteRows(db, athlete.value);
        phrases = deletePhrases(db, b);
        keepRecord(db, b, today);
        oweFiles(db, b.files);
    });
    if (!deleted) return deleted.error();
    // From here on they are deleted: what goes wrong is told as what it is.
    std::vector<Message> told = finishForgetting();
    if (phrases > 0) told.push_back(msg("library.phrases-gone", {{"count", phrases}}));
    for (const std::string& folder : b.backups) {
        if (const Status noted = noteForgotten(folder, {forgottenKey(athlete)}, *files_); !noted)
            told.push_back(msg("library.backup-not-noted", {{"folder", folder}}));
        told.push_back(msg("library.backup-still-holds", {{"folder", folder}}));
    }
    return told;
}

std::vector<Message> Library::finishForgetting() {
    std::vector<Message> told;
    const std::string owed = setting(kOwed);
    if (owed.empty()) return told;
    const json files = parseDocumentOrNone(owed);
    for (const json& file : files.is_array() ? files : json::array()) {
        std::error_code ec;
        const fs::path path = file.is_string() ? fs::path(file.get<std::string>()) : fs::path();
        if (!isInside(path)) continue;
        fs::remove(folder_ / path, ec);
        if (ec) told.push_back(msg("library.file-stays", {{"file", path.string()}, {"why", ec.message()}}));
    }
    WorkFolder::sweep(folder_);
    Status wiped = write(
        [](SQLite::Database& db) { run(db, "DELETE FROM settings WHERE key = ?", std::string(kOwed)); });
    if (wiped) wiped = wipeDeleted();
    if (wiped) return told;
    told.push_back(msg("library.not-wiped", {{"why", wiped.error().text}}));
    write([](SQLite::Database& db) { oweFiles(db, {}); }).ok(); // the next start tries again
    return told;
}

} // namespace jg
