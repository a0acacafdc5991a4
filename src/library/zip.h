// SPDX-License-Identifier: GPL-3.0-or-later
// A zip file, written and read with strangers' files in mind. Inside the library room only.
#pragma once

#include "base/result.h"

#include <cstdint>
#include <filesystem>
#include <functional>
#include <memory>
#include <stop_token>
#include <string>
#include <vector>

struct zip;

namespace jg {

/// Films are stored as they are, text is compressed; the same contents give the same bytes.
class ZipWriter {
public:
    /// Errors: WriteFailed.
    static Result<ZipWriter> create(const std::filesystem::path& file);
    ZipWriter(ZipWriter&&) noexcept;
    ZipWriter& operator=(ZipWriter&&) = delete;
    ~ZipWriter(); ///< gives up what finish() did not write

    Status addText(const std::string& name, const std::string& text);
    /// The file is read when the zip is finished.
    Status addFile(const std::string& name, const std::filesystem::path& file);
    /// Writes it. Errors: DiskFull, WriteFailed, Cancelled.
    Status finish(std::stop_token stop, const std::function<void(double)>& progress);

private:
    explicit ZipWriter(zip* handle)
        : handle_(handle) {}
    zip* handle_;
    std::vector<std::unique_ptr<std::string>> texts_; ///< read when it is finished
};

class ZipReader {
public:
    struct Entry {
        std::string name;
        std::uint64_t bytes = 0; ///< unpacked, as the zip says
        bool isFile = true;      ///< no folder, link or device
    };

    /// Errors: BadInput for what is no whole zip, or holds more than kMostEntries.
    static Result<ZipReader> open(const std::filesystem::path& file);
    ZipReader(ZipReader&&) noexcept;
    ZipReader& operator=(ZipReader&&) = delete;
    ~ZipReader();

    const std::vector<Entry>& entries() const { return entries_; }
    /// An entry as text, at most `most` bytes. Errors: BadInput.
    Result<std::string> text(const std::string& name, std::uint64_t most) const;
    /// Unpacks an entry of exactly `bytes` into a new file. Errors: BadInput (more, fewer, or damaged),
    /// DiskFull, WriteFailed, Cancelled.
    Status unpack(const std::string& name, std::uint64_t bytes, const std::filesystem::path& to,
                  std::stop_token stop) const;

    static constexpr std::int64_t kMostEntries = 100000;

private:
    explicit ZipReader(zip* handle)
        : handle_(handle) {}
    /// Hands the entry on in blocks; false from `take` breaks off.
    Status read(const std::string& name, const std::function<bool(const char*, std::size_t)>& take) const;
    zip* handle_;
    std::vector<Entry> entries_;
};

} // namespace jg
