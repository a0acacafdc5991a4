#include "library/library.h"

#include "library/database.h"
#include "review/review_json.h"

#include <QCryptographicHash>
#include <QFile>

#include <sqlite3.h>

#include <algorithm>
#include <cerrno>

namespace jg {

namespace fs = std::filesystem;

Result<std::string> contentHash(const fs::path& file) {
    QFile in(QString::fromStdString(file.string()));
    QCryptographicHash hash(QCryptographicHash::Sha256);
    if (!in.open(QIODevice::ReadOnly) || !hash.addData(&in))
        return fail(ErrorCode::Unreadable, file.string() + " can't be read. Check its permissions.");
    return hash.result().toHex().toStdString();
}

class Library::Impl {
public:
    fs::path folder;
    std::shared_ptr<FileStore> files;
    std::unique_ptr<SQLite::Database> db;

    /// Runs `work` in one transaction and turns SQLite's exceptions into errors.
    template <typename Work>
    Status write(Work work) {
        try {
            SQLite::Transaction transaction(*db, SQLite::TransactionBehavior::IMMEDIATE);
            work();
            transaction.commit();
            return Done{};
        } catch (const SQLite::Exception& e) {
            return e.getErrorCode() == SQLITE_FULL
                       ? writeError(folder / "library.sqlite", ENOSPC)
                       : fail(ErrorCode::WriteFailed, std::string("The library can't be written (") +
                                                          e.what() + "). The last change is not kept.");
        }
    }

    /// Reads the documents a query gives in its first column.
    template <typename T, typename Parse>
    Result<std::vector<T>> documents(const std::string& sql, const std::vector<std::string>& binds,
                                     Parse parse) {
        try {
            SQLite::Statement query(*db, sql);
            for (std::size_t i = 0; i < binds.size(); ++i) query.bind(static_cast<int>(i) + 1, binds[i]);
            std::vector<T> rows;
            while (query.executeStep()) {
                auto row = parse(query.getColumn(0).getString());
                if (!row) return row.error();
                rows.push_back(std::move(*row));
            }
            return rows;
        } catch (const SQLite::Exception& e) {
            return fail(ErrorCode::Damaged,
                        std::string("The library can't be read (") + e.what() + "). Restore a backup.");
        }
    }

    template <typename T, typename Parse>
    Result<T> one(const std::string& sql, const std::string& id, const char* what, Parse parse) {
        auto rows = documents<T>(sql, {id}, parse);
        if (!rows) return rows.error();
        if (rows->empty())
            return fail(ErrorCode::NotFound,
                        std::string("There is no ") + what + " \"" + id + "\" in this library.");
        return std::move(rows->front());
    }
};

Library::Library(std::unique_ptr<Impl> impl)
    : impl_(std::move(impl)) {}
Library::~Library() = default;

Result<std::unique_ptr<Library>> Library::open(const fs::path& folder, bool create,
                                               std::shared_ptr<FileStore> files) {
    std::error_code ec;
    const fs::path file = folder / "library.sqlite";
    if (!fs::exists(file, ec)) {
        if (!create)
            return fail(ErrorCode::NotFound, "There is no library in " + folder.string() +
                                                 ". Name the folder that holds library.sqlite.");
        if (fs::exists(folder, ec) && !fs::is_empty(folder, ec))
            return fail(ErrorCode::Refused,
                        folder.string() + " is not empty and holds no library. Choose an empty folder.");
        for (const char* sub : {"media", "takes", "sent"}) fs::create_directories(folder / sub, ec);
        if (ec) return writeError(folder, ec.value());
    }
    auto impl = std::make_unique<Impl>();
    impl->folder = folder;
    impl->files = std::move(files);
    auto db = openDatabase(file);
    if (!db) return db.error();
    impl->db = std::move(*db);
    return std::unique_ptr<Library>(new Library(std::move(impl)));
}

const fs::path& Library::folder() const {
    return impl_->folder;
}
FileStore& Library::files() {
    return *impl_->files;
}

Result<std::vector<Athlete>> Library::athletes() {
    return impl_->documents<Athlete>("SELECT document FROM athletes ORDER BY name, id", {}, athleteFromJson);
}

Result<Athlete> Library::athlete(const AthleteId& id) {
    return impl_->one<Athlete>("SELECT document FROM athletes WHERE id = ?", id.value, "athlete",
                               athleteFromJson);
}

Status Library::save(const Athlete& a) {
    return impl_->write([&] {
        SQLite::Statement s(*impl_->db, "INSERT INTO athletes VALUES (?,?,?) ON CONFLICT(id) DO UPDATE SET "
                                        "name = excluded.name, document = excluded.document");
        SQLite::bind(s, a.id.value, a.fullName(), toJson(a));
        s.exec();
    });
}

Result<std::vector<Submission>> Library::submissions() {
    return impl_->documents<Submission>("SELECT document FROM submissions ORDER BY received, id", {},
                                        submissionFromJson);
}

Result<Submission> Library::submission(const SubmissionId& id) {
    return impl_->one<Submission>("SELECT document FROM submissions WHERE id = ?", id.value, "submission",
                                  submissionFromJson);
}

Status Library::save(const Submission& sub) {
    return impl_->write([&] {
        SQLite::Statement s(
            *impl_->db,
            "INSERT INTO submissions VALUES (?,?,?,?,?) ON CONFLICT(id) DO UPDATE SET "
            "received = excluded.received, promised = excluded.promised, document = excluded.document");
        s.bind(1, sub.id.value);
        s.bind(2, sub.athlete.value);
        s.bind(3, isoDate(sub.received));
        if (sub.promised)
            s.bind(4, isoDate(*sub.promised));
        else
            s.bind(4);
        s.bind(5, toJson(sub));
        s.exec();
        for (const Clip& c : sub.clips) {
            SQLite::Statement clip(
                *impl_->db,
                "INSERT INTO clips VALUES (?,?,?) ON CONFLICT(id) DO UPDATE SET media = excluded.media");
            SQLite::bind(clip, c.id.value, sub.id.value, c.mediaHash);
            clip.exec();
        }
    });
}

Result<std::vector<Review>> Library::reviews() {
    return impl_->documents<Review>("SELECT document FROM reviews ORDER BY date, id", {}, reviewFromJson);
}

Result<Review> Library::review(const ReviewId& id) {
    return impl_->one<Review>("SELECT document FROM reviews WHERE id = ?", id.value, "review",
                              reviewFromJson);
}

Result<std::optional<Review>> Library::reviewOf(const SubmissionId& submission) {
    auto rows =
        impl_->documents<Review>("SELECT document FROM reviews WHERE submission = ? ORDER BY date DESC, id",
                                 {submission.value}, reviewFromJson);
    if (!rows) return rows.error();
    if (rows->empty()) return std::optional<Review>{};
    return std::optional<Review>{std::move(rows->front())};
}

Status Library::save(const Review& r) {
    return impl_->write([&] {
        SQLite::Statement s(*impl_->db,
                            "INSERT INTO reviews VALUES (?,?,?,?,?,?) ON CONFLICT(id) DO UPDATE SET "
                            "date = excluded.date, stage = excluded.stage, document = excluded.document");
        SQLite::bind(s, r.id.value, r.submission.value, r.athlete.value, isoDate(r.date),
                     std::string(idOf(r.stage)), toJson(r));
        s.exec();
    });
}

Result<std::vector<Promise>> Library::promises() {
    try {
        SQLite::Statement q(
            *impl_->db, "SELECT row, athlete, text, due, settled FROM promises ORDER BY settled, due, row");
        std::vector<Promise> all;
        while (q.executeStep()) {
            Promise p;
            p.row = q.getColumn(0).getInt64();
            p.athlete.value = q.getColumn(1).getString();
            p.text = q.getColumn(2).getString();
            if (!q.isColumnNull(3)) p.due = parseIsoDate(q.getColumn(3).getString());
            p.settled = q.getColumn(4).getInt() != 0;
            all.push_back(std::move(p));
        }
        return all;
    } catch (const SQLite::Exception& e) {
        return fail(ErrorCode::Damaged, std::string("The promises can't be read (") + e.what() + ").");
    }
}

Status Library::save(const Promise& p) {
    return impl_->write([&] {
        SQLite::Statement s(
            *impl_->db,
            "INSERT INTO promises (row, athlete, text, due, settled) VALUES (NULLIF(?,0),?,?,NULLIF(?,''),?) "
            "ON CONFLICT(row) DO UPDATE SET text = excluded.text, due = excluded.due, settled = "
            "excluded.settled");
        SQLite::bind(s, p.row, p.athlete.value, p.text, p.due ? isoDate(*p.due) : std::string(),
                     p.settled ? 1 : 0);
        s.exec();
    });
}

Result<std::vector<OutboxItem>> Library::outbox() {
    try {
        SQLite::Statement q(*impl_->db, "SELECT id, review, recipient, subject, file, state, reason, at FROM "
                                        "outbox ORDER BY at DESC, id");
        std::vector<OutboxItem> all;
        while (q.executeStep())
            all.push_back({q.getColumn(0).getString(),
                           {q.getColumn(1).getString()},
                           q.getColumn(2).getString(),
                           q.getColumn(3).getString(),
                           q.getColumn(4).getString(),
                           q.getColumn(5).getString(),
                           q.getColumn(6).getString(),
                           q.getColumn(7).getInt64()});
        return all;
    } catch (const SQLite::Exception& e) {
        return fail(ErrorCode::Damaged, std::string("The outbox can't be read (") + e.what() + ").");
    }
}

Status Library::save(const OutboxItem& i) {
    return impl_->write([&] {
        SQLite::Statement s(*impl_->db, "INSERT INTO outbox VALUES (?,?,?,?,?,?,?,?) ON CONFLICT(id) DO "
                                        "UPDATE SET state = excluded.state, "
                                        "reason = excluded.reason, at = excluded.at");
        SQLite::bind(s, i.id, i.review.value, i.recipient, i.subject, i.file, i.state, i.reason, i.at);
        s.exec();
    });
}

std::string Library::setting(const std::string& key, const std::string& otherwise) {
    try {
        SQLite::Statement q(*impl_->db, "SELECT value FROM settings WHERE key = ?");
        q.bind(1, key);
        return q.executeStep() ? q.getColumn(0).getString() : otherwise;
    } catch (const SQLite::Exception&) {
        return otherwise;
    }
}

Status Library::setSetting(const std::string& key, const std::string& value) {
    return impl_->write([&] {
        SQLite::Statement s(
            *impl_->db,
            "INSERT INTO settings VALUES (?,?) ON CONFLICT(key) DO UPDATE SET value = excluded.value");
        SQLite::bind(s, key, value);
        s.exec();
    });
}

Result<std::string> Library::addMedia(const fs::path& file) {
    auto hash = contentHash(file);
    if (!hash) return hash.error();
    const std::string extension = file.extension().string();
    const fs::path target = impl_->folder / "media" / (*hash + extension);
    std::error_code ec;
    if (!fs::exists(target, ec))
        if (auto copied = impl_->files->copy(file, target); !copied) return copied.error();
    const auto bytes = static_cast<std::int64_t>(fs::file_size(target, ec));
    auto stored = impl_->write([&] {
        SQLite::Statement s(*impl_->db, "INSERT INTO media VALUES (?,?,?) ON CONFLICT(hash) DO NOTHING");
        SQLite::bind(s, *hash, extension, bytes);
        s.exec();
    });
    if (!stored) return stored.error();
    return *hash;
}

fs::path Library::mediaPath(const Clip& clip) const {
    return impl_->folder / "media" / (clip.mediaHash + clip.extension);
}
fs::path Library::scrubPath(const Clip& clip) const {
    return impl_->folder / "scrub" / (clip.mediaHash + ".mov");
}
fs::path Library::takePath(const std::string& file) const {
    return impl_->folder / "takes" / file;
}
fs::path Library::sentPath(const std::string& file) const {
    return impl_->folder / "sent" / file;
}

std::vector<std::string> Library::verify() {
    std::vector<std::string> problems;
    const auto note = [&](const auto& result) {
        if (!result) problems.push_back(result.error().text);
    };
    try {
        SQLite::Statement check(*impl_->db, "PRAGMA integrity_check");
        while (check.executeStep())
            if (check.getColumn(0).getString() != "ok")
                problems.push_back("The database is damaged: " + check.getColumn(0).getString() + ".");
        SQLite::Statement media(*impl_->db, "SELECT hash, extension FROM media ORDER BY hash");
        while (media.executeStep()) {
            const std::string name = media.getColumn(0).getString() + media.getColumn(1).getString();
            const fs::path path = impl_->folder / "media" / name;
            std::error_code ec;
            if (!fs::exists(path, ec)) {
                problems.push_back("The film " + name + " is missing from media.");
                continue;
            }
            auto hash = contentHash(path);
            if (!hash)
                problems.push_back(hash.error().text);
            else if (*hash != media.getColumn(0).getString())
                problems.push_back("The film " + name +
                                   " was altered: its content no longer matches its name.");
        }
    } catch (const SQLite::Exception& e) {
        problems.push_back(std::string("The database can't be read (") + e.what() + ").");
    }
    note(athletes());
    note(submissions());
    auto all = reviews();
    note(all);
    if (all)
        for (const Review& r : *all)
            for (const auto& [stop, take] : r.takes) {
                std::error_code ec;
                if (!fs::exists(takePath(take.file), ec))
                    problems.push_back("The take " + take.file + " of review " + r.id.value + " is missing.");
            }
    return problems;
}

} // namespace jg
