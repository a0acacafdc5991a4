// SPDX-License-Identifier: GPL-3.0-or-later
// What many tests need: folders of their own, the shipped playbook, a small library.
#pragma once

#include "base/date.h"
#include "coaching/playbook.h"
#include "demo/films/film_maker.h"
#include "film/reader.h"
#include "library/library.h"
#include "words/words.h"

#include <gtest/gtest.h>

#include <filesystem>
#include <memory>
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

/// A film of a generated delivery, made in a folder of its own and open.
class MadeFilm {
public:
    explicit MadeFilm(const FilmOrder& order);
    Reader& reader() { return *reader_; }
    const TempFolder& folder() const { return folder_; }

private:
    TempFolder folder_;
    std::unique_ptr<Reader> reader_;
};

/// The shipped playbook (loaded once).
const Playbook& playbook();

/// Puts something into a library as it is here, were it there or not: tests begin with what they need.
Status put(Store& store, const Athlete& athlete);
Status put(Store& store, const Submission& submission, const Athlete* newAthlete = nullptr);
Status put(Store& store, const Promise& promise);
Status put(Store& store, const OutboxItem& item);

/// The demo world's day.
Date today();

/// A small, quick film of a delivery: 320 x 180.
FilmOrder smallOrder(int fps = 60, Hand hand = Hand::Right, View view = View::Open);

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

/// Folder with the built executables.
std::filesystem::path binFolder();

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
