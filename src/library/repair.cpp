// SPDX-License-Identifier: GPL-3.0-or-later
// Repairs: what each does, in words and in deed. Texts and files that leave their place lie in set-aside.
#include "base/clock.h"
#include "library/checksums.h"
#include "library/library.h"
#include "library/rows.h"
#include "review/record/message_json.h"
#include "review/record/review_json.h"
#include "review/record/salvage.h"

#include <QString>

#include <algorithm>

namespace jg {

namespace fs = std::filesystem;

namespace {

bool isList(const std::string& table) {
    for (int i = 0; i < kListCount; ++i)
        if (table == tableOf(static_cast<ListOf>(i))) return true;
    return false;
}

} // namespace

Message repairOf(const Problem& p) {
    switch (p.repair) {
    case Repair::Accept:
        return msg("repair.accept");
    case Repair::Forget:
        return isList(p.table) ? msg("repair.forget.list") : msg("repair.forget." + p.table);
    case Repair::Salvage:
        return msg("repair.salvage." + p.table);
    case Repair::BeginAnew:
        return msg("repair.begin-anew");
    case Repair::SayAgain:
        return msg("repair.say-again");
    case Repair::MakeAgain:
        return msg("repair.make-again");
    case Repair::PutAside:
        return msg("repair.put-aside");
    case Repair::Restore:
        return msg("repair.restore");
    case Repair::None:
        break;
    }
    return msg("repair.none");
}

namespace {

const SummedTable& summed(const std::string& table) {
    const auto& all = summedTables();
    return *std::find_if(all.begin(), all.end(), [&](const SummedTable& t) { return t.name == table; });
}

/// Makes the sum of a row again, or takes the sum of one that is gone away.
void sumAnew(SQLite::Database& db, const Problem& p) {
    const SummedTable& t = summed(p.table);
    const std::string id = columnsOf(t.id, "");
    const std::string& table = t.name;
    run(db, "DELETE FROM sums WHERE name = ? AND id = ?", p.table, p.id);
    run(db,
        ("INSERT INTO sums SELECT '" + table + "', " + id + ", jg_sum(" + columnsOf(t.content, "") +
         ") FROM " + table + " WHERE CAST(" + id + " AS TEXT) = ?")
            .c_str(),
        p.id);
}

/// The text of a row that is about to go; throws UnreadableRow when the row is gone.
std::string textOf(SQLite::Database& db, const std::string& table, const std::string& id) {
    const std::string column = table == "clips" ? "survey" : "document";
    const std::string sql = "SELECT " + column + " FROM " + table + " WHERE CAST(" +
                            columnsOf(summed(table).id, "") + " AS TEXT) = ?";
    const auto texts = rowsOf(
        db, sql.c_str(), [](auto& q) { return textAt(q, 0); }, id);
    if (texts.empty()) throw UnreadableRow(msg("repair.gone"));
    return texts.front();
}

void forget(SQLite::Database& db, const Problem& p) {
    const std::string where = " WHERE CAST(" + columnsOf(summed(p.table).id, "") + " AS TEXT) = ?";
    run(db,
        (p.table == "clips" ? "UPDATE clips SET survey = ''" + where : "DELETE FROM " + p.table + where)
            .c_str(),
        p.id);
}

/// The newest version of a review that reads, or else an empty one with what its row knows.
Review anew(SQLite::Database& db, const std::string& id) {
    for (const std::string& text : rowsOf(
             db, "SELECT document FROM versions WHERE review = ? ORDER BY row DESC",
             [](auto& q) { return textAt(q, 0); }, id))
        if (auto version = reviewFromJson(text)) return std::move(*version);
    SQLite::Statement row(db, "SELECT submission, athlete, date FROM reviews WHERE id = ?");
    row.bind(1, id);
    if (!row.executeStep()) throw UnreadableRow(msg("repair.gone"));
    Review r;
    r.id = {id};
    r.submission = {textAt(row, 0)};
    r.athlete = {textAt(row, 1)};
    r.date = dateAt(row, 2).value_or(Date{});
    return r;
}

void beginAnew(SQLite::Database& db, const std::string& id) {
    Review r = anew(db, id);
    SQLite::Statement row(db, "SELECT sent_on, sent_to FROM reviews WHERE id = ?");
    row.bind(1, id);
    if (row.executeStep() && !row.isColumnNull(0)) { // what was sent stays sent
        r.sent = SentRecord{dateAt(row, 0).value_or(Date{}), textAt(row, 1)};
        r.stage = Stage::Sent;
    }
    SQLite::Statement clips(db, "SELECT id FROM clips WHERE submission = ? ORDER BY id");
    clips.bind(1, r.submission.value);
    if (r.first().clip.empty() && clips.executeStep()) r.first().clip = {textAt(clips, 0)};
    run(db, "DELETE FROM results WHERE review = ?", id);
    run(db, "UPDATE reviews SET stage = ?, document = ?, summary = '', revision = revision + 1 WHERE id = ?",
        std::string(idOf(r.stage)), toJson(r), id);
}

/// A column whose bytes may be damaged: what is no UTF-8 is replaced.
std::string cleanAt(SQLite::Statement& row, int column) {
    return QString::fromUtf8(textAt(row, column)).toStdString();
}

void salvageAthlete(SQLite::Database& db, const std::string& id, const std::string& text) {
    SQLite::Statement row(db, "SELECT name FROM athletes WHERE id = ?");
    row.bind(1, id);
    if (!row.executeStep()) throw UnreadableRow(msg("repair.gone"));
    const std::string name = cleanAt(row, 0);
    const auto gap = name.rfind(' ');
    Athlete known;
    known.id.value = id;
    known.firstName = name.substr(0, gap);
    known.lastName = gap == name.npos ? "" : name.substr(gap + 1);
    const Athlete a = orUnreadable(salvagedAthlete(text, known, SystemClock().today()));
    run(db, "UPDATE athletes SET name = ?, document = ? WHERE id = ?", a.fullName(), toJson(a), id);
}

void salvageSubmission(SQLite::Database& db, const std::string& id, const std::string& text) {
    SQLite::Statement row(db, "SELECT athlete, received, promised FROM submissions WHERE id = ?");
    row.bind(1, id);
    if (!row.executeStep()) throw UnreadableRow(msg("repair.gone"));
    Submission known;
    known.id.value = id;
    known.athlete.value = textAt(row, 0);
    known.received = dateAt(row, 1).value_or(SystemClock().today());
    known.promised = dateAt(row, 2);
    known.clips = rowsOf(
        db,
        "SELECT c.id, c.media, m.extension FROM clips c JOIN media m ON m.hash = c.media WHERE "
        "c.submission = ? ORDER BY c.id",
        [&](auto& q) {
            Clip c;
            c.id.value = textAt(q, 0);
            c.athlete = known.athlete;
            c.mediaHash = textAt(q, 1);
            c.extension = textAt(q, 2);
            c.fileName = c.id.value + c.extension;
            return c;
        },
        id);
    const Submission s =
        orUnreadable(salvagedSubmission(text, known, messageAsText(msg("repair.pain-lost"))));
    run(db, "UPDATE submissions SET document = ? WHERE id = ?", toJson(s), id);
}

void sayAgain(SQLite::Database& db, const Problem& p) {
    auto review = reviewFromJson(textOf(db, "reviews", p.id));
    if (!review) throw UnreadableRow(review.error().text);
    std::erase_if(review->takes, [&](const auto& take) { return take.second.file == p.file; });
    for (auto& [stop, spares] : review->spareTakes)
        std::erase_if(spares, [&](const Take& take) { return take.file == p.file; });
    std::erase_if(review->spareTakes, [](const auto& spares) { return spares.second.empty(); });
    run(db, "UPDATE reviews SET document = ?, summary = '', revision = revision + 1 WHERE id = ?",
        toJson(*review), p.id);
}

} // namespace

fs::path Library::asidePath(const std::string& name) const {
    constexpr std::size_t kLongest = 150; // a row's id may be anything
    std::string flat = name.substr(0, kLongest);
    std::replace(flat.begin(), flat.end(), '/', '-');
    const fs::path folder = folderIn(folder_, LibraryFolder::SetAside);
    fs::path path = folder / flat;
    std::error_code ec;
    for (int n = 2; fs::exists(fs::symlink_status(path, ec)); ++n)
        path = folder / (std::to_string(n) + "-" + flat);
    return path;
}

Status Library::repair(const Problem& p) {
    if (readOnly()) return fail(ErrorCode::Refused, msg("repair.read-only"));
    const auto moveAside = [&](const fs::path& file) -> Status {
        std::error_code ec;
        if (!fs::exists(fs::symlink_status(file, ec)))
            return Done{}; // a link itself is moved, not what it leads to
        const fs::path to = asidePath(file.filename().string());
        fs::create_directories(to.parent_path(), ec);
        fs::rename(file, to, ec);
        return ec ? Status(writeError(file, ec.value())) : Status(Done{});
    };
    switch (p.repair) {
    case Repair::None:
        return fail(ErrorCode::Refused, repairOf(p));
    case Repair::PutAside:
        return moveAside(folder_ / p.file);
    case Repair::Accept:
    case Repair::Restore:
        return write([&](SQLite::Database& db) { sumAnew(db, p); });
    case Repair::MakeAgain:
        return write([&](SQLite::Database& db) {
            run(db, "UPDATE outbox SET state = 'refused', reason = ? WHERE id = ? AND state <> 'sent'",
                messageAsText(msg("repair.mail-gone")), p.id);
        });
    case Repair::SayAgain: {
        const Status said = write([&](SQLite::Database& db) { sayAgain(db, p); });
        return said ? moveAside(takePath(p.file)) : said;
    }
    case Repair::Forget:
    case Repair::Salvage:
    case Repair::BeginAnew:
        break;
    }
    std::string text;
    if (auto found = read([&](SQLite::Database& db) { text = textOf(db, p.table, p.id); }); !found)
        return found;
    if (auto kept = files_->write(asidePath(p.table + "-" + p.id + ".json"), text); !kept) return kept;
    return write([&](SQLite::Database& db) {
        if (p.repair == Repair::Forget) return forget(db, p);
        if (p.repair == Repair::BeginAnew) return beginAnew(db, p.id);
        p.table == "athletes" ? salvageAthlete(db, p.id, text) : salvageSubmission(db, p.id, text);
    });
}

/// Parts of files whose program is gone.
void Library::sweepParts() {
    std::error_code ec;
    std::vector<fs::path> folders = {folder_}, parts;
    for (const FolderFacts& f : kLibraryFolders) folders.push_back(folder_ / f.name);
    for (const fs::path& folder : folders)
        for (const auto& entry : fs::directory_iterator(folder, ec)) {
            const std::string name = entry.path().filename().string();
            const bool take = folder.filename() == nameOf(LibraryFolder::Takes) && isUnfinishedTake(name);
            if (isPart(name) && !take && !writerLives(name) && !mayBeAtWork(entry.path()))
                parts.push_back(entry.path());
            // Work folders of versions before there was one place for them.
            if ((name.starts_with("work-") || name == ".bundle.part") && entry.is_directory(ec) &&
                !mayBeAtWork(entry.path()))
                parts.push_back(entry.path());
        }
    for (const fs::path& part : parts) fs::remove_all(part, ec);
}

/// Films of an intake that broke off.
Status Library::sweepMedia(std::vector<Message>& told) {
    std::vector<Clip> unused;
    const Status found = read([&](SQLite::Database& db) {
        unused =
            rowsOf(db, "SELECT hash FROM media WHERE hash NOT IN (SELECT media FROM clips)", [](auto& q) {
                Clip c;
                c.mediaHash = textAt(q, 0);
                return c;
            });
    });
    if (!found) return found;
    std::error_code ec;
    std::erase_if(unused,
                  [&](const Clip& c) { return fs::exists(mediaPath(c), ec) && mayBeAtWork(mediaPath(c)); });
    for (const Clip& c : unused) dropUnusedMedia(c);
    if (!unused.empty()) told.push_back(msg("library.intake-undone", {{"count", unused.size()}}));
    return Done{};
}

/// Light copies of films that are gone: they are made again where they are needed.
void Library::sweepScrubs() {
    std::error_code ec;
    std::vector<fs::path> gone;
    for (const auto& entry : fs::directory_iterator(folderIn(folder_, LibraryFolder::Scrub), ec)) {
        const auto hash = hashOfFile(entry.path());
        const auto there = hash ? hasFilm(*hash) : Result<bool>(true);
        if (there && !*there) gone.push_back(entry.path());
    }
    for (const fs::path& file : gone) fs::remove(file, ec);
}

std::vector<Message> Library::sweep() {
    std::vector<Message> told;
    if (readOnly()) return told;
    sweepParts();
    WorkFolder::sweep(folder_);
    told = finishForgetting();
    if (const Status swept = sweepMedia(told); !swept) told.push_back(swept.error().text);
    sweepScrubs();
    return told;
}

} // namespace jg
