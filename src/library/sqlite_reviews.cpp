// SPDX-License-Identifier: GPL-3.0-or-later
// The reviews of a SqliteStore: revisions, versions, results and what was derived from films.
#include "base/clock.h"
#include "base/date.h"
#include "base/ids.h"
#include "library/rows.h"
#include "library/sqlite_store.h"
#include "review/record/derived_json.h"
#include "review/record/review_json.h"

#include <algorithm>
#include <map>

namespace jg {

namespace {

/// Puts the delivery's paths and shake into it, as they lie beside its clip. What can't be read is computed
/// again: it hides nothing.
void addDerived(SQLite::Database& db, Review& r) {
    std::map<int, std::string> documents;
    SQLite::Statement query(db, "SELECT delivery, clip, document FROM derived WHERE review = ?");
    query.bind(1, r.id.value);
    while (query.executeStep()) {
        const DeliveryMarks* d = r.delivery(query.getColumn(0).getInt());
        if (d && d->clip.value == textAt(query, 1)) documents[d->number] = textAt(query, 2);
    }
    for (DeliveryMarks& d : r.deliveries)
        if (const Status read = readDerived(documents[d.number], d); !read) readDerived({}, d).ok();
}

void putDerived(SQLite::Database& db, const Review& r) {
    std::string numbers;
    for (const DeliveryMarks& d : r.deliveries) {
        numbers += (numbers.empty() ? "" : ",") + std::to_string(d.number);
        const std::string document = derivedToJson(d);
        if (document.empty())
            run(db, "DELETE FROM derived WHERE review = ? AND delivery = ?", r.id.value, d.number);
        else
            run(db,
                "INSERT INTO derived VALUES (?1,?2,?3,?4) ON CONFLICT(review, delivery) DO UPDATE SET clip = "
                "?3, document = ?4 WHERE clip <> ?3 OR document <> ?4",
                r.id.value, d.number, d.clip.value, document);
    }
    run(db, ("DELETE FROM derived WHERE review = ? AND delivery NOT IN (" + numbers + ")").c_str(),
        r.id.value);
}

Review reviewAt(SQLite::Database& db, SQLite::Statement& row, int document, int revision) {
    Review r = orUnreadable(reviewFromJson(textAt(row, document)));
    r.revision = row.getColumn(revision).getInt64();
    addDerived(db, r);
    return r;
}

constexpr const char* kSummaryColumns =
    "r.id, r.submission, r.athlete, r.date, r.stage, r.sent_on, r.sent_to, r.revision, r.summary";

/// The columns of kSummaryColumns from `first` on. What lists show of it and can't be read is told in
/// `leftOut`.
ReviewSummary summaryAt(SQLite::Statement& row, int first, std::vector<Message>* leftOut) {
    ReviewSummary s;
    s.id.value = textAt(row, first);
    s.submission.value = textAt(row, first + 1);
    s.athlete.value = textAt(row, first + 2);
    s.date = dateAt(row, first + 3).value_or(Date{});
    s.stage = stageFromId(textAt(row, first + 4)).value_or(Stage::Look);
    if (const auto on = dateAt(row, first + 5)) s.sent = SentRecord{*on, textAt(row, first + 6)};
    s.revision = row.getColumn(first + 7).getInt64();
    // Only for lists: without it they say less, and a review that can be opened is not hidden.
    if (const std::string more = textAt(row, first + 8); !more.empty())
        if (const Status read = readSummary(more, s); !read && leftOut) leftOut->push_back(read.error().text);
    return s;
}

std::string selectSummaries(const std::string& rest) {
    return std::string("SELECT ") + kSummaryColumns + " FROM reviews r " + rest;
}

/// A submission is answered while its newest review is sent; one that a bundle brought answers no film that
/// waits here.
void markAnswered(SQLite::Database& db, const SubmissionId& submission) {
    run(db,
        "UPDATE submissions SET answered = coalesce((SELECT sent_on IS NOT NULL FROM reviews WHERE "
        "submission = ?1 AND "
        "brought = 0 ORDER BY begun DESC LIMIT 1), 0) WHERE id = ?1",
        submission.value);
}

void insertReview(SQLite::Database& db, const Review& r, const std::string& summary, bool brought) {
    if (!isId(r.id.value))
        throw Rejected{fail(ErrorCode::Refused, msg("sqlite-store.id-taken", {{"id", r.id.value}}))};
    run(db,
        "INSERT INTO reviews (id, submission, athlete, date, stage, sent_on, sent_to, begun, revision, "
        "summary, brought, "
        "document) VALUES (?,?,?,?,?,NULLIF(?,''),?,(SELECT coalesce(max(begun), 0) + 1 FROM "
        "reviews),1,?,?,?)",
        r.id.value, r.submission.value, r.athlete.value, isoDate(r.date), std::string(idOf(r.stage)),
        r.sent ? isoDate(r.sent->on) : std::string(), r.sent ? r.sent->to : std::string(), summary,
        brought ? 1 : 0, toJson(r));
}

/// False when the row has another revision by now.
bool updateReview(SQLite::Database& db, const Review& r, const std::string& summary) {
    return run(db,
               "UPDATE reviews SET date = ?, stage = ?, sent_on = NULLIF(?,''), sent_to = ?, summary = ?, "
               "document = ?, revision = revision + 1 WHERE id = ? AND revision = ?",
               isoDate(r.date), std::string(idOf(r.stage)), r.sent ? isoDate(r.sent->on) : std::string(),
               r.sent ? r.sent->to : std::string(), summary, toJson(r), r.id.value, r.revision) > 0;
}

/// What a review says, wherever the coach is in it.
std::string contentOf(Review review) {
    review.stage = Stage::Send;
    review.sent.reset();
    std::string text = toJson(review);
    for (const DeliveryMarks& d : review.deliveries) text += derivedToJson(d);
    return text;
}

void keepVersion(SQLite::Database& db, const Review& review, std::int64_t base) {
    run(db, "INSERT INTO versions (review, base, at, document) VALUES (?,?,?,?)", review.id.value, base,
        SystemClock().nowUnix(), toJson(review));
}

std::optional<Assessment> resultsOf(SQLite::Database& db, const ReviewId& id) {
    std::optional<Assessment> found;
    for (Assessment& a : rowsOf(
             db, "SELECT document FROM results WHERE review = ?",
             [](auto& row) { return orUnreadable(assessmentFromJson(textAt(row, 0))); }, id.value))
        found = std::move(a);
    return found;
}

/// Whether a review of that id is here; one of another athlete or film is nobody's to write over.
bool known(SQLite::Database& db, const Review& r) {
    SQLite::Statement query(db, "SELECT athlete, submission FROM reviews WHERE id = ?");
    query.bind(1, r.id.value);
    if (!query.executeStep()) return false;
    if (textAt(query, 0) != r.athlete.value || textAt(query, 1) != r.submission.value)
        throw Rejected{fail(ErrorCode::Refused, msg("sqlite-reviews.anothers"))};
    return true;
}

} // namespace

Result<Review> SqliteStore::review(const ReviewId& id) {
    std::vector<Review> found;
    const Status done = read([&](SQLite::Database& db) {
        found = rowsOf(
            db, "SELECT document, revision FROM reviews WHERE id = ?",
            [&](auto& row) { return reviewAt(db, row, 0, 1); }, id.value);
    });
    if (!done) return done.error();
    if (found.empty())
        return fail(ErrorCode::NotFound, msg("sqlite-reviews.no-review", {{"value", id.value}}));
    return std::move(found.front());
}

Result<std::optional<Review>> SqliteStore::reviewOf(const SubmissionId& submission) {
    std::optional<Review> newest;
    const Status done = read([&](SQLite::Database& db) {
        for (Review& r : rowsOf(
                 db,
                 "SELECT document, revision FROM reviews WHERE submission = ? ORDER BY begun DESC LIMIT 1",
                 [&](auto& row) { return reviewAt(db, row, 0, 1); }, submission.value))
            newest = std::move(r);
    });
    if (!done) return done.error();
    return newest;
}

Result<std::vector<ReviewSummary>> SqliteStore::reviews(int newest) {
    std::vector<ReviewSummary> all;
    const Status done = read([&](SQLite::Database& db) {
        const std::string sql =
            selectSummaries(newest > 0 ? "ORDER BY date DESC, begun DESC LIMIT " + std::to_string(newest)
                                       : std::string("ORDER BY date, begun"));
        all = readableRowsOf(db, sql.c_str(), &leftOut_,
                             [this](auto& row) { return summaryAt(row, 0, &leftOut_); });
    });
    if (!done) return done.error();
    return all;
}

Result<std::vector<ReviewSummary>> SqliteStore::sentSince(Date day) {
    std::vector<ReviewSummary> all;
    const Status done = read([&](SQLite::Database& db) {
        all = readableRowsOf(
            db, selectSummaries("WHERE r.sent_on >= ? ORDER BY r.sent_on, r.begun").c_str(), &leftOut_,
            [this](auto& row) { return summaryAt(row, 0, &leftOut_); }, isoDate(day));
    });
    if (!done) return done.error();
    return all;
}

Result<std::vector<WaitingRow>> SqliteStore::waiting() {
    std::vector<WaitingRow> all;
    const Status done = read([&](SQLite::Database& db) {
        constexpr int kWaitingName = 11; // after the two documents and the columns of a summary
        const std::string sql =
            std::string("SELECT s.document, a.document, ") + kSummaryColumns +
            ", a.name FROM submissions s JOIN athletes a ON a.id = s.athlete LEFT JOIN reviews r "
            "ON r.id = (SELECT id "
            "FROM reviews n WHERE n.submission = s.id ORDER BY begun DESC LIMIT 1) WHERE "
            "s.answered = 0 ORDER BY "
            "s.received, s.id";
        std::map<std::string, std::size_t> places;
        SQLite::Statement query(db, sql);
        const auto take = [&] {
            WaitingRow row{orUnreadable(submissionFromJson(textAt(query, 0))),
                           orUnreadable(athleteFromJson(textAt(query, 1))), std::nullopt};
            if (!query.isColumnNull(2)) row.review = summaryAt(query, 2, &leftOut_);
            for (const Clip& c : row.submission.clips) places[c.id.value] = all.size();
            all.push_back(std::move(row));
        };
        while (query.executeStep()) {
            try {
                take();
            } catch (const UnreadableRow& e) {
                leftOut_.push_back(
                    msg("library.left-out", {{"name", textAt(query, kWaitingName)}, {"why", e.why}}));
            }
        }
        SQLite::Statement surveys(db, "SELECT c.id, c.survey FROM clips c JOIN submissions s ON s.id = "
                                      "c.submission WHERE s.answered = 0 AND c.survey <> ''");
        while (surveys.executeStep())
            if (const auto at = places.find(textAt(surveys, 0)); at != places.end())
                for (Clip& c : all[at->second].submission.clips)
                    if (c.id.value == at->first)
                        if (const Status read = readSurvey(textAt(surveys, 1), c); !read)
                            leftOut_.push_back(
                                msg("library.left-out", {{"name", c.fileName}, {"why", read.error().text}}));
    });
    if (!done) return done.error();
    return all;
}

Result<std::vector<ReviewOfAthlete>> SqliteStore::reviewsOf(const AthleteId& athlete) {
    std::vector<ReviewOfAthlete> all;
    const Status done = read([&](SQLite::Database& db) {
        const std::string sql =
            std::string("SELECT ") + kSummaryColumns +
            ", s.document, d.document, r.document FROM reviews r JOIN submissions s ON s.id = r.submission "
            "LEFT "
            "JOIN results d ON d.review = r.id WHERE r.athlete = ? ORDER BY r.date, r.begun";
        all = readableRowsOf(
            db, sql.c_str(), &leftOut_,
            [this](auto& row) {
                ReviewOfAthlete one{summaryAt(row, 0, &leftOut_),
                                    orUnreadable(submissionFromJson(textAt(row, 9))),
                                    {},
                                    {},
                                    {}};
                if (!row.isColumnNull(10)) {
                    auto results = assessmentFromJson(textAt(row, 10));
                    results ? void(one.results = std::move(*results))
                            : leftOut_.push_back(results.error().text);
                }
                Review review = orUnreadable(reviewFromJson(textAt(row, 11)));
                one.approach = review.approach().id;
                one.deliveries = std::move(review.deliveries);
                return one;
            },
            athlete.value);
    });
    if (!done) return done.error();
    return all;
}

Result<std::int64_t> SqliteStore::save(const Review& r, const Assessment* told) {
    return keepReview(r, told, false);
}

Result<std::int64_t> SqliteStore::bring(const Review& r, const Assessment* told, bool toAFilmHere) {
    return keepReview(r, told, toAFilmHere);
}

Result<std::int64_t> SqliteStore::keepReview(const Review& r, const Assessment* told, bool brought) {
    const std::string summary = toJson(summaryOf(r, told));
    std::int64_t revision = r.revision + 1;
    const Status done = write([&](SQLite::Database& db) {
        if (!known(db, r) && r.revision == 0) {
            insertReview(db, r, summary, brought);
        } else if (!updateReview(db, r, summary)) {
            keepVersion(db, r, r.revision);
            revision = 0;
            return;
        }
        putDerived(db, r);
        if (told)
            run(db, "INSERT INTO results VALUES (?1,?2) ON CONFLICT(review) DO UPDATE SET document = ?2",
                r.id.value, toJson(*told));
        markAnswered(db, r.submission);
    });
    if (!done) return done.error();
    if (revision == 0)
        return fail(ErrorCode::Stale, msg("sqlite-reviews.this-review-was-changed-elsewhere-since"));
    return revision;
}

Result<std::optional<Assessment>> SqliteStore::results(const ReviewId& id) {
    std::optional<Assessment> found;
    const Status done = read([&](SQLite::Database& db) { found = resultsOf(db, id); });
    if (!done) return done.error();
    return found;
}

Status SqliteStore::markSent(const Review& asSent, const Assessment* told, const SentRecord& sent) {
    return write([&](SQLite::Database& db) {
        const auto found = rowsOf(
            db, "SELECT document, revision FROM reviews WHERE id = ?",
            [&](auto& row) { return reviewAt(db, row, 0, 1); }, asSent.id.value);
        if (found.empty())
            throw Rejected{
                fail(ErrorCode::NotFound, msg("sqlite-reviews.no-review", {{"value", asSent.id.value}}))};
        const Review& now = found.front();
        if (now.sent)
            throw Rejected{
                fail(ErrorCode::Refused, msg("sqlite-reviews.sent-before", {{"on", now.sent->on}}))};
        if (contentOf(now) != contentOf(asSent)) keepVersion(db, now, now.revision);
        Review kept = asSent;
        kept.sent = sent;
        kept.stage = Stage::Sent;
        kept.revision = now.revision;
        const auto before = told ? std::nullopt : resultsOf(db, kept.id);
        updateReview(db, kept, toJson(summaryOf(kept, before ? &*before : told)));
        putDerived(db, kept);
        if (told)
            run(db, "INSERT INTO results VALUES (?1,?2) ON CONFLICT(review) DO UPDATE SET document = ?2",
                kept.id.value, toJson(*told));
        markAnswered(db, kept.submission);
    });
}

Result<std::vector<KeptVersion>> SqliteStore::versions(const ReviewId& review) {
    std::vector<KeptVersion> all;
    const Status done = read([&](SQLite::Database& db) {
        all = rowsOf(
            db, "SELECT row, review, base, at FROM versions WHERE review = ? ORDER BY row",
            [](auto& q) {
                return KeptVersion{q.getColumn(0).getInt64(),
                                   {textAt(q, 1)},
                                   q.getColumn(2).getInt64(),
                                   q.getColumn(3).getInt64()};
            },
            review.value);
    });
    if (!done) return done.error();
    return all;
}

Result<Review> SqliteStore::version(std::int64_t row) {
    std::vector<Review> found;
    const Status done = read([&](SQLite::Database& db) {
        found = rowsOf(
            db,
            "SELECT v.document, r.revision FROM versions v JOIN reviews r ON r.id = v.review WHERE v.row = ?",
            [&](auto& q) { return reviewAt(db, q, 0, 1); }, row);
    });
    if (!done) return done.error();
    if (found.empty()) return fail(ErrorCode::NotFound, msg("sqlite-reviews.no-version"));
    return std::move(found.front());
}

Status SqliteStore::takeVersion(std::int64_t row) {
    Status refused = Done{};
    const Status done = write([&](SQLite::Database& db) {
        SQLite::Statement query(db,
                                "SELECT v.document, r.document, r.revision, r.sent_on FROM versions v JOIN "
                                "reviews r ON r.id = v.review WHERE v.row = ?");
        query.bind(1, row);
        if (!query.executeStep()) {
            refused = fail(ErrorCode::NotFound, msg("sqlite-reviews.no-version"));
            return;
        }
        if (!query.isColumnNull(3)) {
            refused = fail(ErrorCode::Refused, msg("sqlite-reviews.sent-stays"));
            return;
        }
        Review other = orUnreadable(reviewFromJson(textAt(query, 0)));
        other.revision = query.getColumn(2).getInt64();
        run(db, "INSERT INTO versions (review, base, at, document) VALUES (?,?,?,?)", other.id.value,
            other.revision, SystemClock().nowUnix(), textAt(query, 1));
        run(db, "DELETE FROM versions WHERE row = ?", row);
        run(db, "DELETE FROM results WHERE review = ?", other.id.value);
        updateReview(db, other, toJson(summaryOf(other, nullptr)));
    });
    return done ? refused : done;
}

} // namespace jg
