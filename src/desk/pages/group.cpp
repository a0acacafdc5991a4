// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/pages/group.h"

#include "base/number.h"
#include "coaching/gap.h"
#include "desk/session/begin_judging.h"
#include "letter/csv.h"

#include <algorithm>
#include <map>

namespace jg {

namespace {

void addFindings(const std::vector<FaultInShort>& faults, GroupRow& row) {
    for (const FaultInShort& f : faults) {
        row.findings.push_back(f.finding);
        if (f.protects) row.protect.push_back(f.finding);
    }
    if (faults.empty()) return;
    const auto worst =
        std::max_element(faults.begin(), faults.end(), [](const FaultInShort& a, const FaultInShort& b) {
            return a.gapInSds < b.gapInSds;
        });
    row.worst = worst->finding;
    row.worstInErrors = inErrors(worst->gapInSds);
}

/// What a review found; one whose results an older version did not keep is assessed here.
Result<std::vector<FaultInShort>> foundBy(Store& store, const Playbook& playbook,
                                          const ReviewSummary& summary, Hand hand) {
    if (summary.faults) return *summary.faults;
    auto kept = store.results(summary.id);
    if (!kept) return kept.error();
    if (*kept) return faultsInShort(**kept);
    auto review = store.review(summary.id);
    if (!review) return review.error();
    auto submission = store.submission(review->submission);
    if (!submission) return submission.error();
    if (submission->clips.empty()) return std::vector<FaultInShort>();
    return faultsInShort(assess(*review, playbook, submission->clips, hand));
}

void addPromise(const Promise& p, GroupRow& row) {
    if (!p.open() || p.owes != Owes::House) return;
    ++row.owed;
    if (p.due && (!row.nextDue || *p.due < *row.nextDue)) row.nextDue = p.due;
}

} // namespace

Result<std::vector<GroupRow>> readGroup(Store& store, const Playbook& playbook, Date today) {
    auto athletes = store.athletes();
    if (!athletes) return athletes.error();
    auto reviews = store.reviews();
    if (!reviews) return reviews.error();
    auto promises = store.promises();
    if (!promises) return promises.error();
    std::map<AthleteId, const ReviewSummary*> newest;
    for (const ReviewSummary& r : *reviews) newest[r.athlete] = &r; // by date
    std::vector<GroupRow> rows;
    std::map<AthleteId, std::size_t> places;
    for (Athlete& athlete : *athletes) {
        GroupRow row;
        row.age = athlete.ageOn(today);
        if (const Approach* approach = approachFor(playbook, athlete)) row.approach = approach->id;
        if (const auto last = newest.find(athlete.id); last != newest.end()) {
            row.lastLook = last->second->date;
            auto found = foundBy(store, playbook, *last->second, athlete.hand);
            if (!found) return found.error();
            addFindings(*found, row);
        }
        places[athlete.id] = rows.size();
        row.athlete = std::move(athlete);
        rows.push_back(std::move(row));
    }
    for (const Promise& p : *promises)
        if (const auto at = places.find(p.athlete); at != places.end()) addPromise(p, rows[at->second]);
    std::stable_sort(rows.begin(), rows.end(), [](const GroupRow& a, const GroupRow& b) {
        if (a.nextDue != b.nextDue) return a.nextDue && (!b.nextDue || *a.nextDue < *b.nextDue);
        if (a.lastLook != b.lastLook) return a.lastLook && (!b.lastLook || *a.lastLook < *b.lastLook);
        return a.athlete.fullName() < b.athlete.fullName();
    });
    return rows;
}

std::vector<GroupRow> filtered(const std::vector<GroupRow>& rows, const GroupFilter& f) {
    std::vector<GroupRow> shown;
    for (const GroupRow& r : rows) {
        const bool aged = (!f.ageFrom || r.age >= *f.ageFrom) && (!f.ageTo || r.age <= *f.ageTo);
        const bool judged = f.approach.empty() || r.approach == f.approach;
        const bool found = f.finding.empty() ||
                           std::find(r.findings.begin(), r.findings.end(), f.finding) != r.findings.end();
        if (aged && judged && found && (!f.protectOnly || !r.protect.empty())) shown.push_back(r);
    }
    return shown;
}

std::string groupAsCsv(const std::vector<GroupRow>& rows, const Playbook& playbook, bool withNames) {
    std::string out = "athlete,age,approach,last look,owed,due,furthest off,gap in errors,arm protection\r\n";
    const auto date = [](const std::optional<Date>& d) { return d ? isoDate(*d) : std::string(); };
    for (std::size_t i = 0; i < rows.size(); ++i) {
        const GroupRow& r = rows[i];
        std::string protect;
        for (const std::string& id : r.protect)
            protect += (protect.empty() ? "" : "; ") + playbook.nameOfFinding(id);
        out += csvField(withNames ? r.athlete.fullName() : std::to_string(i + 1)) + "," +
               std::to_string(r.age) + "," + csvField(r.approach) + "," + date(r.lastLook) + "," +
               std::to_string(r.owed) + "," + date(r.nextDue) + "," +
               csvField(r.worst.empty() ? "" : playbook.nameOfFinding(r.worst)) + "," +
               (r.worst.empty() ? "" : fixed(r.worstInErrors, 1)) + "," + csvField(protect) + "\r\n";
    }
    return out;
}

} // namespace jg
