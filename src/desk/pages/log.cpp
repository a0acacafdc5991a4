// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/pages/log.h"

#include "desk/session/juxta.h"
#include "desk/session/since.h"
#include "kinematics/answers.h"
#include "kinematics/estimate.h"

#include <algorithm>

namespace jg {

namespace {

/// Where a finding is seen: the last position of its measure, or its item's.
void placeDot(const ReviewOfAthlete& r, const Playbook& playbook, const std::string& finding, LogDot& dot) {
    const MeasureRow* row = r.results->measure(finding);
    const MeasureDefinition* m = playbook.measure(finding);
    const GradedItem* item = playbook.item(finding);
    if (row) dot.delivery = row->delivery;
    const DeliveryMarks* marks = r.delivery(dot.delivery);
    if (!marks) return;
    if (m && !m->moments.empty())
        dot.frame = marks->frameOf(m->moments.back());
    else if (item)
        dot.frame = marks->frameOf(item->position);
}

bool isAsked(const Assessment& a, const std::string& finding) {
    return a.measure(finding) ||
           std::any_of(a.items.begin(), a.items.end(), [&](const ItemRow& i) { return i.id == finding; });
}

Fate fateIn(const ReviewOfAthlete& r, const std::string& finding) {
    if (!r.results) return Fate::NotAsked;
    const Judged* j = r.results->judged(finding);
    if (isAmong(r.summary.corrections, finding)) return Fate::WorkedOn;
    if (!j) return isAsked(*r.results, finding) ? Fate::Open : Fate::NotAsked;
    if (j->cannotTell) return Fate::CantTell;
    if (!j->strength) return Fate::Found;
    return isAmong(r.summary.keeps, finding) && r.summary.sent ? Fate::Kept : Fate::Good;
}

bool isFault(Fate fate) {
    return fate == Fate::Found || fate == Fate::WorkedOn || fate == Fate::CameBack;
}

bool isGood(Fate fate) {
    return fate == Fate::Good || fate == Fate::Kept;
}

/// A fault after it had been good came back.
void markWhatCameBack(LogLine& line) {
    bool wasFault = false, good = false;
    for (LogDot& dot : line.dots) {
        if (isFault(dot.fate) && wasFault && good && dot.fate == Fate::Found) dot.fate = Fate::CameBack;
        if (isGood(dot.fate)) good = true;
        if (isFault(dot.fate)) wasFault = true, good = false;
    }
}

Status addSince(Store& store, const Playbook& playbook, AthleteLog& log) {
    if (log.page.reviews.size() < 2) return Done{};
    const ReviewSummary& newest = log.page.reviews.back().summary;
    auto back = lookBackFrom(store, playbook, log.page.athlete, log.page.reviews, newest.id, newest.date);
    if (!back) return back.error();
    if (!*back) return Done{};
    auto now = juxtaEntries(store, playbook, {{newest.id}});
    if (!now) return now.error();
    log.since = SinceThen{(*back)->name, (*back)->when, (*back)->past.entry.key.review,
                          becameOf(**back, now->front())};
    return Done{};
}

void addBefore(const std::map<ReviewId, Plan>& plans, const Playbook& playbook, AthleteLog& log) {
    for (const Promise& p : log.page.promises)
        if (p.open()) log.before.owed.push_back(p);
    std::stable_sort(log.before.owed.begin(), log.before.owed.end(),
                     [](const Promise& a, const Promise& b) { return a.due && (!b.due || *a.due < *b.due); });
    const auto& reviews = log.page.reviews;
    const auto sent = std::find_if(reviews.rbegin(), reviews.rend(),
                                   [](const auto& r) { return r.summary.sent.has_value(); });
    if (sent == reviews.rend()) return;
    const Plan& plan = plans.at(sent->summary.id);
    log.before.letter = sent->summary.sent->on;
    log.before.lastTime = plan.corrections;
    if (sent->results)
        for (const std::string& id : plan.corrections)
            log.before.goals[id] = goalOf(playbook, *sent->results, id);
    log.before.kept = plan.keeps.empty() ? sent->summary.keeps : plan.keeps;
    if (log.before.kept.size() > mostKept(0)) log.before.kept.resize(mostKept(0));
    log.before.toFilm = plan.ask;
}

void addDrills(const std::map<ReviewId, Plan>& plans, const Playbook& playbook, AthleteLog& log) {
    for (const ReviewOfAthlete& r : log.page.reviews) {
        std::vector<std::string> names;
        for (const PlannedDrill& d : plans.at(r.summary.id).drills) {
            const Drill* drill = playbook.drill(d.drill);
            names.push_back(drill ? drill->name : d.drill);
        }
        if (!names.empty()) log.drills.emplace_back(r.summary.id, std::move(names));
    }
}

Result<std::map<ReviewId, Plan>> plansOf(Store& store, const AthletePage& page) {
    std::map<ReviewId, Plan> plans;
    for (const ReviewOfAthlete& r : page.reviews) {
        auto review = store.review(r.summary.id);
        if (!review) return review.error();
        plans[r.summary.id] = std::move(review->plan);
    }
    return plans;
}

void addTrends(AthleteLog& log) {
    for (const MeasureLine& line : log.page.measures) {
        std::vector<Dated> points;
        for (const TrendPoint& p : line.points)
            points.push_back({static_cast<double>(daysBetween(line.points.front().when, p.when)), p.value,
                              p.half95 / kSdsOf95});
        if (points.empty()) continue;
        if (const auto robust = robustLine(points)) log.trends[line.measure] = *robust;
        if (const auto sure = firstSureChange(points)) log.sureSince[line.measure] = line.points[*sure].when;
    }
}

} // namespace

std::vector<LogLine> logLines(const AthletePage& page, const Playbook& playbook) {
    std::vector<std::string> order;
    const auto add = [&](const std::string& id) {
        if (!isAmong(order, id)) order.push_back(id);
    };
    for (auto r = page.reviews.rbegin(); r != page.reviews.rend(); ++r) {
        for (const std::string& id : r->summary.corrections) add(id);
        if (!r->results) continue;
        for (const Judged& j : r->results->findings)
            if (!j.cannotTell) add(j.finding.id);
    }
    std::vector<LogLine> lines;
    for (const std::string& finding : order) {
        LogLine line{finding, {}, false};
        for (const ReviewOfAthlete& r : page.reviews) {
            LogDot dot{r.summary.id, r.submission.id, r.summary.date, fateIn(r, finding), 1, {}};
            if (r.results) placeDot(r, playbook, finding, dot);
            line.workedOn = line.workedOn || dot.fate == Fate::WorkedOn;
            line.dots.push_back(std::move(dot));
        }
        markWhatCameBack(line);
        lines.push_back(std::move(line));
    }
    const auto rank = [](const LogLine& l) {
        if (l.workedOn) return 0;
        const auto any = [&](bool (*is)(Fate)) {
            return std::any_of(l.dots.begin(), l.dots.end(), [&](const LogDot& d) { return is(d.fate); });
        };
        if (any([](Fate f) { return f == Fate::CameBack; })) return 1;
        return any(isFault) ? 2 : 3;
    };
    std::stable_sort(lines.begin(), lines.end(),
                     [&](const LogLine& a, const LogLine& b) { return rank(a) < rank(b); });
    return lines;
}

Result<AthleteLog> readLog(Store& store, const Playbook& playbook, const AthleteId& athlete) {
    auto page = readAthletePage(store, playbook, athlete);
    if (!page) return page.error();
    AthleteLog log;
    log.page = std::move(*page);
    log.lines = logLines(log.page, playbook);
    addTrends(log);
    if (auto added = addSince(store, playbook, log); !added) return added.error();
    const auto plans = plansOf(store, log.page);
    if (!plans) return plans.error();
    addBefore(*plans, playbook, log);
    addDrills(*plans, playbook, log);
    log.outings = newestOutings(log.page.reviews, playbook);
    return log;
}

} // namespace jg
