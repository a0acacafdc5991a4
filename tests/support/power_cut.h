// SPDX-License-Identifier: GPL-3.0-or-later
// A disk that keeps only what was synced: a shadow of each file as it was at its last fsync, and of each
// folder's names as they were at its own. After a cut the tree is made again from the shadow: a file whose
// name was synced and whose content was not is empty. Without sync a rename, a new name and a deletion are
// lost. Used by the preloaded library and by the test.
#pragma once

#include <cstdio>
#include <filesystem>
#include <fstream>
#include <sstream>
#include <string>

#include <fcntl.h>
#include <sys/stat.h>
#include <unistd.h>

namespace jg::power {

namespace fs = std::filesystem;

/// What a file is known by, whatever it is called: its number on the disk, which may be used again, and its
/// birth.
inline std::string keyOf(const fs::path& path) {
    struct statx facts {};
    if (::statx(AT_FDCWD, path.c_str(), AT_SYMLINK_NOFOLLOW, STATX_INO | STATX_BTIME, &facts) != 0) return {};
    std::ostringstream key;
    key << facts.stx_ino << '-' << facts.stx_btime.tv_sec << '-' << facts.stx_btime.tv_nsec;
    return key.str();
}

/// Writes beside and renames: a program that is killed meanwhile leaves the shadow as it was.
template <typename Write>
void replace(const fs::path& shadow, const std::string& name, Write write) {
    const fs::path part = shadow / (name + ".part-" + std::to_string(::getpid()));
    if (!write(part)) return;
    std::error_code ec;
    fs::rename(part, shadow / name, ec);
}

/// The file or folder is on the disk as it is now.
inline void keep(const fs::path& path, const fs::path& shadow) {
    const std::string key = keyOf(path);
    std::error_code ec;
    if (key.empty()) return;
    if (fs::is_directory(path, ec))
        replace(shadow, "names-" + key, [&](const fs::path& to) {
            std::ofstream out(to);
            for (const auto& entry : fs::directory_iterator(path, ec))
                if (entry.is_directory(ec) || entry.is_regular_file(ec))
                    out << (entry.is_directory(ec) ? 'd' : 'f') << ' ' << keyOf(entry.path()) << ' '
                        << entry.path().filename().string() << '\n';
            return out.good();
        });
    else
        replace(shadow, "content-" + key, [&](const fs::path& to) {
            std::error_code failed;
            fs::copy_file(path, to, fs::copy_options::overwrite_existing, failed);
            return !failed;
        });
}

/// All below a folder is on the disk: how a test begins.
inline void keepAll(const fs::path& folder, const fs::path& shadow) {
    for (const auto& entry : fs::recursive_directory_iterator(folder)) keep(entry.path(), shadow);
    keep(folder, shadow);
}

/// Makes the folder `to` as the folder of that key is on the disk.
inline void bringBack(const std::string& key, const fs::path& shadow, const fs::path& to) {
    fs::create_directories(to);
    std::ifstream names(shadow / ("names-" + key));
    std::string kind, of, name;
    while (names >> kind >> of && names.get() && std::getline(names, name)) {
        if (kind == "d")
            bringBack(of, shadow, to / name);
        else if (fs::exists(shadow / ("content-" + of)))
            fs::copy_file(shadow / ("content-" + of), to / name);
        else
            std::ofstream(to / name).flush(); // its name came to the disk and nothing of it
    }
}

/// The power goes: the folder is what was synced of it. Nobody may have it open.
inline void cut(const fs::path& folder, const fs::path& shadow) {
    const fs::path back = folder.string() + ".back";
    bringBack(keyOf(folder), shadow, back);
    fs::remove_all(folder);
    fs::rename(back, folder);
    fs::remove_all(shadow);
    fs::create_directories(shadow);
}

} // namespace jg::power
