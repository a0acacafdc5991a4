// SPDX-License-Identifier: GPL-3.0-or-later
// Schema 5: lists in tables, films under their hash alone, sums of every column.
#include "base/document.h"
#include "base/unfit.h"
#include "library/belongings.h"
#include "library/checksums.h"
#include "library/contents.h"
#include "library/migrations.h"
#include "library/rows.h"
#include "library/sha256.h"

#include <nlohmann/json.hpp>

#include <functional>

namespace jg {

namespace fs = std::filesystem;
using nlohmann::json;

namespace {

using Put = std::function<void(const std::string& key, const json& document)>;

/// A setting that was a list, and how its entries become rows.
struct OldList {
    const char* setting;
    ListOf list;
    void (*move)(const json& old, const Put& put);
};

void moveDue(const json& old, const Put& put) {
    for (const auto& [item, row] : old.items()) put(item, row);
}

void moveSeen(const json& old, const Put& put) {
    for (const json& key : old) put(sha256(key.get<std::string>()), json::object());
}

void moveRows(const json& old, const Put& put) {
    for (const json& row : old)
        put(row.at("key").get<std::string>() + " " + std::to_string(row.at("edition").get<int>()), row);
}

void moveApproaches(const json& old, const Put& put) {
    for (const json& row : old)
        put(row.at("id").get<std::string>() + " " + std::to_string(row.at("version").get<int>()), row);
}

void moveMeasures(const json& old, const Put& put) {
    for (const json& row : old.at("measures")) put(row.at("id"), row);
}

void movePhrases(const json& old, const Put& put) {
    for (const auto& [of, phrases] : old.items())
        for (auto words = phrases.rbegin(); words != phrases.rend(); ++words) // the one used last comes last
            put(sha256(of + "\n" + words->get<std::string>()), {{"of", of}, {"words", *words}});
}

void moveBackups(const json& old, const Put& put) {
    for (const json& folder : old) put(folder, json::object());
}

void moveForgotten(const json& old, const Put& put) {
    for (json row : old) {
        const AthleteId who{row.at("athlete").get<std::string>()};
        row.erase("athlete"); // what and when stays, but not who
        put(forgottenKey(who), row);
    }
}

void moveErrorRuns(const json& old, const Put& put) {
    for (const json& row : old) put(sha256(row.dump()), row);
}

constexpr OldList kOldLists[] = {{"mail.due", ListOf::DueMails, moveDue},
                                 {"intake.settled", ListOf::SeenMails, moveSeen},
                                 {"playbook.ownRows", ListOf::OwnRows, moveRows},
                                 {"playbook.ownApproaches", ListOf::OwnApproaches, moveApproaches},
                                 {"playbook.ownMeasures", ListOf::OwnMeasures, moveMeasures},
                                 {"letter.phrases", ListOf::Phrases, movePhrases},
                                 {"backup.folders", ListOf::Backups, moveBackups},
                                 {"forgotten", ListOf::Forgotten, moveForgotten},
                                 {"ownError.runs", ListOf::ErrorRuns, moveErrorRuns}};

void moveList(SQLite::Database& db, const OldList& old) {
    const auto texts = rowsOf(
        db, "SELECT value FROM settings WHERE key = ?", [](auto& q) { return textAt(q, 0); },
        std::string(old.setting));
    if (texts.empty()) return;
    std::vector<std::pair<std::string, std::string>> rows;
    try {
        old.move(parseDocument(texts.front()), [&](const std::string& key, const json& document) {
            rows.emplace_back(key, document.dump());
        });
    } catch (const std::exception&) {
        // What can't be read is not lost: it stays, and verify names it.
        run(db, "UPDATE settings SET key = ? WHERE key = ?", kUnreadableSetting + std::string(old.setting),
            std::string(old.setting));
        return;
    }
    for (const auto& [key, document] : rows)
        run(db,
            (std::string("INSERT INTO ") + tableOf(old.list) +
             " (key, document) VALUES (?,?) ON CONFLICT(key) DO "
             "UPDATE SET document = excluded.document")
                .c_str(),
            key, document);
    run(db, "DELETE FROM settings WHERE key = ?", std::string(old.setting));
}

/// media/HASH.mp4 becomes media/HASH. A second file of the same film is set aside.
void dropEndings(const fs::path& library) {
    const fs::path media = folderIn(library, LibraryFolder::Media);
    std::error_code ec;
    std::vector<fs::path> films;
    for (const auto& entry : fs::directory_iterator(media, ec))
        if (const auto hash = hashOfFile(entry.path());
            hash && entry.is_regular_file(ec) && entry.path().filename() != *hash &&
            !entry.path().filename().string().ends_with(".still.png"))
            films.push_back(entry.path());
    for (const fs::path& film : films) {
        fs::path to = media / *hashOfFile(film);
        if (fs::exists(to, ec)) {
            to = folderIn(library, LibraryFolder::SetAside) / film.filename();
            fs::create_directories(to.parent_path(), ec);
        }
        fs::rename(film, to, ec);
        if (ec) throw Unfit(msg("migrations.film-stays", {{"file", film.filename().string()}}));
    }
}

} // namespace

void toSchema5(SQLite::Database& db, const fs::path& library) {
    for (int i = 0; i < kListCount; ++i)
        db.exec(std::string("CREATE TABLE ") + tableOf(static_cast<ListOf>(i)) +
                " (row INTEGER PRIMARY KEY, key TEXT NOT NULL UNIQUE, document TEXT NOT NULL)");
    db.exec("ALTER TABLE reviews ADD COLUMN brought INTEGER NOT NULL DEFAULT 0");
    db.exec("CREATE INDEX outbox_by_review ON outbox(review)");
    sumEverything(db);
    for (const OldList& old : kOldLists) moveList(db, old);
    run(db, "UPDATE backups SET document = json_object('at', CAST((SELECT value FROM settings WHERE key = "
            "'backup.last') "
            "AS INTEGER)) WHERE row = (SELECT max(row) FROM backups) AND EXISTS (SELECT 1 FROM settings "
            "WHERE key = "
            "'backup.last')");
    run(db, "DELETE FROM settings WHERE key = 'backup.last'");
    if (!library.empty()) dropEndings(library);
}

} // namespace jg
