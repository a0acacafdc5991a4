// SPDX-License-Identifier: GPL-3.0-or-later
#include "library/zip.h"

#include "base/file_store.h"

#include <sys/stat.h>
#include <zip.h>

#include <cerrno>
#include <fstream>

namespace jg {

namespace fs = std::filesystem;

namespace {

Error notWhole() {
    return fail(ErrorCode::BadInput, msg("bundle.not-whole"));
}

/// What a Unix zip says an entry is; from other systems only a folder can be told, by its name.
bool isOrdinary(zip* handle, zip_uint64_t i, const std::string& name) {
    if (name.empty() || name.back() == '/') return false;
    zip_uint8_t system = 0;
    zip_uint32_t attributes = 0;
    if (zip_file_get_external_attributes(handle, i, 0, &system, &attributes) != 0) return false;
    const mode_t mode = attributes >> 16;
    return system != ZIP_OPSYS_UNIX || mode == 0 || S_ISREG(mode) || (mode & S_IFMT) == 0;
}

struct Watched {
    std::stop_token stop;
    const std::function<void(double)>& progress;
};

} // namespace

Result<ZipWriter> ZipWriter::create(const fs::path& file) {
    int error = 0;
    zip* handle = zip_open(file.c_str(), ZIP_CREATE | ZIP_TRUNCATE, &error);
    if (!handle) return writeError(file, errno);
    return ZipWriter(handle);
}

ZipWriter::ZipWriter(ZipWriter&& other) noexcept
    : handle_(std::exchange(other.handle_, nullptr))
    , texts_(std::move(other.texts_)) {}

ZipWriter::~ZipWriter() {
    if (handle_) zip_discard(handle_);
}

namespace {

Status added(zip* handle, const std::string& name, zip_source* source, bool stored) {
    const zip_int64_t i = source ? zip_file_add(handle, name.c_str(), source, ZIP_FL_ENC_UTF_8) : -1;
    if (i < 0) {
        if (source) zip_source_free(source);
        return fail(ErrorCode::WriteFailed, msg("bundle.cant-add", {{"file", name}}));
    }
    const auto place = static_cast<zip_uint64_t>(i);
    zip_set_file_compression(handle, place, stored ? ZIP_CM_STORE : ZIP_CM_DEFLATE, 0);
    constexpr time_t kAlways = 315532800; // 1980, where zip's time begins: the same bytes every time
    zip_file_set_mtime(handle, place, kAlways, 0);
    return Done{};
}

} // namespace

Status ZipWriter::addText(const std::string& name, const std::string& text) {
    texts_.push_back(std::make_unique<std::string>(text));
    return added(handle_, name, zip_source_buffer(handle_, texts_.back()->data(), texts_.back()->size(), 0),
                 false);
}

Status ZipWriter::addFile(const std::string& name, const fs::path& file) {
    return added(handle_, name, zip_source_file(handle_, file.c_str(), 0, -1), true);
}

Status ZipWriter::finish(std::stop_token stop, const std::function<void(double)>& progress) {
    Watched watched{std::move(stop), progress};
    zip_register_progress_callback_with_state(
        handle_, 0.01,
        [](zip*, double part, void* state) {
            if (const auto& tell = static_cast<Watched*>(state)->progress) tell(part);
        },
        nullptr, &watched);
    zip_register_cancel_callback_with_state(
        handle_,
        [](zip*, void* state) { return static_cast<Watched*>(state)->stop.stop_requested() ? 1 : 0; },
        nullptr, &watched);
    if (zip_close(handle_) == 0) {
        handle_ = nullptr;
        return Done{};
    }
    const int system = zip_error_code_system(zip_get_error(handle_));
    zip_discard(std::exchange(handle_, nullptr));
    if (watched.stop.stop_requested()) return fail(ErrorCode::Cancelled, msg("bundle.stopped"));
    return fail(system == ENOSPC ? ErrorCode::DiskFull : ErrorCode::WriteFailed, msg("bundle.cant-write"));
}

Result<ZipReader> ZipReader::open(const fs::path& file) {
    std::error_code ec;
    if (!fs::is_regular_file(fs::symlink_status(file, ec)))
        return fail(ErrorCode::NotFound, msg("bundle.no-file", {{"file", file.string()}}));
    int error = 0;
    zip* handle = zip_open(file.c_str(), ZIP_RDONLY | ZIP_CHECKCONS, &error);
    if (!handle) return notWhole();
    ZipReader reader(handle);
    const zip_int64_t count = zip_get_num_entries(handle, 0);
    if (count < 0 || count > kMostEntries) return notWhole();
    for (zip_uint64_t i = 0; i < static_cast<zip_uint64_t>(count); ++i) {
        zip_stat_t stat;
        if (zip_stat_index(handle, i, 0, &stat) != 0 || !(stat.valid & ZIP_STAT_NAME) ||
            !(stat.valid & ZIP_STAT_SIZE))
            return notWhole();
        reader.entries_.push_back({stat.name, stat.size, isOrdinary(handle, i, stat.name)});
    }
    return reader;
}

ZipReader::ZipReader(ZipReader&& other) noexcept
    : handle_(std::exchange(other.handle_, nullptr))
    , entries_(std::move(other.entries_)) {}

ZipReader::~ZipReader() {
    if (handle_) zip_discard(handle_);
}

Status ZipReader::read(const std::string& name,
                       const std::function<bool(const char*, std::size_t)>& take) const {
    zip_file_t* in = zip_fopen(handle_, name.c_str(), 0);
    if (!in) return notWhole();
    std::vector<char> block(1 << 18);
    zip_int64_t n = 0;
    bool wanted = true;
    while (wanted && (n = zip_fread(in, block.data(), block.size())) > 0)
        wanted = take(block.data(), static_cast<std::size_t>(n));
    const int closed = zip_fclose(in); // tells of a wrong checksum
    return wanted && n == 0 && closed == 0 ? Status(Done{}) : Status(notWhole());
}

Result<std::string> ZipReader::text(const std::string& name, std::uint64_t most) const {
    std::string text;
    const Status done = read(name, [&](const char* bytes, std::size_t n) {
        if (text.size() + n > most) return false;
        text.append(bytes, n);
        return true;
    });
    if (!done) return done.error();
    return text;
}

Status ZipReader::unpack(const std::string& name, std::uint64_t bytes, const fs::path& to,
                         std::stop_token stop) const {
    std::ofstream out(to, std::ios::binary);
    std::uint64_t written = 0;
    const Status done = read(name, [&](const char* block, std::size_t n) {
        written += n;
        if (written > bytes || stop.stop_requested()) return false;
        out.write(block, static_cast<std::streamsize>(n));
        return out.good();
    });
    out.flush();
    if (stop.stop_requested()) return fail(ErrorCode::Cancelled, msg("bundle.stopped"));
    if (!out) return writeError(to, errno ? errno : ENOSPC);
    if (!done) return done;
    return written == bytes ? Status(Done{}) : Status(notWhole());
}

} // namespace jg
