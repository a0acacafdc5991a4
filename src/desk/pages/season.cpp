// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/pages/season.h"

#include "desk/sending/letter_choice.h"
#include "library/library.h"
#include "review/record/pitch_count.h"

#include <algorithm>

namespace jg {

namespace {

Message namesOf(const std::vector<std::string>& names) {
    std::vector<Message> all;
    for (const std::string& name : names) all.push_back(asIs(name));
    return joined(ListStyle::Commas, std::move(all));
}

SeasonLetter letterOf(const AthleteLog& log, const Playbook& playbook, const ReviewOfAthlete& r) {
    std::vector<std::string> work;
    for (const std::string& id : r.summary.corrections) work.push_back(playbook.nameOfFinding(id));
    std::vector<Message> words = {
        r.summary.sent ? msg("season.letter", {{"date", WrittenDate{r.summary.sent->on, DateStyle::Year}}})
                       : msg("season.not-sent", {{"date", WrittenDate{r.summary.date, DateStyle::Year}}})};
    if (!work.empty()) words.push_back(msg("athletes-place.worked-on", {{"what", namesOf(work)}}));
    for (const auto& [review, drills] : log.drills)
        if (review == r.summary.id)
            words.push_back(msg("athletes-place.drills", {{"what", namesOf(drills)}}));
    return {r.summary.date, joined(ListStyle::Sentences, std::move(words))};
}

Message factsOf(const Athlete& a, Date today) {
    std::vector<Message> facts = {
        msg("athletes-place.age-and-hand", {{"age", a.ageOn(today)}, {"hand", nameOf(a.hand)}}),
        asIs(a.level)};
    if (a.heightM) facts.push_back(msg("length.cm", {{"length", std::lround(*a.heightM * 100)}}));
    return joined(ListStyle::Dots, std::move(facts));
}

/// What a page about a season has room for: what was off, or was worked on and became good.
bool isTold(const LogLine& line) {
    return line.workedOn || std::any_of(line.dots.begin(), line.dots.end(), [](const LogDot& d) {
               return d.fate == Fate::Found || d.fate == Fate::CameBack || d.fate == Fate::Kept;
           });
}

} // namespace

SeasonPage seasonPageOf(const AthleteLog& log, const Playbook& playbook, Date today) {
    SeasonPage page;
    const Athlete& athlete = log.page.athlete;
    page.name = athlete.firstName;
    page.facts = factsOf(athlete, today);
    for (auto it = athlete.outings.rbegin(); it != athlete.outings.rend(); ++it)
        page.outings.push_back(inWords(*it));
    if (log.page.reviews.empty()) return page;
    page.from = log.page.reviews.front().summary.date;
    page.to = log.page.reviews.back().summary.date;
    for (const LogLine& line : log.lines)
        if (isTold(line)) page.findings.emplace_back(playbook.nameOfFinding(line.finding), line);
    for (const MeasureLine& line : log.page.measures) {
        if (line.points.empty()) continue;
        const MeasureDefinition* m = playbook.measure(line.measure);
        SeasonMeasure measure{m ? m->name : line.measure, {line, page.from, page.to, {}}, {}};
        if (const auto robust = log.trends.find(line.measure); robust != log.trends.end())
            measure.picture.robust = robust->second;
        if (const auto sure = log.sureSince.find(line.measure); sure != log.sureSince.end())
            measure.sureSince = sure->second;
        page.measures.push_back(std::move(measure));
    }
    for (auto r = log.page.reviews.rbegin(); r != log.page.reviews.rend(); ++r)
        page.letters.push_back(letterOf(log, playbook, *r));
    return page;
}

Status writeSeason(Library& library, const Playbook& playbook, const AthleteId& athlete, Date today,
                   const Words& words, const std::filesystem::path& path) {
    const auto log = readLog(library, playbook, athlete);
    if (!log) return log.error();
    return writeSeasonPage(seasonPageOf(*log, playbook, today), letterChoiceOf(library).paper, words, path,
                           library.files());
}

} // namespace jg
