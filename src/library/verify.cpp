// What Library::verify() looks at: the database, every document for itself, and every file beside it.
#include "library/library.h"
#include "library/rows.h"
#include "review/review_json.h"
#include "review/summary.h"

#include <QCryptographicHash>

#include <fstream>

namespace jg {

namespace fs = std::filesystem;

namespace {

/// Reads each document of a table for itself: one that can't be read is named and hides no other. The query
/// gives id and document; `check` reads the document.
template <typename Check>
void readEach(SQLite::Database& db, const char* sql, Check check, std::vector<Message>& problems) {
    SQLite::Statement query(db, sql);
    while (query.executeStep()) {
        const std::string id = textAt(query, 0);
        if (const Status read = check(id, textAt(query, 1)); !read)
            problems.push_back(msg("library.row-unreadable", {{"id", id}, {"why", read.error().text}}));
    }
}

template <typename T>
Status asStatus(const Result<T>& result) {
    return result ? Status(Done{}) : Status(result.error());
}

Status matchesItsHash(const std::string& hash, const std::string& text) {
    const auto now =
        QCryptographicHash::hash(QByteArray::fromStdString(text), QCryptographicHash::Sha256).toHex();
    if (now.toStdString() == hash) return Done{};
    return fail(ErrorCode::Damaged, msg("library.altered"));
}

void verifyDocuments(SQLite::Database& db, std::vector<Message>& problems) {
    readEach(
        db, "SELECT id, document FROM athletes ORDER BY id",
        [](const std::string&, const std::string& text) { return asStatus(athleteFromJson(text)); },
        problems);
    readEach(
        db, "SELECT id, document FROM submissions ORDER BY id",
        [](const std::string&, const std::string& text) { return asStatus(submissionFromJson(text)); },
        problems);
    readEach(
        db, "SELECT id, document FROM reviews ORDER BY id",
        [](const std::string&, const std::string& text) { return asStatus(reviewFromJson(text)); }, problems);
    readEach(
        db, "SELECT review, document FROM results ORDER BY review",
        [](const std::string&, const std::string& text) { return asStatus(assessmentFromJson(text)); },
        problems);
    readEach(
        db, "SELECT review, document FROM derived ORDER BY review, delivery",
        [](const std::string&, const std::string& text) {
            DeliveryMarks any;
            return readDerived(text, any);
        },
        problems);
    readEach(
        db, "SELECT id, survey FROM clips WHERE survey <> '' ORDER BY id",
        [](const std::string&, const std::string& text) {
            Clip any;
            return readSurvey(text, any);
        },
        problems);
    readEach(db, "SELECT hash, document FROM playbooks ORDER BY hash", matchesItsHash, problems);
}

/// What is wrong with a take's file, if anything: its head says how long it is.
std::optional<Message> wrongWithTake(const fs::path& path, const std::string& review) {
    const auto told = [&](const char* id) {
        return msg(id, {{"file", path.filename().string()}, {"s", review}});
    };
    std::error_code ec;
    if (!fs::is_regular_file(path, ec)) return told("library.the-take-file-of-review-s");
    constexpr std::uintmax_t kHead = 44, kNotCounted = 8; // RIFF: the size leaves out its own two words
    const std::uintmax_t bytes = fs::file_size(path, ec);
    if (bytes <= kHead) return told("library.take-empty");
    std::ifstream in(path, std::ios::binary);
    unsigned char head[8] = {};
    in.read(reinterpret_cast<char*>(head), sizeof head);
    const std::uintmax_t wanted =
        head[4] | head[5] << 8 | head[6] << 16 | static_cast<std::uintmax_t>(head[7]) << 24;
    if (!in || std::string(head, head + 4) != "RIFF" || bytes < wanted + kNotCounted)
        return told("library.take-cut-short");
    return std::nullopt;
}

} // namespace

std::vector<Message> Library::verifyMedia() {
    std::vector<Message> problems;
    const Status done = read([&](SQLite::Database& db) {
        for (const std::string& line :
             rowsOf(db, "PRAGMA integrity_check", [](auto& q) { return textAt(q, 0); }))
            if (line != "ok")
                problems.push_back(msg("library.the-database-is-damaged-line", {{"line", line}}));
        verifyDocuments(db, problems);
        const auto media = rowsOf(db, "SELECT hash, extension FROM media ORDER BY hash",
                                  [](auto& q) { return std::pair(textAt(q, 0), textAt(q, 1)); });
        for (const auto& [wanted, extension] : media) {
            const std::string name = wanted + extension;
            const fs::path path = folder_ / "media" / name;
            std::error_code ec;
            if (!fs::exists(path, ec)) {
                problems.push_back(msg("library.the-film-name-is-missing-from", {{"name", name}}));
                continue;
            }
            auto hash = contentHash(path);
            if (!hash)
                problems.push_back(hash.error().text);
            else if (*hash != wanted)
                problems.push_back(msg("library.the-film-name-was-altered-its", {{"name", name}}));
        }
    });
    if (!done) problems.push_back(done.error().text);
    return problems;
}

std::vector<Message> Library::verifyReviews() {
    std::vector<Message> problems;
    const Status done = read([&](SQLite::Database& db) {
        for (const auto& [id, document] :
             rowsOf(db, "SELECT id, document FROM reviews ORDER BY id",
                    [](auto& q) { return std::pair(textAt(q, 0), textAt(q, 1)); })) {
            const auto review = reviewFromJson(document);
            if (!review) continue; // named above
            for (const auto& [stop, take] : review->takes)
                if (auto wrong = wrongWithTake(takePath(take.file), id)) problems.push_back(*wrong);
        }
        for (const auto& [file, to] :
             rowsOf(db, "SELECT file, recipient FROM outbox WHERE state <> 'sent' ORDER BY at, id",
                    [](auto& q) { return std::pair(textAt(q, 0), textAt(q, 1)); })) {
            std::error_code ec;
            if (!fs::is_regular_file(sentPath(file), ec))
                problems.push_back(msg("library.mail-missing", {{"file", file}, {"recipient", to}}));
        }
    });
    if (!done) problems.push_back(done.error().text);
    return problems;
}

std::vector<Message> Library::verify() {
    std::vector<Message> problems = verifyMedia();
    for (Message& problem : verifyReviews()) problems.push_back(std::move(problem));
    return problems;
}

} // namespace jg
