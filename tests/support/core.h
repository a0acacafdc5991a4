// SPDX-License-Identifier: GPL-3.0-or-later
// What tests of the computing rooms need, which know neither films nor a library: folders, the playbook,
// words.
#pragma once

#include "base/date.h"
#include "base/file_store.h"
#include "coaching/playbook.h"

#include <gtest/gtest.h>

#include <filesystem>
#include <string>

namespace jg {

/// A message in English, as tests read it.
std::string said(const Message& message);
bool operator==(const Message& message, const std::string& words);
std::ostream& operator<<(std::ostream& out, const Message& message);

} // namespace jg

namespace jg::test {

/// A new empty folder, removed at the end.
class TempFolder {
public:
    TempFolder();
    ~TempFolder();
    std::filesystem::path operator/(const std::string& name) const { return path_ / name; }
    const std::filesystem::path& path() const { return path_; }

private:
    std::filesystem::path path_;
};

/// Where the shipped playbook lies, and the playbook itself (loaded once).
std::filesystem::path playbookFolder();
const Playbook& playbook();

/// The demo world's day.
Date today();

/// A number as it is shown with a normal error.
inline Shown plusMinus(double value, double sd) {
    return {value, value - kSdsOf95 * sd, value + kSdsOf95 * sd};
}

/// Output of a shell command; the exit code in `code`.
std::string shell(const std::string& command, int* code = nullptr);

/// Without any white space: pdftotext guesses spaces from distances.
std::string squeezed(std::string text);

/// A line of this process's status, as VmRSS or VmHWM, in bytes.
std::size_t statusBytes(const std::string& name);

/// A sanitizer keeps freed memory and pads every block: what is measured would be its own. It finds leaks
/// itself.
#ifdef __SANITIZE_ADDRESS__
inline constexpr bool kMemoryIsTheSanitizers = true;
#else
inline constexpr bool kMemoryIsTheSanitizers = false;
#endif

/// While it lives the process may only do what any user may: for root, permissions would not count.
class AsNobody {
public:
    AsNobody();
    ~AsNobody();

private:
    unsigned before_;
};

/// A disk that is full: every write fails.
class FullDisk final : public FileStore {
public:
    Status publish(const std::filesystem::path& path,
                   const std::function<Status(const std::filesystem::path&)>& make) override;
};

} // namespace jg::test
