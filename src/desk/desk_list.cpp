#include "desk/desk_list.h"

#include "review/assess.h"

#include <algorithm>
#include <cmath>
#include <tuple>

namespace jg {

std::string promisedInWords(const std::optional<Date>& promised, Date today) {
    if (!promised) return "no date";
    const int days = daysBetween(today, *promised);
    if (days == -1) return "promised for yesterday";
    if (days < -1) return "promised " + std::to_string(-days) + " days ago";
    if (days == 0) return "promised for tonight";
    if (days == 1) return "promised for tomorrow";
    if (days < 7) return "promised for " + weekdayName(*promised);
    return "promised for " + longDate(*promised);
}

std::string filmsInWords(const std::vector<Clip>& clips) {
    std::vector<std::pair<std::string, int>> alike;
    for (const Clip& c : clips) {
        std::string film(nameOf(c.view));
        if (c.captureFps > 0) film += " " + std::to_string(std::lround(c.captureFps));
        const auto same =
            std::find_if(alike.begin(), alike.end(), [&](const auto& a) { return a.first == film; });
        if (same == alike.end())
            alike.emplace_back(film, 1);
        else
            ++same->second;
    }
    std::string words;
    for (const auto& [film, count] : alike)
        words +=
            (words.empty() ? "" : ", ") + film + (count > 1 ? " (" + std::to_string(count) + " films)" : "");
    return words;
}

namespace {

/// Rough minutes of a review by what is left; own choice, from the length of the walk.
int minutesLeft(const Counts& c) {
    const int left = 2 + (c.positionsAll - c.positions) / 3 + (c.measuresAll - c.measures) / 4 +
                     (c.judgedAll - c.judged) / 5;
    return left + (c.saidAll > c.said ? (c.saidAll - c.said) : c.saidAll == 0 ? 4 : 0);
}

std::string progressOf(const Review& r, const Counts& c) {
    const auto of = [](int done, int all) { return std::to_string(done) + " of " + std::to_string(all); };
    switch (r.stage) {
    case Stage::Look:
        return "";
    case Stage::Positions:
        return "Positions " + of(c.positions, c.positionsAll) + " set.";
    case Stage::Measure:
        return "Measures " + of(c.measures, c.measuresAll) + " done.";
    case Stage::Judge:
        return "Judging " + of(c.judged, c.judgedAll) + " done.";
    case Stage::Say:
        return "Saying " + of(c.said, c.saidAll) + " done.";
    case Stage::Prescribe:
        return "Said; the week is being laid out.";
    case Stage::Send:
        return "Ready to send.";
    case Stage::Sent:
        break;
    }
    return "";
}

} // namespace

Result<DeskList> readDesk(Library& library, const Playbook& playbook, Date today) {
    DeskList desk;
    auto athletes = library.athletes();
    if (!athletes) return athletes.error();
    desk.athletes = std::move(*athletes);
    auto submissions = library.submissions();
    if (!submissions) return submissions.error();
    for (Submission& s : *submissions) {
        const auto athlete = std::find_if(desk.athletes.begin(), desk.athletes.end(),
                                          [&](const Athlete& a) { return a.id == s.athlete; });
        if (athlete == desk.athletes.end() || s.clips.empty()) continue;
        auto review = library.reviewOf(s.id);
        if (!review) return review.error();
        if (*review && (*review)->sent) {
            if (daysBetween((*review)->sent->on, today) <= 7) desk.sentLately.push_back(**review);
            continue;
        }
        DeskRow row{std::move(s), *athlete, std::move(*review), 14, ""};
        if (row.review) {
            const Assessment a = assess(*row.review, playbook, row.submission.clips, athlete->hand);
            row.minutes = minutesLeft(a.counts);
            row.progress = progressOf(*row.review, a.counts);
        }
        desk.waiting.push_back(std::move(row));
    }
    std::stable_sort(desk.waiting.begin(), desk.waiting.end(), [](const DeskRow& a, const DeskRow& b) {
        const auto key = [](const DeskRow& r) {
            return std::tuple(r.submission.pain.empty(), !r.submission.promised,
                              r.submission.promised ? isoDate(*r.submission.promised) : std::string());
        };
        return key(a) < key(b);
    });
    auto promises = library.promises();
    if (!promises) return promises.error();
    for (Promise& p : *promises)
        if (!p.settled) desk.owed.push_back(std::move(p));
    return desk;
}

} // namespace jg
