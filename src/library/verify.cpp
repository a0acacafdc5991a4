// SPDX-License-Identifier: GPL-3.0-or-later
// What Library::examine() looks at: the database, every row's sum, every document for itself, and every file
// beside it.
#include "base/document.h"
#include "library/checksums.h"
#include "library/library.h"
#include "library/rows.h"
#include "library/sha256.h"
#include "review/assess/summary.h"
#include "review/record/derived_json.h"
#include "review/record/review_json.h"

#include <algorithm>
#include <fstream>
#include <set>

namespace jg {

namespace fs = std::filesystem;

namespace {

template <typename T>
Status asStatus(const Result<T>& result) {
    return result ? Status(Done{}) : Status(result.error());
}

Status matchesItsHash(const std::string& hash, const std::string& text) {
    if (sha256(text) == hash) return Done{};
    return fail(ErrorCode::Damaged, msg("library.altered"));
}

Status readsDerived(const std::string&, const std::string& text) {
    DeliveryMarks any;
    return readDerived(text, any);
}

Status readsSurvey(const std::string&, const std::string& text) {
    Clip any;
    return readSurvey(text, any);
}

Status readsAsJson(const std::string&, const std::string& text) {
    if (!parseDocumentOrNone(text).is_discarded()) return Done{};
    return fail(ErrorCode::Damaged, msg("unfit.no-json"));
}

/// A take's file and whose it is.
struct KnownTake {
    std::string review, file;
    bool sent = false;
};

/// One look at a library, part by part.
class Verifier {
public:
    Verifier(SQLite::Database& db, const Library& library, std::stop_token stop,
             const std::function<void(double)>& progress)
        : db_(db)
        , library_(library)
        , stop_(std::move(stop))
        , progress_(progress) {}

    std::vector<Problem> look() {
        lookAtDatabase();
        lookAtDocuments();
        lookAtSums();
        lookAtTakes();
        lookAtMails();
        findFilms();
        lookForOrphans();
        lookAtFilms();
        return std::move(problems_);
    }

private:
    void tell(Message text, Repair repair = Repair::None, std::string table = {}, std::string id = {},
              std::string file = {}) {
        problems_.push_back({std::move(text), repair, std::move(table), std::move(id), std::move(file)});
    }

    void lookAtDatabase() {
        for (const std::string& line :
             rowsOf(db_, "PRAGMA integrity_check", [](auto& q) { return textAt(q, 0); }))
            if (line != "ok") tell(msg("library.the-database-is-damaged-line", {{"line", line}}));
        for (const std::string& table :
             rowsOf(db_, "PRAGMA foreign_key_check", [](auto& q) { return textAt(q, 0); }))
            tell(msg("library.row-of-nothing", {{"table", kindOf(table)}}));
        for (const std::string& key : rowsOf(db_, "SELECT key FROM settings WHERE key LIKE 'unreadable.%'",
                                             [](auto& q) { return textAt(q, 0); }))
            tell(msg("library.list-unreadable",
                     {{"list", key.substr(std::string(kUnreadableSetting).size())}}));
    }

    /// Reads each document of a table for itself: one that can't be read is named and hides no other. The
    /// query gives id and document.
    template <typename Check>
    void readEach(const char* table, const char* sql, Repair repair, Check check) {
        SQLite::Statement query(db_, sql);
        while (query.executeStep()) {
            const std::string id = textAt(query, 0);
            const Status read = check(id, textAt(query, 1));
            if (read) continue;
            tell(msg("library.row-unreadable", {{"id", id}, {"why", read.error().text}}), repair, table, id);
            unreadable_.insert({table, id});
        }
    }

    void lookAtDocuments() {
        readEach("athletes", "SELECT id, document FROM athletes ORDER BY id", Repair::Salvage,
                 [](const auto&, const std::string& text) { return asStatus(athleteFromJson(text)); });
        readEach("submissions", "SELECT id, document FROM submissions ORDER BY id", Repair::Salvage,
                 [](const auto&, const std::string& text) { return asStatus(submissionFromJson(text)); });
        readEach("reviews", "SELECT id, document FROM reviews ORDER BY id", Repair::BeginAnew,
                 [this](const std::string& id, const std::string& text) {
                     const auto review = reviewFromJson(text);
                     if (review)
                         for (const std::string& file : review->takeFiles())
                             takes_.push_back({id, file, review->sent.has_value()});
                     return asStatus(review);
                 });
        readEach("results", "SELECT review, document FROM results ORDER BY review", Repair::Forget,
                 [](const auto&, const std::string& text) { return asStatus(assessmentFromJson(text)); });
        readEach("derived", "SELECT review || '/' || delivery, document FROM derived ORDER BY 1",
                 Repair::Forget, readsDerived);
        readEach("clips", "SELECT id, survey FROM clips WHERE survey <> '' ORDER BY id", Repair::Forget,
                 readsSurvey);
        readEach("playbooks", "SELECT hash, document FROM playbooks ORDER BY hash", Repair::None,
                 matchesItsHash);
        for (int i = 0; i < kListCount; ++i) {
            const char* table = tableOf(static_cast<ListOf>(i));
            readEach(table, (std::string("SELECT row, document FROM ") + table + " ORDER BY row").c_str(),
                     Repair::Forget, readsAsJson);
        }
    }

    void lookAtSums() {
        for (const SummedTable& t : summedTables()) {
            const std::string &table = t.name, own = table + ".", id = columnsOf(t.id, own.c_str());
            const std::string altered = "SELECT " + id + ", s.sum IS NULL FROM " + table +
                                        " LEFT JOIN sums s ON s.name = '" + table + "' AND s.id = CAST(" +
                                        id + " AS TEXT) WHERE s.sum IS NOT jg_sum(" +
                                        columnsOf(t.content, own.c_str()) + ") ORDER BY 1";
            for (const auto& [row, lost] : rowsOf(db_, altered.c_str(), [](auto& q) {
                     return std::pair(textAt(q, 0), q.getColumn(1).getInt() != 0);
                 })) {
                if (unreadable_.contains({table, row})) continue; // named above
                tell(msg(lost ? "library.sum-lost" : "library.row-altered",
                         {{"table", kindOf(table)}, {"id", row}}),
                     lost ? Repair::Restore : Repair::Accept, table, row);
            }
            const std::string gone = "SELECT id FROM sums WHERE name = '" + table +
                                     "' AND id NOT IN (SELECT CAST(" + id + " AS TEXT) FROM " + table +
                                     ") ORDER BY id";
            for (const std::string& row : rowsOf(db_, gone.c_str(), [](auto& q) { return textAt(q, 0); }))
                tell(msg("library.row-gone", {{"table", kindOf(table)}, {"id", row}}), Repair::Restore, table,
                     row);
        }
    }

    void lookAtTakes() {
        for (const KnownTake& take : takes_)
            if (const auto wrong = wrongWith(take))
                tell(*wrong, take.sent ? Repair::None : Repair::SayAgain, "reviews", take.review, take.file);
    }

    /// What is wrong with a take's file, if anything: its head says how long it is.
    std::optional<Message> wrongWith(const KnownTake& take) const {
        const auto told = [&](const char* id) { return msg(id, {{"file", take.file}, {"s", take.review}}); };
        const fs::path path = library_.takePath(take.file);
        std::error_code ec;
        if (!fs::is_regular_file(path, ec)) return told("library.the-take-file-of-review-s");
        constexpr std::uintmax_t kHead = 44, kNotCounted = 8; // RIFF: the size leaves out its own two words
        const std::uintmax_t bytes = fs::file_size(path, ec);
        if (bytes <= kHead) return told("library.take-empty");
        std::ifstream in(path, std::ios::binary);
        unsigned char head[8] = {};
        in.read(reinterpret_cast<char*>(head), sizeof head);
        const std::uintmax_t wanted =
            head[4] | head[5] << 8 | head[6] << 16 | static_cast<std::uintmax_t>(head[7]) << 24;
        if (!in || std::string(head, head + 4) != "RIFF" || bytes < wanted + kNotCounted)
            return told("library.take-cut-short");
        return std::nullopt;
    }

    void lookAtMails() {
        SQLite::Statement query(db_, "SELECT id, file, recipient, state FROM outbox ORDER BY at, id");
        while (query.executeStep()) {
            mails_.insert(textAt(query, 1));
            std::error_code ec;
            // One that was sent is out, and one that was refused is made anew when it is sent again.
            const std::string state = textAt(query, 3);
            if (state == "sent" || state == "refused" ||
                fs::is_regular_file(library_.sentPath(textAt(query, 1)), ec))
                continue;
            tell(msg("library.mail-missing", {{"file", textAt(query, 1)}, {"recipient", textAt(query, 2)}}),
                 Repair::MakeAgain, "outbox", textAt(query, 0));
        }
    }

    /// The films of clips; one that no clip is of belongs to an intake that broke off.
    void findFilms() {
        films_ = rowsOf(db_, "SELECT hash FROM media WHERE hash IN (SELECT media FROM clips) ORDER BY hash",
                        [](auto& q) { return textAt(q, 0); });
    }

    /// Files that no row speaks of, and links: nothing of a library leads out of it.
    void lookForOrphans() {
        std::set<std::string> films, scrubs, takes;
        for (const std::string& hash : films_) {
            films.insert({hash, hash + ".still.png"});
            scrubs.insert(hash + ".mov");
        }
        for (const KnownTake& take : takes_) takes.insert(take.file);
        // A version that is kept beside its review may be taken again, with its takes.
        for (const std::string& text :
             rowsOf(db_, "SELECT document FROM versions", [](auto& q) { return textAt(q, 0); }))
            if (const auto version = reviewFromJson(text))
                for (const std::string& file : version->takeFiles()) takes.insert(file);
        if (!anyUnreadable("reviews")) lookIn(LibraryFolder::Takes, takes);
        lookIn(LibraryFolder::Media, films);
        lookIn(LibraryFolder::Scrub, scrubs);
        lookIn(LibraryFolder::Sent, mails_);
        lookAtTheTop();
    }

    void lookIn(LibraryFolder folder, const std::set<std::string>& known) {
        std::error_code ec;
        std::vector<std::string> orphans, links;
        for (const auto& entry : fs::directory_iterator(folderIn(library_.folder(), folder), ec)) {
            const std::string name = entry.path().filename().string();
            if (entry.is_symlink(ec))
                links.push_back(name);
            else if (!known.contains(name) && !mayBeAtWork(entry.path()) &&
                     !(folder == LibraryFolder::Takes && isUnfinishedTake(name)))
                orphans.push_back(name);
        }
        const std::string within = std::string(nameOf(folder)) + "/";
        tellFiles("library.link", within, std::move(links));
        tellFiles("library.orphan", within, std::move(orphans));
    }

    void lookAtTheTop() {
        std::error_code ec;
        std::vector<std::string> strangers;
        for (const auto& entry : fs::directory_iterator(library_.folder(), ec))
            if (const std::string name = entry.path().filename().string();
                !belongsAtTheTop(name) && !mayBeAtWork(entry.path()))
                strangers.push_back(name);
        tellFiles("library.orphan", "", std::move(strangers));
    }

    void tellFiles(const char* id, const std::string& within, std::vector<std::string> names) {
        std::sort(names.begin(), names.end());
        for (const std::string& name : names)
            tell(msg(id, {{"file", name}}), Repair::PutAside, {}, {}, within + name);
    }

    bool anyUnreadable(const std::string& table) const {
        return std::any_of(unreadable_.begin(), unreadable_.end(),
                           [&](const auto& row) { return row.first == table; });
    }

    void lookAtFilms() {
        double done = 0;
        for (const std::string& wanted : films_) {
            if (stop_.stop_requested()) return;
            lookAtFilm(wanted);
            if (progress_) progress_(++done / static_cast<double>(films_.size()));
        }
    }

    void lookAtFilm(const std::string& wanted) {
        const std::string& name = wanted;
        const fs::path path = library_.folder() / filmFile(wanted);
        if (filmFile(wanted).empty()) return tell(msg("library.film-missing", {{"name", name}}));
        std::error_code ec;
        if (!fs::exists(path, ec)) return tell(msg("library.film-missing", {{"name", name}}));
        const auto hash = contentHash(path, stop_);
        if (!hash && hash.error().code == ErrorCode::Cancelled) return;
        if (!hash) return tell(hash.error().text);
        if (*hash != wanted) tell(msg("library.film-altered", {{"name", name}}));
    }

    static Message kindOf(const std::string& table) { return msg("library.table." + table); }

    SQLite::Database& db_;
    const Library& library_;
    std::stop_token stop_;
    const std::function<void(double)>& progress_;
    std::vector<Problem> problems_;
    std::set<std::pair<std::string, std::string>> unreadable_; ///< table and row
    std::vector<KnownTake> takes_;
    std::vector<std::string> films_; ///< hashes
    std::set<std::string> mails_;
};

} // namespace

Result<std::vector<Problem>> Library::examine(std::stop_token stop,
                                              const std::function<void(double)>& progress) {
    std::vector<Problem> problems;
    const Status done =
        read([&](SQLite::Database& db) { problems = Verifier(db, *this, stop, progress).look(); });
    if (!done) return done.error();
    if (stop.stop_requested()) return fail(ErrorCode::Cancelled, msg("library.stopped"));
    return problems;
}

std::vector<Message> Library::verify() {
    const auto problems = examine();
    if (!problems) return {problems.error().text};
    std::vector<Message> texts;
    for (const Problem& p : *problems) texts.push_back(p.text);
    return texts;
}

} // namespace jg
