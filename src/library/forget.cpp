#include "library/library.h"

#include "library/rows.h"
#include "library/setting_list.h"
#include "review/review_json.h"

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
    for (const std::string& take : review->takeFiles()) files.insert("takes/" + take);
}

std::set<std::string> filesOf(SQLite::Database& db, const std::string& id) {
    std::set<std::string> files;
    const auto films = rowsOf(
        db,
        "SELECT DISTINCT m.hash, m.extension FROM media m JOIN clips c ON c.media = m.hash JOIN submissions "
        "s ON "
        "s.id = c.submission WHERE s.athlete = ?1 AND NOT EXISTS (SELECT 1 FROM clips o JOIN submissions t "
        "ON t.id "
        "= o.submission WHERE o.media = m.hash AND t.athlete <> ?1)",
        [](auto& q) { return std::pair(textAt(q, 0), textAt(q, 1)); }, id);
    for (const auto& [hash, extension] : films) {
        files.insert("media/" + hash + extension);
        files.insert("media/" + hash + ".still.png");
        files.insert("scrub/" + hash + ".mov");
    }
    for (const std::string& text : textsOf(db, "SELECT document FROM reviews WHERE athlete = ?", id))
        addTakes(text, files);
    for (const std::string& text : textsOf(
             db, "SELECT v.document FROM versions v JOIN reviews r ON r.id = v.review WHERE r.athlete = ?",
             id))
        addTakes(text, files);
    for (const std::string& file :
         textsOf(db, "SELECT o.file FROM outbox o JOIN reviews r ON r.id = o.review WHERE r.athlete = ?", id))
        files.insert("sent/" + file);
    return files;
}

void deleteRows(SQLite::Database& db, const std::string& id) {
    const std::string reviews = "(SELECT id FROM reviews WHERE athlete = ?1)",
                      submissions = "(SELECT id FROM submissions WHERE athlete = ?1)";
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
    if (run(db, "DELETE FROM athletes WHERE id = ?1", id) == 0) throw UnreadableRow(msg("repair.gone"));
}

} // namespace

Result<Belongings> Library::belongingsOf(const AthleteId& athlete) {
    Belongings b;
    b.athlete = athlete;
    bool there = false;
    const std::string& id = athlete.value;
    const Status done = read([&](SQLite::Database& db) {
        for (const std::string& name : textsOf(db, "SELECT name FROM athletes WHERE id = ?", id))
            b.name = name, there = true;
        b.submissions = countOf(db, "SELECT count(*) FROM submissions WHERE athlete = ?", id);
        b.reviews = countOf(db, "SELECT count(*) FROM reviews WHERE athlete = ?", id);
        b.promises = countOf(db, "SELECT count(*) FROM promises WHERE athlete = ?", id);
        b.mails = countOf(
            db, "SELECT count(*) FROM outbox o JOIN reviews r ON r.id = o.review WHERE r.athlete = ?", id);
        for (const std::string& file : filesOf(db, id)) b.files.push_back(file);
    });
    if (!done) return done.error();
    if (!there) return fail(ErrorCode::NotFound, msg("library.no-athlete"));
    for (const json& folder : listInSetting(*this, kBackupFolders))
        if (folder.is_string()) b.backups.push_back(folder);
    return b;
}

Result<std::vector<Message>> Library::forgetAthlete(const AthleteId& athlete, Date today) {
    auto belongings = belongingsOf(athlete);
    if (!belongings) return belongings.error();
    const Status deleted = write([&](SQLite::Database& db) {
        if (countOf(db,
                    "SELECT count(*) FROM outbox o JOIN reviews r ON r.id = o.review WHERE r.athlete = ? AND "
                    "o.state "
                    "= 'handing-over'",
                    athlete.value) > 0)
            throw UnreadableRow(msg("library.mail-on-its-way"));
        deleteRows(db, athlete.value);
    });
    if (!deleted) return deleted.error();
    std::vector<Message> left;
    for (const std::string& file : belongings->files) {
        std::error_code ec;
        fs::remove(folder_ / file, ec);
        if (ec) left.push_back(msg("library.file-stays", {{"file", file}, {"why", ec.message()}}));
    }
    json record = listInSetting(*this, kForgotten);
    record.push_back({{"on", isoDate(today)},
                      {"athlete", athlete.value},
                      {"submissions", belongings->submissions},
                      {"reviews", belongings->reviews},
                      {"mails", belongings->mails},
                      {"files", belongings->files.size()},
                      {"backups", belongings->backups}});
    if (auto kept = setSetting(kForgotten, record.dump()); !kept) return kept.error();
    if (auto wiped = wipeDeleted(); !wiped) return wiped.error();
    for (const std::string& folder : belongings->backups)
        left.push_back(msg("library.backup-still-holds", {{"folder", folder}}));
    return left;
}

} // namespace jg
