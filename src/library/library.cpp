// SPDX-License-Identifier: GPL-3.0-or-later
#include "library/library.h"

#include "library/rows.h"
#include "library/sha256.h"

#include <QFile>

namespace jg {

namespace fs = std::filesystem;

Result<std::string> contentHash(const fs::path& file, std::stop_token stop,
                                const std::function<void(double)>& progress) {
    QFile in(QString::fromStdString(file.string()));
    const auto unreadable = [&] {
        return fail(ErrorCode::Unreadable, msg("library.unreadable", {{"file", file.string()}}));
    };
    if (!in.open(QIODevice::ReadOnly)) return unreadable();
    Sha256 hash;
    constexpr qint64 kBlock = 1 << 20;
    QByteArray block(kBlock, Qt::Uninitialized);
    const auto all = static_cast<double>(std::max<qint64>(1, in.size()));
    while (!in.atEnd()) {
        if (stop.stop_requested()) return fail(ErrorCode::Cancelled, msg("library.stopped"));
        const qint64 n = in.read(block.data(), kBlock);
        if (n < 0) return unreadable();
        hash.add({block.constData(), static_cast<std::size_t>(n)});
        if (progress) progress(static_cast<double>(in.pos()) / all);
    }
    return hash.hex();
}

Result<std::unique_ptr<Library>> Library::open(const fs::path& folder, bool create,
                                               std::shared_ptr<FileStore> files) {
    std::error_code ec;
    const fs::path file = folder / kDatabaseFile;
    if (const auto link = linkIn(folder))
        return fail(ErrorCode::Refused, msg("library.is-a-link", {{"name", *link}}));
    if (!fs::exists(file, ec)) {
        if (!create)
            return fail(ErrorCode::NotFound,
                        msg("library.there-is-no-library-in-folder", {{"folder", folder.string()}}));
        if (fs::exists(folder, ec) && !fs::is_empty(folder, ec))
            return fail(ErrorCode::Refused,
                        msg("library.folder-is-not-empty-and-holds", {{"folder", folder.string()}}));
        for (const FolderFacts& f : kLibraryFolders) {
            const bool made = f.kept || f.folder == LibraryFolder::Work;
            if (const int error = made ? makeFolders(folder / f.name) : 0) return writeError(folder, error);
        }
    }
    // Films of children: nobody else on this machine looks in. A library on a disk without rights stays as it
    // is.
    fs::permissions(folder, fs::perms::owner_all, ec);
    std::unique_ptr<Library> library(new Library);
    library->folder_ = folder;
    library->files_ = std::move(files);
    if (auto opened = library->openFile(file); !opened) return opened.error();
    return library;
}

Result<std::string> Library::addMedia(const fs::path& file, std::stop_token stop,
                                      const std::function<void(double)>& progress) {
    if (auto may = mayWrite(); !may) return may.error();
    auto hash = contentHash(file, stop, progress);
    if (!hash) return hash.error();
    if (auto may = mayWrite(); !may) return may.error(); // it may have taken a while
    const fs::path target = at(filmFile(*hash));
    std::error_code ec;
    if (!fs::exists(target, ec)) {
        if (auto copied = files_->copy(file, target); !copied) return copied.error();
        // A phone may still have been writing it.
        if (const auto copy = contentHash(target, stop); !copy || *copy != *hash) {
            fs::remove(target, ec);
            if (!copy) return copy.error();
            return fail(ErrorCode::Unreadable,
                        msg("library.film-changes", {{"file", file.filename().string()}}));
        }
    }
    const auto bytes = static_cast<std::int64_t>(fs::file_size(target, ec));
    const Status stored = write([&](SQLite::Database& db) {
        run(db, "INSERT INTO media VALUES (?,?,?) ON CONFLICT(hash) DO NOTHING", *hash,
            file.extension().string(), bytes);
    });
    if (!stored) return stored.error();
    return *hash;
}

void Library::dropUnusedMedia(const Clip& clip) {
    int dropped = 0;
    const Status done = write([&](SQLite::Database& db) {
        dropped =
            run(db, "DELETE FROM media WHERE hash = ?1 AND NOT EXISTS (SELECT 1 FROM clips WHERE media = ?1)",
                clip.mediaHash);
    });
    if (!done || dropped == 0) return;
    std::error_code ec;
    fs::remove(mediaPath(clip), ec);
    fs::remove(stillPath(clip), ec);
}

fs::path Library::at(const std::string& file) const {
    // Nothing can lie below a file.
    return file.empty() ? folder_ / kDatabaseFile / "none" : folder_ / file;
}
fs::path Library::mediaPath(const Clip& clip) const {
    return at(filmFile(clip.mediaHash));
}
fs::path Library::stillPath(const Clip& clip) const {
    return at(stillFile(clip.mediaHash));
}
fs::path Library::scrubPath(const Clip& clip) const {
    return at(scrubFile(clip.mediaHash));
}
fs::path Library::takePath(const std::string& file) const {
    return at(takeFile(file));
}
fs::path Library::unfinishedTakePath(const std::string& file) const {
    return at(unfinishedTakeFile(file));
}
fs::path Library::sentPath(const std::string& file) const {
    return at(letterFile(file));
}

Result<std::optional<SubmissionId>> Library::submissionOfClip(const ClipId& clip) {
    std::optional<SubmissionId> owner;
    const Status done = read([&](SQLite::Database& db) {
        for (std::string& id : rowsOf(
                 db, "SELECT submission FROM clips WHERE id = ?", [](auto& q) { return textAt(q, 0); },
                 clip.value))
            owner = SubmissionId{std::move(id)};
    });
    if (!done) return done.error();
    return owner;
}

Result<bool> Library::hasFilm(const std::string& hash) {
    bool there = false;
    const Status done = read([&](SQLite::Database& db) {
        there = !rowsOf(
                     db, "SELECT 1 FROM media WHERE hash = ?", [](auto&) { return true; }, hash)
                     .empty();
    });
    if (!done) return done.error();
    return there;
}

} // namespace jg
