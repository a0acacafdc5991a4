// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/pages/desk_list.h"

#include "desk/intake/mail_intake.h"

#include "review/assess/assess.h"
#include "review/record/deliveries.h"

#include <algorithm>
#include <cmath>
#include <tuple>

namespace jg {

Result<Counts> countsOf(Store& store, const Playbook& playbook, const ReviewSummary& summary) {
    if (summary.counts) return *summary.counts;
    auto review = store.review(summary.id);
    if (!review) return review.error();
    auto submission = store.submission(summary.submission);
    if (!submission) return submission.error();
    auto athlete = store.athlete(summary.athlete);
    if (!athlete) return athlete.error();
    return assess(*review, playbook, submission->clips, athlete->hand).counts;
}

Message promisedInWords(const std::optional<Date>& promised, Date today) {
    if (!promised) return msg("promised.no-date");
    const int days = daysBetween(today, *promised);
    if (days == -1) return msg("promised.yesterday");
    if (days < -1) return msg("promised.days-ago", {{"days", -days}});
    if (days == 0) return msg("promised.tonight");
    if (days == 1) return msg("promised.tomorrow");
    const DateStyle style = days < 7 ? DateStyle::Weekday : DateStyle::Day;
    return msg("promised.for", {{"day", WrittenDate{*promised, style}}});
}

Message filmsInWords(const std::vector<Clip>& clips) {
    std::vector<std::pair<Message, int>> alike;
    for (const Clip& c : clips) {
        const Message film =
            c.captureFps > 0
                ? msg("films.view-rate", {{"view", nameOf(c.view)}, {"rate", std::lround(c.captureFps)}})
                : nameOf(c.view);
        const auto same =
            std::find_if(alike.begin(), alike.end(), [&](const auto& a) { return a.first == film; });
        if (same == alike.end())
            alike.emplace_back(film, 1);
        else
            ++same->second;
    }
    std::vector<Message> words;
    for (const auto& [film, count] : alike)
        words.push_back(count > 1 ? msg("films.alike", {{"film", film}, {"count", count}}) : film);
    return joined(ListStyle::Commas, std::move(words));
}

namespace {

/// Rough minutes of a review by what is left; own choice, from the length of the walk.
int minutesLeft(const Counts& c) {
    const int left = 2 + (c.positionsAll - c.positions) / 3 + (c.measuresAll - c.measures) / 4 +
                     (c.judgedAll - c.judged) / 5;
    return left + (c.saidAll > c.said ? (c.saidAll - c.said) : c.saidAll == 0 ? 4 : 0);
}

Message progressOf(Stage stage, const Counts& counts) {
    if (stage == Stage::Look || stage == Stage::Sent) return {};
    const StageWork work = workAt(stage, counts);
    return msg("progress." + std::string(idOf(stage)), {{"done", work.done}, {"all", work.all}});
}

Result<DeskRow> deskRow(Store& store, const Playbook& playbook, WaitingRow&& waiting) {
    DeskRow row{
        std::move(waiting.submission), std::move(waiting.athlete), std::move(waiting.review), 14, false, {}};
    auto pain = store.painOf(row.athlete.id);
    if (!pain) return pain.error();
    row.pain = std::any_of(pain->begin(), pain->end(), [](const Submission& s) { return s.painOpen(); });
    if (!row.review) return row;
    if (row.review->hides) {
        auto review = store.review(row.review->id);
        if (!review) return review.error();
        for (const DeliveryMarks& d : review->deliveries)
            if (filmOf(d, row.submission.clips).id == row.submission.clips.front().id)
                for (const auto& [id, veil] : d.veils) row.hidden[std::to_string(d.number) + "-" + id] = veil;
    }
    auto counts = countsOf(store, playbook, *row.review);
    if (!counts) return counts.error();
    row.minutes = minutesLeft(*counts);
    row.progress = progressOf(row.review->stage, *counts);
    return row;
}

/// Pain first, then by promised date, undated last.
void sortByNeed(std::vector<DeskRow>& rows) {
    const auto key = [](const DeskRow& r) {
        return std::tuple(!r.pain, r.submission.pain.empty(), !r.submission.promised,
                          r.submission.promised ? isoDate(*r.submission.promised) : std::string());
    };
    std::stable_sort(rows.begin(), rows.end(),
                     [&](const DeskRow& a, const DeskRow& b) { return key(a) < key(b); });
}

Status addNames(Store& store, DeskList& desk) {
    const auto add = [&](const AthleteId& id) -> Status {
        if (desk.names.contains(id)) return Done{};
        auto athlete = store.athlete(id);
        if (!athlete && athlete.error().code != ErrorCode::Damaged) return athlete.error();
        desk.names[id] = athlete ? athlete->fullName() : id.value;
        if (!athlete) desk.leftOut.push_back(athlete.error().text);
        return Done{};
    };
    for (const DeskRow& row : desk.waiting) desk.names[row.athlete.id] = row.athlete.fullName();
    for (const Promise& p : desk.owed)
        if (auto added = add(p.athlete); !added) return added;
    for (const ReviewSummary& r : desk.sentLately)
        if (auto added = add(r.athlete); !added) return added;
    return Done{};
}

} // namespace

Result<DeskList> readDesk(Store& store, const Playbook& playbook, Date today) {
    DeskList desk;
    auto waiting = store.waiting();
    if (!waiting) return waiting.error();
    for (WaitingRow& w : *waiting) {
        if (w.submission.clips.empty()) continue;
        const std::string name = w.athlete.fullName();
        auto row = deskRow(store, playbook, std::move(w));
        if (row)
            desk.waiting.push_back(std::move(*row));
        else if (row.error().code == ErrorCode::Damaged)
            desk.leftOut.push_back(msg("library.left-out", {{"name", name}, {"why", row.error().text}}));
        else
            return row.error();
    }
    sortByNeed(desk.waiting);
    auto owed = store.openPromises(addDays(today, kSoonDays));
    if (!owed) return owed.error();
    desk.owed = std::move(*owed);
    auto later = store.promisesDueAfter(addDays(today, kSoonDays));
    if (!later) return later.error();
    desk.owedLater = *later;
    auto sent = store.sentSince(addDays(today, -7));
    if (!sent) return sent.error();
    desk.sentLately = std::move(*sent);
    desk.mails = mailsWaiting(store).size();
    auto mails = store.unsentMails();
    if (!mails) return mails.error();
    desk.unsentMails = *mails;
    auto count = store.athleteCount();
    if (!count) return count.error();
    desk.athletes = *count;
    if (auto named = addNames(store, desk); !named) return named.error();
    for (Message& why : store.takeLeftOut()) desk.leftOut.push_back(std::move(why));
    return desk;
}

} // namespace jg
