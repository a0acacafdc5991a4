// SPDX-License-Identifier: GPL-3.0-or-later
#include "library/migrations.h"

#include "base/unfit.h"
#include "library/checksums.h"
#include "library/rows.h"
#include "review/assess/summary.h"
#include "review/record/derived_json.h"
#include "review/record/review_json.h"

#include <string>
#include <utility>
#include <vector>

namespace jg {

namespace {

// Never changed once released.
constexpr const char* kSchema1 = R"sql(
CREATE TABLE settings (key TEXT PRIMARY KEY, value TEXT NOT NULL) WITHOUT ROWID;
CREATE TABLE athletes (id TEXT PRIMARY KEY, name TEXT NOT NULL, document TEXT NOT NULL) WITHOUT ROWID;
CREATE TABLE submissions (
    id TEXT PRIMARY KEY,
    athlete TEXT NOT NULL REFERENCES athletes(id),
    received TEXT NOT NULL,
    promised TEXT,
    document TEXT NOT NULL) WITHOUT ROWID;
CREATE TABLE media (hash TEXT PRIMARY KEY, extension TEXT NOT NULL, bytes INTEGER NOT NULL) WITHOUT ROWID;
CREATE TABLE clips (
    id TEXT PRIMARY KEY,
    submission TEXT NOT NULL REFERENCES submissions(id),
    media TEXT NOT NULL REFERENCES media(hash)) WITHOUT ROWID;
CREATE TABLE reviews (
    id TEXT PRIMARY KEY,
    submission TEXT NOT NULL REFERENCES submissions(id),
    athlete TEXT NOT NULL REFERENCES athletes(id),
    date TEXT NOT NULL,
    stage TEXT NOT NULL,
    document TEXT NOT NULL) WITHOUT ROWID;
CREATE TABLE promises (
    row INTEGER PRIMARY KEY,
    athlete TEXT NOT NULL REFERENCES athletes(id),
    text TEXT NOT NULL,
    due TEXT,
    settled INTEGER NOT NULL DEFAULT 0);
CREATE TABLE outbox (
    id TEXT PRIMARY KEY,
    review TEXT NOT NULL REFERENCES reviews(id),
    recipient TEXT NOT NULL,
    subject TEXT NOT NULL,
    file TEXT NOT NULL,
    state TEXT NOT NULL,
    reason TEXT NOT NULL DEFAULT '',
    at INTEGER NOT NULL) WITHOUT ROWID;
)sql";

// Reviews get a revision and what lists show; large documents stand last in rows that lists pass over.
constexpr const char* kSchema2 = R"sql(
CREATE TABLE reviews_2 (
    id TEXT PRIMARY KEY,
    submission TEXT NOT NULL REFERENCES submissions(id),
    athlete TEXT NOT NULL REFERENCES athletes(id),
    date TEXT NOT NULL,
    stage TEXT NOT NULL,
    sent_on TEXT,
    sent_to TEXT NOT NULL DEFAULT '',
    begun INTEGER NOT NULL,
    revision INTEGER NOT NULL,
    summary TEXT NOT NULL DEFAULT '',
    document TEXT NOT NULL);
INSERT INTO reviews_2 SELECT id, submission, athlete, date, stage, NULL, '',
    row_number() OVER (ORDER BY date, id), 1, '', document FROM reviews;
DROP TABLE reviews;
ALTER TABLE reviews_2 RENAME TO reviews;
CREATE INDEX reviews_by_submission ON reviews(submission, begun);
CREATE INDEX reviews_by_athlete ON reviews(athlete, date);
CREATE INDEX reviews_by_date ON reviews(date);
CREATE INDEX reviews_sent ON reviews(sent_on) WHERE sent_on IS NOT NULL;
CREATE TABLE results (review TEXT PRIMARY KEY REFERENCES reviews(id), document TEXT NOT NULL);
CREATE TABLE derived (
    review TEXT NOT NULL REFERENCES reviews(id),
    delivery INTEGER NOT NULL,
    clip TEXT NOT NULL,
    document TEXT NOT NULL,
    PRIMARY KEY (review, delivery));
CREATE TABLE versions (
    row INTEGER PRIMARY KEY,
    review TEXT NOT NULL REFERENCES reviews(id),
    base INTEGER NOT NULL,
    at INTEGER NOT NULL,
    document TEXT NOT NULL);
CREATE INDEX versions_by_review ON versions(review);
CREATE TABLE playbooks (hash TEXT PRIMARY KEY, document TEXT NOT NULL);
ALTER TABLE clips ADD COLUMN survey TEXT NOT NULL DEFAULT '';
CREATE INDEX clips_by_submission ON clips(submission);
CREATE INDEX clips_by_media ON clips(media);
ALTER TABLE submissions ADD COLUMN answered INTEGER NOT NULL DEFAULT 0;
CREATE INDEX submissions_waiting ON submissions(received) WHERE answered = 0;
CREATE INDEX submissions_by_athlete ON submissions(athlete);
CREATE INDEX promises_open ON promises(due) WHERE settled = 0;
CREATE INDEX promises_by_athlete ON promises(athlete);
CREATE INDEX outbox_by_time ON outbox(at);
CREATE INDEX outbox_unsent ON outbox(state) WHERE state <> 'sent';
)sql";

template <typename T>
T orThrow(Result<T> result) {
    if (!result) throw Unfit(result.error().text);
    return std::move(*result);
}

std::vector<std::string> column(SQLite::Database& db, const char* sql) {
    std::vector<std::string> values;
    SQLite::Statement query(db, sql);
    while (query.executeStep()) values.push_back(query.getColumn(0).getString());
    return values;
}

/// The film check leaves the submission's document for its clip's row.
void moveSurveys(SQLite::Database& db) {
    for (const std::string& document : column(db, "SELECT document FROM submissions")) {
        const Submission s = orThrow(submissionFromJson(document));
        for (const Clip& clip : s.clips)
            run(db, "UPDATE clips SET survey = ? WHERE id = ?", surveyToJson(clip), clip.id.value);
        run(db, "UPDATE submissions SET document = ? WHERE id = ?", toJson(s), s.id.value);
    }
}

/// Deliveries get the conditions of their submission; paths and shake go beside their clip.
void moveReview(SQLite::Database& db, Review r) {
    SQLite::Statement find(db, "SELECT document FROM submissions WHERE id = ?");
    find.bind(1, r.submission.value);
    if (!find.executeStep()) throw Unfit(msg("migrations.no-submission"));
    const Submission s = orThrow(submissionFromJson(find.getColumn(0).getString()));
    for (DeliveryMarks& d : r.deliveries) {
        d.conditions.start = s.start;
        d.conditions.surface = s.surface;
        if (const std::string derived = derivedToJson(d); !derived.empty())
            run(db, "INSERT INTO derived VALUES (?,?,?,?)", r.id.value, d.number, d.clip.value, derived);
    }
    run(db, "UPDATE reviews SET document = ?, summary = ? WHERE id = ?", toJson(r),
        toJson(summaryOf(r, nullptr)), r.id.value);
    if (r.sent) {
        run(db, "UPDATE reviews SET sent_on = ?, sent_to = ? WHERE id = ?", isoDate(r.sent->on), r.sent->to,
            r.id.value);
        run(db, "UPDATE submissions SET answered = 1 WHERE id = ?", r.submission.value);
    }
}

void toSchema2(SQLite::Database& db) {
    db.exec(kSchema2);
    moveSurveys(db);
    for (const std::string& document : column(db, "SELECT document FROM reviews ORDER BY begun"))
        moveReview(db, orThrow(reviewFromJson(document)));
    // A submission is answered while its newest review is sent.
    db.exec("UPDATE submissions SET answered = 0 WHERE id IN (SELECT submission FROM reviews r WHERE sent_on "
            "IS NULL AND begun = (SELECT max(begun) FROM reviews n WHERE n.submission = r.submission))");
}

} // namespace

void migrateFrom(int version, SQLite::Database& db, const std::filesystem::path& library) {
    if (version == 0) db.exec(kSchema1);
    if (version == 1) toSchema2(db);
    if (version == 2) addSums3(db);
    if (version == 3) addPromiseDetails4(db);
    if (version == 4) toSchema5(db, library);
}

} // namespace jg
