// SPDX-License-Identifier: GPL-3.0-or-later
#include "library/backup.h"

#include "base/date.h"
#include "base/document.h"
#include "base/unfit.h"
#include "library/contents.h"
#include "library/rows.h"
#include "library/work_folder.h"
#include "review/record/review_json.h"

#include <nlohmann/json.hpp>

#include <QLockFile>

#include <SQLiteCpp/SQLiteCpp.h>

#include <algorithm>
#include <cerrno>
#include <cstdio>
#include <cstdlib>
#include <map>
#include <optional>
#include <set>
#include <unistd.h>

namespace jg {

namespace fs = std::filesystem;
using nlohmann::json;

namespace {

constexpr const char* kBackupFormat = "juxtagraph-backup-1";
constexpr const char* kMark = "juxtagraph-backup.json"; ///< tells a backup folder from any other
constexpr const char* kLock = ".lock";
constexpr const char* kForgottenFile = "forgotten.json";
constexpr double kLargestTick = 4.7e18; ///< a file's time in nanoseconds

fs::path objectPath(const fs::path& folder, const std::string& hash) {
    return folder / "objects" / hash.substr(0, 2) / hash;
}

std::string stampOf(std::int64_t unix) {
    const auto day =
        std::chrono::floor<std::chrono::days>(std::chrono::sys_seconds(std::chrono::seconds(unix)));
    const auto second =
        unix - std::chrono::duration_cast<std::chrono::seconds>(day.time_since_epoch()).count();
    char clock[16];
    std::snprintf(clock, sizeof clock, "T%02d-%02d-%02dZ", static_cast<int>(second / 3600),
                  static_cast<int>(second / 60 % 60), static_cast<int>(second % 60));
    return isoDate(Date(day)) + clock;
}

json asJson(const BackupState& s) {
    json files = json::array();
    for (const BackedFile& f : s.files)
        files.push_back(
            {{"path", f.path}, {"sha256", f.sha256}, {"bytes", f.bytes}, {"writtenAt", f.writtenAt}});
    return {{"format", kBackupFormat},
            {"at", s.at},
            {"copiedBytes", s.copiedBytes},
            {"files", files},
            {"missing", s.missing}};
}

Result<BackupState> stateFrom(const fs::path& file) {
    auto text = readFile(file);
    if (!text) return text.error();
    try {
        const json d = parseDocument(*text, kLargestTick);
        BackupState s;
        if (d.at("format") != kBackupFormat) throw Unfit(msg("backup.other-format"));
        s.at = d.at("at");
        s.copiedBytes = d.at("copiedBytes");
        for (const json& f : d.at("files")) {
            BackedFile b{f.at("path"), f.at("sha256"), f.at("bytes"), f.at("writtenAt")};
            if (!isInside(b.path) || !isContentHash(b.sha256)) throw Unfit(msg("backup.bad-path"));
            s.files.push_back(std::move(b));
        }
        s.missing = d.value("missing", s.missing);
        return s;
    } catch (const std::exception& e) {
        return fail(ErrorCode::Damaged, msg("backup.state-unreadable",
                                            {{"file", file.filename().string()}, {"why", whyUnfit(e)}}));
    }
}

/// A backup that was killed before its mark stood leaves hidden files only.
bool holdsSomething(const fs::path& folder) {
    std::error_code ec;
    const fs::directory_iterator all(folder, ec);
    return std::any_of(begin(all), end(all),
                       [](const auto& entry) { return !entry.path().filename().string().starts_with("."); });
}

/// What the rows of a snapshot name, within the library; the still of a film where there is one. Throws
/// SQLite::Exception.
std::vector<std::string> filesNamedIn(const fs::path& snapshot, const fs::path& library) {
    SQLite::Database db(snapshot.string(), SQLite::OPEN_READONLY);
    std::set<std::string> files;
    std::error_code ec;
    for (const std::string& hash :
         rowsOf(db, "SELECT hash FROM media", [](auto& q) { return textAt(q, 0); })) {
        files.insert(filmFile(hash));
        if (fs::exists(library / stillFile(hash), ec)) files.insert(stillFile(hash));
    }
    for (const char* sql : {"SELECT document FROM reviews", "SELECT document FROM versions"})
        for (const std::string& text : rowsOf(db, sql, [](auto& q) { return textAt(q, 0); }))
            if (const auto review = reviewFromJson(text))
                for (const std::string& take : review->takeFiles()) files.insert(takeFile(take));
    for (const std::string& mail :
         rowsOf(db, "SELECT file FROM outbox", [](auto& q) { return textAt(q, 0); }))
        if (fs::exists(library / letterFile(mail), ec))
            files.insert(letterFile(mail)); // one that is out may be gone
    files.erase("");
    return {files.begin(), files.end()};
}

std::int64_t writtenAt(const fs::path& file) {
    std::error_code ec;
    return static_cast<std::int64_t>(fs::last_write_time(file, ec).time_since_epoch().count());
}

class Backup {
public:
    Backup(Library& library, fs::path to, std::stop_token stop, const BackupProgress& progress)
        : library_(library)
        , to_(std::move(to))
        , stop_(std::move(stop))
        , progress_(progress)
        , lock_(QString::fromStdString((to_ / kLock).string())) {
        lock_.setStaleLockTime(0); // a large one takes hours; only that of a dead program is broken
    }

    Result<BackupState> run(std::int64_t nowUnix) {
        if (auto ready = prepare(); !ready) return ready.error();
        state_.at = stampOf(nowUnix);
        auto files = takeDatabase();
        if (!files) return files.error();
        std::error_code ec;
        for (const std::string& f : *files)
            if (const auto bytes = fs::file_size(library_.folder() / f, ec); !ec) all_ += bytes;
        for (const std::string& f : *files)
            if (auto taken = take(f); !taken) return taken.error();
        const fs::path file = to_ / "states" / (state_.at + ".json");
        if (auto written = library_.files().write(file, asJson(state_).dump(1)); !written)
            return written.error();
        remember(nowUnix);
        noteAllForgotten();
        return state_;
    }

private:
    /// Refuses what is no place for it, and learns what the last backup knew.
    Status prepare() {
        std::error_code ec;
        const fs::path home = fs::weakly_canonical(library_.folder(), ec),
                       target = fs::weakly_canonical(to_, ec);
        if (const auto inside = fs::relative(target, home, ec); !inside.empty() && *inside.begin() != "..")
            return fail(ErrorCode::Refused, msg("backup.inside"));
        for (const char* sub : {"", "objects", "states"})
            if (fs::is_symlink(fs::symlink_status(*sub ? to_ / sub : to_, ec)))
                return fail(ErrorCode::Refused, msg("backup.link", {{"folder", (to_ / sub).string()}}));
        const bool known = fs::exists(to_ / kMark, ec);
        if (!known && holdsSomething(to_))
            return fail(ErrorCode::Refused, msg("backup.not-empty", {{"folder", to_.string()}}));
        if (const int error = makeFolders(to_)) return writeError(to_, error);
        fs::permissions(to_, fs::perms::owner_all, ec); // films of children here, too
        if (!lock_.tryLock(0))
            return lock_.error() == QLockFile::LockFailedError
                       ? Status(fail(ErrorCode::Refused, msg("backup.under-way")))
                       : Status(writeError(to_, EACCES));
        if (!known)
            if (auto made = library_.files().write(to_ / kMark, json{{"format", kBackupFormat}}.dump());
                !made)
                return made;
        if (const int error = makeFolders(to_ / "objects")) return writeError(to_, error);
        if (const auto states = backupStates(to_); states && !states->empty())
            for (const BackedFile& f : states->front().files) before_[f.path] = f; // of the newest that reads
        return Done{};
    }

    /// For the reminder, and for whom a deleted athlete still lies there. A library that can only be read
    /// can't keep it.
    void remember(std::int64_t nowUnix) {
        const std::string folder = fs::weakly_canonical(to_).string();
        library_.put(ListOf::Backups, folder, json{{"at", nowUnix}}.dump()).ok();
    }

    /// Who was deleted while this folder was out of reach.
    void noteAllForgotten() {
        std::vector<std::string> keys;
        if (const auto rows = library_.rows(ListOf::Forgotten))
            for (const ListEntry& row : *rows) keys.push_back(row.key);
        if (!keys.empty()) noteForgotten(to_, keys, library_.files()).ok(); // the next backup tries again
    }

    /// The rows, and the files they name.
    Result<std::vector<std::string>> takeDatabase() {
        const fs::path snapshot = to_ / ".snapshot.sqlite";
        std::error_code ec;
        fs::remove(snapshot, ec);
        if (auto made = library_.snapshot(snapshot); !made) return made.error();
        Result<std::vector<std::string>> files = std::vector<std::string>();
        try {
            files = filesNamedIn(snapshot, library_.folder());
        } catch (const std::exception&) {
            files = fail(ErrorCode::Damaged, msg("sqlite-store.the-library-cant-be-read-e"));
        }
        if (const Status taken = takeAs(snapshot, kDatabaseFile, {}); files && !taken) files = taken.error();
        for (const char* beside : {"", "-wal", "-shm"}) fs::remove(snapshot.string() + beside, ec);
        return files;
    }

    Status take(const std::string& path) {
        if (stop_.stop_requested()) return fail(ErrorCode::Cancelled, msg("backup.stopped"));
        const fs::path file = library_.folder() / path;
        std::error_code ec;
        if (!fs::is_regular_file(
                fs::symlink_status(file, ec))) { // gone, deleted meanwhile, or a link out of here
            state_.missing.push_back(path);
            return Done{};
        }
        const std::uint64_t bytes = fs::file_size(file, ec);
        const auto known = before_.find(path);
        const bool same = known != before_.end() && known->second.bytes == bytes &&
                          known->second.writtenAt == writtenAt(file) && holds(known->second);
        if (same)
            state_.files.push_back(known->second);
        else if (auto taken = takeAs(file, path, namedHash(file)); !taken)
            return taken;
        done_ += bytes;
        if (progress_)
            progress_(static_cast<double>(done_) / static_cast<double>(std::max<std::uint64_t>(1, all_)));
        return Done{};
    }

    /// The hash that a film's name promises.
    static std::optional<std::string> namedHash(const fs::path& file) {
        const std::string name = file.filename().string();
        return isContentHash(name) ? std::optional(name) : std::nullopt;
    }

    /// Whole, and of the right content: each object is read once a backup, for disks rot.
    bool holds(const BackedFile& f) {
        if (const auto it = whole_.find(f.sha256); it != whole_.end()) return it->second;
        const fs::path object = objectPath(to_, f.sha256);
        std::error_code ec;
        bool whole =
            fs::is_regular_file(fs::symlink_status(object, ec)) && fs::file_size(object, ec) == f.bytes;
        if (whole) {
            const auto hash = contentHash(object, stop_);
            whole = hash && *hash == f.sha256;
        }
        return whole_[f.sha256] = whole;
    }

    Status takeAs(const fs::path& file, const std::string& path, const std::optional<std::string>& promised) {
        std::error_code ec;
        BackedFile f{path, promised.value_or(""), fs::file_size(file, ec), writtenAt(file)};
        if (!promised || !holds(f)) {
            auto hash = contentHash(file, stop_);
            if (!hash) return hash.error();
            if (promised &&
                *hash != *promised) { // it would bring nobody's film back; all else is worth keeping
                state_.missing.push_back(path);
                return Done{};
            }
            f.sha256 = *hash;
        }
        if (!holds(f)) {
            const fs::path object = objectPath(to_, f.sha256);
            if (auto copied = library_.files().copy(file, object); !copied) return copied;
            whole_[f.sha256] = true;
            state_.copiedBytes += f.bytes;
        }
        state_.files.push_back(std::move(f));
        return Done{};
    }

    Library& library_;
    fs::path to_;
    std::stop_token stop_;
    const BackupProgress& progress_;
    QLockFile lock_; ///< two at once would write one snapshot
    std::map<std::string, BackedFile> before_;
    std::map<std::string, bool> whole_; ///< objects, by hash
    BackupState state_;
    std::uint64_t all_ = 0, done_ = 0;
};

} // namespace

std::optional<std::int64_t> lastBackup(Store& store) {
    std::optional<std::int64_t> last;
    const auto rows = store.rows(ListOf::Backups);
    if (!rows) return last;
    for (const ListEntry& row : *rows) {
        const json d = parseDocumentOrNone(row.document);
        if (d.is_object() && d.contains("at") && d["at"].is_number_integer())
            last = std::max(last.value_or(0), d["at"].get<std::int64_t>());
    }
    return last;
}

Result<BackupState> backUp(Library& library, const fs::path& to, std::int64_t nowUnix, std::stop_token stop,
                           const BackupProgress& progress) {
    return Backup(library, to, std::move(stop), progress).run(nowUnix);
}

Result<BackupStates> backupStates(const fs::path& folder) {
    std::error_code ec;
    if (!fs::exists(folder / kMark, ec))
        return fail(ErrorCode::NotFound, msg("backup.none-there", {{"folder", folder.string()}}));
    BackupStates all;
    for (const auto& entry : fs::directory_iterator(folder / "states", ec)) {
        if (entry.path().extension() != ".json" || entry.path().filename().string().starts_with("."))
            continue;
        auto state = stateFrom(entry.path());
        state ? all.states.push_back(std::move(*state)) : all.unreadable.push_back(state.error().text);
    }
    std::sort(all.states.begin(), all.states.end(), [](const auto& a, const auto& b) { return a.at > b.at; });
    return all;
}

namespace {

std::set<std::string> forgottenIn(const fs::path& folder) {
    std::set<std::string> keys;
    const auto text = readFile(folder / kForgottenFile);
    const json all = text ? parseDocumentOrNone(*text) : json();
    if (all.is_array())
        for (const json& key : all)
            if (key.is_string()) keys.insert(key.get<std::string>());
    return keys;
}

} // namespace

Status noteForgotten(const fs::path& folder, const std::vector<std::string>& keys, FileStore& files) {
    std::error_code ec;
    if (!fs::exists(folder / kMark, ec))
        return fail(ErrorCode::NotFound, msg("backup.none-there", {{"folder", folder.string()}}));
    std::set<std::string> all = forgottenIn(folder);
    const std::size_t before = all.size();
    all.insert(keys.begin(), keys.end());
    return all.size() == before ? Status(Done{}) : files.write(folder / kForgottenFile, json(all).dump());
}

Result<std::vector<Message>> checkBackup(const fs::path& folder, const BackupState& state,
                                         std::stop_token stop, const BackupProgress& progress) {
    std::vector<Message> wrong;
    for (std::size_t i = 0; i < state.files.size(); ++i) {
        const BackedFile& f = state.files[i];
        const fs::path object = objectPath(folder, f.sha256);
        std::error_code ec;
        const auto hash =
            fs::exists(object, ec) ? contentHash(object, stop) : Result<std::string>(std::string());
        if (!hash && hash.error().code == ErrorCode::Cancelled) return hash.error();
        if (!hash || *hash != f.sha256)
            wrong.push_back(
                msg(hash && hash->empty() ? "backup.missing" : "backup.altered", {{"file", f.path}}));
        if (progress) progress(static_cast<double>(i + 1) / static_cast<double>(state.files.size()));
    }
    return wrong;
}

namespace {

/// One state on its way back.
class Restore {
public:
    Restore(fs::path folder, const BackupState& state, const fs::path& to, FileStore& files,
            std::stop_token stop, const BackupProgress& progress)
        : folder_(std::move(folder))
        , state_(state)
        , to_(to)
        , files_(files)
        , stop_(std::move(stop))
        , progress_(progress) {}

    Result<RestoreReport> run() {
        std::error_code ec;
        if (auto may = mayGo(); !may) return may.error();
        std::string part = (to_.parent_path() / ".part-restore-XXXXXX").string();
        if (!::mkdtemp(part.data())) return writeError(to_, errno);
        part_ = part;
        if (auto all = bringAll(); !all) {
            fs::remove_all(part_, ec);
            return all.error();
        }
        nameThoseWhoComeBack();
        keepTakenBack();
        fs::remove(to_, ec); // an empty folder
        fs::rename(part_, to_, ec);
        if (const int error = ec ? ec.value() : syncFolder(to_.parent_path())) {
            const Error why = writeError(to_, error);
            fs::remove_all(part_, ec);
            return why;
        }
        for (const std::string& file : state_.missing)
            report_.notes.push_back(msg("backup.was-missing", {{"file", file}}));
        return std::move(report_);
    }

private:
    Status mayGo() const {
        std::error_code ec;
        const auto there = fs::symlink_status(to_, ec);
        if (fs::exists(there) && !(fs::is_directory(there) && fs::is_empty(to_, ec)))
            return fail(ErrorCode::Refused, msg("backup.target-holds-something", {{"folder", to_.string()}}));
        const int error = makeFolders(to_.parent_path());
        return error ? Status(writeError(to_, error)) : Status(Done{});
    }

    Status bringAll() {
        for (const FolderFacts& f : kLibraryFolders)
            if (const int error = f.kept ? makeFolders(part_ / f.name) : 0) return writeError(part_, error);
        bool database = false;
        for (std::size_t i = 0; i < state_.files.size(); ++i) {
            if (stop_.stop_requested()) return fail(ErrorCode::Cancelled, msg("backup.stopped"));
            const Status brought = bring(state_.files[i]);
            const bool rotten = !brought && (brought.error().code == ErrorCode::Damaged ||
                                             brought.error().code == ErrorCode::Unreadable);
            if (!brought && (!rotten || state_.files[i].path == kDatabaseFile)) return brought;
            if (rotten) report_.notes.push_back(brought.error().text);
            database = database || state_.files[i].path == kDatabaseFile;
            if (progress_) progress_(static_cast<double>(i + 1) / static_cast<double>(state_.files.size()));
        }
        return database ? Status(Done{})
                        : fail(ErrorCode::Damaged, msg("backup.missing", {{"file", kDatabaseFile}}));
    }

    /// Errors: Damaged for what is missing or altered; it is not left behind.
    Status bring(const BackedFile& f) {
        const fs::path object = objectPath(folder_, f.sha256), target = part_ / f.path;
        std::error_code ec;
        if (!fs::is_regular_file(fs::symlink_status(object, ec)))
            return fail(ErrorCode::Damaged, msg("backup.missing", {{"file", f.path}}));
        if (auto copied = files_.copy(object, target); !copied) return copied;
        const auto hash = contentHash(target, stop_);
        if (!hash && hash.error().code == ErrorCode::Cancelled) return hash.error();
        if (hash && *hash == f.sha256) return Done{};
        fs::remove(target, ec);
        return fail(ErrorCode::Damaged, msg("backup.altered", {{"file", f.path}}));
    }

    /// Who was deleted since this state was made is in it, and whoever brings it back must know.
    void nameThoseWhoComeBack() {
        const std::set<std::string> forgotten = forgottenIn(folder_);
        if (forgotten.empty()) return;
        try {
            SQLite::Database db((part_ / kDatabaseFile).string(), SQLite::OPEN_READONLY);
            SQLite::Statement all(db, "SELECT id, name FROM athletes ORDER BY name");
            while (all.executeStep())
                if (forgotten.contains(forgottenKey({textAt(all, 0)})))
                    report_.notes.push_back(msg("backup.brings-back", {{"name", textAt(all, 1)}}));
        } catch (const std::exception&) {
            report_.notes.push_back(msg("backup.cant-tell-who"));
        }
    }

    /// A consent that the newest state knows to be taken back does not come back with an older one.
    void keepTakenBack() {
        const auto states = backupStates(folder_);
        if (!states || states->empty() || states->front().at <= state_.at) return;
        try {
            const std::map<AthleteId, Consent> ended = takenBackIn(states->front());
            if (ended.empty()) return;
            const auto library = Library::open(part_, false, std::make_shared<FileStore>());
            if (!library) return report_.notes.push_back(library.error().text);
            for (const auto& [athlete, consent] : ended) endConsent(**library, athlete, consent);
        } catch (const std::exception&) {
            report_.notes.push_back(msg("backup.cant-tell-consents"));
        }
    }

    std::map<AthleteId, Consent> takenBackIn(const BackupState& newest) const {
        std::map<AthleteId, Consent> ended;
        for (const BackedFile& f : newest.files) {
            if (f.path != kDatabaseFile) continue;
            SQLite::Database db(objectPath(folder_, f.sha256).string(), SQLite::OPEN_READONLY);
            SQLite::Statement all(db, "SELECT document FROM athletes");
            while (all.executeStep())
                if (const auto a = athleteFromJson(textAt(all, 0)); a && a->consent && a->consent->takenBack)
                    ended[a->id] = *a->consent;
        }
        return ended;
    }

    void endConsent(Library& library, const AthleteId& id, const Consent& ended) {
        bool ends = false;
        const auto now = library.change(id, [&](Athlete& a) -> Status {
            ends = !a.consent || !a.consent->takenBack;
            if (ends) a.consent = ended;
            return Done{};
        });
        if (now && ends) report_.notes.push_back(msg("backup.stays-taken-back", {{"name", now->fullName()}}));
        if (!now && now.error().code != ErrorCode::NotFound) report_.notes.push_back(now.error().text);
    }

    fs::path folder_;
    const BackupState& state_;
    fs::path to_, part_;
    FileStore& files_;
    std::stop_token stop_;
    const BackupProgress& progress_;
    RestoreReport report_;
};

} // namespace

Result<RestoreReport> restoreBackup(const fs::path& folder, const BackupState& state, const fs::path& to,
                                    FileStore& files, std::stop_token stop, const BackupProgress& progress) {
    std::error_code ec;
    fs::path target = fs::absolute(to, ec).lexically_normal();
    if (!target.has_filename()) target = target.parent_path(); // "DIR/"
    return Restore(folder, state, target, files, std::move(stop), progress).run();
}

} // namespace jg
