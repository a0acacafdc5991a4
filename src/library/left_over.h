// What of a library's folder a look at it, the sweep at its start, a backup and a bundle agree on. Inside the
// library room only.
#pragma once

#include "library/library.h"

#include <string_view>

namespace jg {

/// Beside the database; what can be made again lies elsewhere.
inline constexpr const char* kKeptFolders[] = {"media", "takes", "sent"};

/// A file so young that a program may still be writing it, or about to tell of it; also one whose age can't
/// be read.
inline bool mayBeAtWork(const std::filesystem::path& path) {
    std::error_code ec;
    const auto written = std::filesystem::last_write_time(path, ec);
    return ec || std::filesystem::file_time_type::clock::now() - written <= Library::kAtWork;
}

/// Sound of a take that was being recorded: it can still be kept, and is offered where it was said.
inline bool isTakesPart(std::string_view name) {
    return name.starts_with(".part-rev-");
}

} // namespace jg
