// SPDX-License-Identifier: GPL-3.0-or-later
// What a library's folder may hold. Sweep, verify, forget, backup, bundles and links ask this list, and
// nothing else.
#pragma once

#include <chrono>
#include <filesystem>
#include <optional>
#include <string>
#include <string_view>

namespace jg {

/// The folders beside the database, and what each is for.
enum class LibraryFolder {
    Media,     ///< films under their SHA-256, each with a small still
    Takes,     ///< sound of what was said; ".part-" and the name while it is recorded
    Sent,      ///< mails as they went out or will
    Scrub,     ///< light copies of films, made again when they are gone
    Work,      ///< one folder a job, gone when it ends
    SetAside,  ///< what a repair took from its place
    PostOffice ///< mails that the stand-in post office took
};

struct FolderFacts {
    LibraryFolder folder;
    const char* name;
    bool kept; ///< belongs into backups; what is not can be made again or is a person's to look at
};

inline constexpr FolderFacts kLibraryFolders[] = {{LibraryFolder::Media, "media", true},
                                                  {LibraryFolder::Takes, "takes", true},
                                                  {LibraryFolder::Sent, "sent", true},
                                                  {LibraryFolder::Scrub, "scrub", false},
                                                  {LibraryFolder::Work, "work", false},
                                                  {LibraryFolder::SetAside, "set-aside", false},
                                                  {LibraryFolder::PostOffice, "post-office", false}};

inline constexpr const char* kDatabaseFile = "library.sqlite";
/// Empty; locked while names are out of sight (LookLock).
inline constexpr const char* kLookFile = "names-out-of-sight";

const char* nameOf(LibraryFolder folder);
std::filesystem::path folderIn(const std::filesystem::path& library, LibraryFolder folder);

/// Paths within the library, "media/HASH"; "" for a hash or name that is none (a row may be damaged), so that
/// nothing is ever reached outside.
std::string filmFile(const std::string& hash);
std::string stillFile(const std::string& hash);
std::string scrubFile(const std::string& hash);
std::string takeFile(const std::string& name);
std::string unfinishedTakeFile(const std::string& name);
std::string letterFile(const std::string& name);

/// True for a path that leads into a folder, and never out of it: relative, no "..", no ".", no backslash.
bool isInside(const std::filesystem::path& path);

/// True for the SHA-256 of a content, in hex.
bool isContentHash(std::string_view text);

/// The hash that the name of a film, a still or a scrub copy begins with; also of older libraries, whose
/// films had endings.
std::optional<std::string> hashOfFile(const std::filesystem::path& file);

/// True for what is being written under a hidden name.
bool isPart(std::string_view name);
/// Sound in the folder of takes that was being recorded: it can still be kept, and is offered where it was
/// said.
bool isUnfinishedTake(std::string_view name);

/// A younger file may be at work: a program is writing it, or about to tell of it. Own choice.
inline constexpr std::chrono::hours kAtWork{1};
/// Also one whose age can't be read.
bool mayBeAtWork(const std::filesystem::path& path);

/// True while the program lives that writes a part named ".part-PID-..." by FileStore.
bool writerLives(std::string_view part);

/// True for the database and what SQLite lays beside it.
bool isDatabaseFile(std::string_view name);

/// False for what stands in the library's folder and is no part of it.
bool belongsAtTheTop(std::string_view name);

/// The first of the library's own folders, or the database, that is a link; nothing when none is.
std::optional<std::string> linkIn(const std::filesystem::path& library);

} // namespace jg
