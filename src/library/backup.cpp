#include "library/backup.h"

#include "base/date.h"
#include "base/unfit.h"
#include "library/left_over.h"
#include "library/rows.h"
#include "library/setting_list.h"

#include <nlohmann/json.hpp>

#include <QLockFile>

#include <algorithm>
#include <cerrno>
#include <cstdio>
#include <map>
#include <optional>

namespace jg {

namespace fs = std::filesystem;
using nlohmann::json;

namespace {

constexpr const char* kBackupFormat = "juxtagraph-backup-1";
constexpr const char* kMark = "juxtagraph-backup.json"; ///< tells a backup folder from any other
constexpr const char* kDatabase = "library.sqlite";
constexpr const char* kLock = ".lock";
constexpr std::size_t kHashLength = 64;

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

/// A path of a state must lead into the library, whatever a stranger wrote there.
bool isInside(const std::string& path) {
    const fs::path p(path);
    if (path.empty() || p.is_absolute() || path.find('\\') != path.npos) return false;
    return std::none_of(p.begin(), p.end(), [](const fs::path& part) { return part == ".." || part == "."; });
}

bool isHash(const std::string& text) {
    return text.size() == kHashLength && text.find_first_not_of("0123456789abcdef") == text.npos;
}

json asJson(const BackupState& s) {
    json files = json::array();
    for (const BackedFile& f : s.files)
        files.push_back(
            {{"path", f.path}, {"sha256", f.sha256}, {"bytes", f.bytes}, {"writtenAt", f.writtenAt}});
    return {{"format", kBackupFormat}, {"at", s.at}, {"copiedBytes", s.copiedBytes}, {"files", files}};
}

Result<BackupState> stateFrom(const fs::path& file) {
    auto text = readFile(file);
    if (!text) return text.error();
    try {
        const json d = json::parse(*text);
        BackupState s;
        if (d.at("format") != kBackupFormat) throw Unfit(msg("backup.other-format"));
        s.at = d.at("at");
        s.copiedBytes = d.at("copiedBytes");
        for (const json& f : d.at("files")) {
            BackedFile b{f.at("path"), f.at("sha256"), f.at("bytes"), f.at("writtenAt")};
            if (!isInside(b.path) || !isHash(b.sha256)) throw Unfit(msg("backup.bad-path"));
            s.files.push_back(std::move(b));
        }
        return s;
    } catch (const std::exception& e) {
        return fail(ErrorCode::Damaged, msg("backup.state-unreadable",
                                            {{"file", file.filename().string()}, {"why", whyUnfit(e)}}));
    }
}

bool isPart(const fs::path& file) {
    return file.filename().string().starts_with(".");
}

/// A backup that was killed before its mark stood leaves hidden files only.
bool holdsSomething(const fs::path& folder) {
    std::error_code ec;
    const fs::directory_iterator all(folder, ec);
    return std::any_of(begin(all), end(all), [](const auto& entry) { return !isPart(entry.path()); });
}

/// Every file that belongs to the library, but the database.
std::vector<fs::path> filesOf(const fs::path& library) {
    std::vector<fs::path> all;
    std::error_code ec;
    for (const char* sub : kKeptFolders)
        for (const auto& entry : fs::directory_iterator(library / sub, ec))
            if (entry.is_regular_file(ec) && !entry.is_symlink(ec) && !isPart(entry.path()))
                all.push_back(entry.path());
    std::sort(all.begin(), all.end());
    return all;
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
        const std::vector<fs::path> files = filesOf(library_.folder());
        std::error_code ec;
        for (const fs::path& f : files) all_ += fs::file_size(f, ec);
        state_.at = stampOf(nowUnix);
        if (auto taken = takeDatabase(); !taken) return taken.error();
        for (const fs::path& f : files)
            if (auto taken = take(f); !taken) return taken.error();
        fs::create_directories(to_ / "states", ec);
        const fs::path file = to_ / "states" / (state_.at + ".json");
        if (auto written = library_.files().write(file, asJson(state_).dump(1)); !written)
            return written.error();
        remember(nowUnix);
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
        const bool known = fs::exists(to_ / kMark, ec);
        if (!known && holdsSomething(to_))
            return fail(ErrorCode::Refused, msg("backup.not-empty", {{"folder", to_.string()}}));
        fs::create_directories(to_, ec);
        if (ec) return writeError(to_, ec.value());
        fs::permissions(to_, fs::perms::owner_all, ec); // films of children here, too
        if (!lock_.tryLock(0))
            return lock_.error() == QLockFile::LockFailedError
                       ? Status(fail(ErrorCode::Refused, msg("backup.under-way")))
                       : Status(writeError(to_, EACCES));
        if (!known)
            if (auto made = library_.files().write(to_ / kMark, json{{"format", kBackupFormat}}.dump());
                !made)
                return made;
        fs::create_directories(to_ / "objects", ec);
        if (ec) return writeError(to_, ec.value());
        if (const auto states = backupStates(to_); states && !states->empty())
            for (const BackedFile& f : states->front().files) before_[f.path] = f;
        return Done{};
    }

    /// For the reminder, and for whom a deleted athlete still lies there. A library that can only be read
    /// can't keep it.
    void remember(std::int64_t nowUnix) {
        json folders = listInSetting(library_, kBackupFolders);
        const std::string folder = fs::weakly_canonical(to_).string();
        if (std::find(folders.begin(), folders.end(), folder) == folders.end()) folders.push_back(folder);
        if (library_.readOnly() || !library_.setSetting(kBackupFolders, folders.dump())) return;
        if (!library_.setSetting("backup.last", std::to_string(nowUnix))) return;
    }

    Status takeDatabase() {
        const fs::path snapshot = to_ / ".snapshot.sqlite";
        std::error_code ec;
        fs::remove(snapshot, ec);
        if (auto made = library_.snapshot(snapshot); !made) return made;
        const Status taken = takeAs(snapshot, kDatabase, {});
        fs::remove(snapshot, ec);
        return taken;
    }

    Status take(const fs::path& file) {
        if (stop_.stop_requested()) return fail(ErrorCode::Cancelled, msg("backup.stopped"));
        const std::string path = fs::relative(file, library_.folder()).generic_string();
        std::error_code ec;
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
        const std::string stem = file.stem().string();
        return isHash(stem) ? std::optional(stem) : std::nullopt;
    }

    bool holds(const BackedFile& f) const {
        std::error_code ec;
        return fs::file_size(objectPath(to_, f.sha256), ec) == f.bytes && !ec;
    }

    Status takeAs(const fs::path& file, const std::string& path, const std::optional<std::string>& promised) {
        std::error_code ec;
        BackedFile f{path, promised.value_or(""), fs::file_size(file, ec), writtenAt(file)};
        if (!promised || !holds(f)) {
            auto hash = contentHash(file, stop_);
            if (!hash) return hash.error();
            if (promised && *hash != *promised)
                return fail(ErrorCode::Damaged, msg("backup.film-altered", {{"file", path}}));
            f.sha256 = *hash;
        }
        if (!holds(f)) {
            const fs::path object = objectPath(to_, f.sha256);
            fs::create_directories(object.parent_path(), ec);
            if (auto copied = library_.files().copy(file, object); !copied) return copied;
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
    BackupState state_;
    std::uint64_t all_ = 0, done_ = 0;
};

} // namespace

Result<BackupState> backUp(Library& library, const fs::path& to, std::int64_t nowUnix, std::stop_token stop,
                           const BackupProgress& progress) {
    return Backup(library, to, std::move(stop), progress).run(nowUnix);
}

Result<std::vector<BackupState>> backupStates(const fs::path& folder) {
    std::error_code ec;
    if (!fs::exists(folder / kMark, ec))
        return fail(ErrorCode::NotFound, msg("backup.none-there", {{"folder", folder.string()}}));
    std::vector<BackupState> states;
    for (const auto& entry : fs::directory_iterator(folder / "states", ec)) {
        if (entry.path().extension() != ".json" || isPart(entry.path())) continue;
        auto state = stateFrom(entry.path());
        if (!state) return state.error();
        states.push_back(std::move(*state));
    }
    std::sort(states.begin(), states.end(), [](const auto& a, const auto& b) { return a.at > b.at; });
    return states;
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

Status restoreBackup(const fs::path& folder, const BackupState& state, const fs::path& to, FileStore& files,
                     std::stop_token stop, const BackupProgress& progress) {
    std::error_code ec;
    if (fs::exists(to, ec) && !(fs::is_directory(to, ec) && fs::is_empty(to, ec)))
        return fail(ErrorCode::Refused, msg("backup.target-holds-something", {{"folder", to.string()}}));
    fs::path part = to;
    part += ".part";
    fs::remove_all(part, ec);
    const auto giveUp = [&](Error why) {
        fs::remove_all(part, ec);
        return Status(std::move(why));
    };
    for (const char* sub : kKeptFolders) fs::create_directories(part / sub, ec);
    if (ec) return giveUp(writeError(part, ec.value()));
    fs::permissions(part, fs::perms::owner_all, ec);
    for (std::size_t i = 0; i < state.files.size(); ++i) {
        if (stop.stop_requested()) return giveUp(fail(ErrorCode::Cancelled, msg("backup.stopped")));
        const BackedFile& f = state.files[i];
        const fs::path target = part / f.path;
        fs::create_directories(target.parent_path(), ec);
        if (auto copied = files.copy(objectPath(folder, f.sha256), target); !copied)
            return giveUp(copied.error());
        const auto hash = contentHash(target, stop);
        if (!hash) return giveUp(hash.error());
        if (*hash != f.sha256)
            return giveUp(fail(ErrorCode::Damaged, msg("backup.altered", {{"file", f.path}})));
        if (progress) progress(static_cast<double>(i + 1) / static_cast<double>(state.files.size()));
    }
    fs::remove(to, ec); // an empty folder
    fs::rename(part, to, ec);
    return ec ? giveUp(writeError(to, ec.value())) : Status(Done{});
}

} // namespace jg
