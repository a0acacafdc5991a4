// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/tell/send_check.h"

#include "kinematics/answers.h"
#include "review/assess/contradictions.h"
#include "review/record/allowed.h"
#include "review/record/people_check.h"
#include "review/tell/plan_rules.h"

#include <algorithm>

namespace jg {

Result<Recipient> recipientFor(const Athlete& athlete, Date today) {
    const bool minor = athlete.isMinorOn(today);
    Recipient r{minor ? athlete.guardianName : athlete.fullName(),
                minor ? athlete.guardianEmail : athlete.email, minor};
    if (r.email.find('@') == std::string::npos)
        return fail(ErrorCode::Refused,
                    minor ? msg("send-check.no-guardian", {{"firstName", athlete.firstName}})
                          : msg("send-check.no-address", {{"firstName", athlete.firstName}}));
    if (!isOneAddress(r.email))
        return fail(ErrorCode::Refused,
                    msg("send-check.email-is-not-one-mail-address", {{"email", r.email}}));
    if (minor && guardianIsThemselves(athlete))
        return fail(ErrorCode::Refused, msg("send-check.the-guardians-address-is-first-names",
                                            {{"firstName", athlete.firstName}}));
    return r;
}

namespace {

int pointsOnDamaged(const Review& review, const Submission& submission) {
    int count = 0;
    for (const Clip& clip : submission.clips)
        for (const DeliveryMarks& d : review.deliveries) {
            if (clip.id != d.clip) continue;
            for (const auto& [key, mark] : d.points)
                for (const auto& [first, last] : clip.damaged)
                    count += key.frame >= first && key.frame <= last;
        }
    return count;
}

using Problems = std::vector<SendProblem>;

void checkOwner(const Review& review, const Athlete& athlete, const Submission& submission, Problems& out) {
    const auto ownFilm = [&](const DeliveryMarks& d) {
        const auto clip = std::find_if(submission.clips.begin(), submission.clips.end(),
                                       [&](const Clip& c) { return c.id == d.clip; });
        return clip != submission.clips.end() && clip->athlete == athlete.id;
    };
    const auto& all = review.deliveries;
    if (!std::all_of(all.begin(), all.end(), ownFilm) || review.athlete != athlete.id ||
        submission.athlete != athlete.id)
        out.push_back(
            {true, msg("send-check.the-film-in-this-review-belongs", {{"firstName", athlete.firstName}})});
}

/// Pictures of somebody who did not allow them, or no longer does, never leave. Silence is a thought.
void checkConsent(const Athlete& athlete, Date today, Problems& out) {
    const Message why = whyNotAllowed(athlete, Use::Filming, today);
    if (!why.empty()) out.push_back({allowedOn(athlete, Use::Filming, today) != Allowed::Silent, why});
}

/// Somebody who was to be hidden is not hidden surely where the box was lost.
void checkVeils(const Review& review, Problems& out) {
    for (const DeliveryMarks& d : review.deliveries)
        for (const auto& [id, veil] : d.veils)
            if (!veil.asks.empty())
                out.push_back(
                    {true, msg("send-check.hidden-lost", {{"frame", veil.asks.front()}}), Stage::Look});
}

void checkOpenWork(const Review& review, const Assessment& a, Problems& out) {
    const int notJudged = a.counts.judgedAll - a.counts.judged;
    if (notJudged > 0)
        out.push_back({true,
                       msg("send-check.not-judged-of-judged-all-items",
                           {{"notJudged", notJudged}, {"judgedAll", a.counts.judgedAll}}),
                       Stage::Judge});
    const int notMeasured = a.counts.measuresAll - a.counts.measures;
    if (notMeasured > 0)
        out.push_back({true,
                       msg("send-check.not-measured-of-measures-all-measures",
                           {{"notMeasured", notMeasured}, {"measuresAll", a.counts.measuresAll}}),
                       Stage::Measure});
    if (a.counts.saidAll == 0) out.push_back({false, msg("send-check.no-film"), Stage::Say});
    for (const Stop& s : review.stops)
        if (!review.takes.contains(s.id))
            out.push_back(
                {true, msg("send-check.title-is-in-the-running-order", {{"title", s.title}}), Stage::Say});
}

void checkPlan(const Review& review, const Playbook& playbook, const Assessment& a, Problems& out) {
    const Plan& plan = review.plan;
    const auto add = [&](bool stop, Message text) {
        out.push_back({stop, std::move(text), Stage::Prescribe});
    };
    const bool good = std::any_of(review.stops.begin(), review.stops.end(),
                                  [](const Stop& s) { return s.kind == StopKind::Strength; });
    if (plan.corrections.empty() && !good && plan.keeps.empty() && !tellsNothing(a))
        add(true, msg("send-check.letter-empty"));
    else if (plan.corrections.empty())
        add(false, msg("send-check.nothing-to-work-on-is-chosen"));
    if (const std::size_t most = mostCorrections(review.judging().age); plan.corrections.size() > most)
        add(true, msg("send-check.too-many-corrections", {{"most", most}}));
    const bool anyStrength = std::any_of(a.findings.begin(), a.findings.end(),
                                         [](const Judged& j) { return j.strength && !j.cannotTell; });
    if (!plan.corrections.empty() && anyStrength && !good && plan.keeps.empty())
        add(true, msg("send-check.no-strength"));
    for (const std::string& id : plan.keeps) {
        if (const Judged* judged = a.judged(id); !judged || !judged->strength)
            add(true, msg("send-check.no-longer-good", {{"name", playbook.nameOfFinding(id)}}));
        if (isAmong(plan.corrections, id))
            add(true, msg("send-check.both-ways", {{"name", goalOf(playbook, a, id)}}));
    }
    for (const std::string& id : plan.corrections) {
        const std::string name = goalOf(playbook, a, id);
        if (isStyle(plan, a, id)) add(true, msg("send-check.style-is-corrected", {{"name", name}}));
        const bool drilled = std::any_of(plan.drills.begin(), plan.drills.end(), [&](const PlannedDrill& d) {
            const Drill* drill = playbook.drill(d.drill); // one drill may serve two corrections
            return d.finding == id || (drill && drill->trains(a.sided(id)));
        });
        if (!drilled) add(true, msg("send-check.name-has-no-drill", {{"name", name}}));
        for (const Stop& s : review.stops)
            if (s.finding == id && s.kind == StopKind::Strength)
                add(true, msg("send-check.both-ways", {{"name", name}}));
    }
    if (!plan.nextLook) add(false, msg("send-check.no-next-look"));
}

void checkWeek(const Review& review, const Playbook& playbook, const DrillGates& gates, Problems& out) {
    const WeekPlan week = layOutWeek(playbook, review.plan.drills, gates);
    for (const Message& sentence : week.blocked) out.push_back({true, sentence, Stage::Prescribe});
    for (const std::string& id : week.missingDose)
        out.push_back({true,
                       msg("send-check.the-dose-of-drill-is-missing", {{"drill", playbook.drill(id)->name}}),
                       Stage::Prescribe});
}

} // namespace

std::vector<SendProblem> checkBeforeSending(const Review& review, const Playbook& playbook,
                                            const Assessment& a, const Athlete& athlete,
                                            const Submission& submission, Date today, bool painElsewhere) {
    Problems out;
    const bool pain = submission.painOpen() || painElsewhere;
    checkOwner(review, athlete, submission, out);
    checkConsent(athlete, today, out);
    checkVeils(review, out);
    if (const auto to = recipientFor(athlete, today); !to) out.push_back({true, to.error().text});
    if (const Status fine = checkAthlete(athlete, today); !fine) out.push_back({true, fine.error().text});
    checkOpenWork(review, a, out);
    checkPlan(review, playbook, a, out);
    for (Contradiction& c : contradictionsIn(review, playbook, a, athlete.hand))
        out.push_back({c.stop, std::move(c.text)});
    if (const int damaged = pointsOnDamaged(review, submission); damaged > 0)
        out.push_back({false, msg("send-check.damaged", {{"count", damaged}}), Stage::Measure});
    checkWeek(review, playbook, gatesFor(review.plan, a, athlete, submission, today, painElsewhere), out);
    if (athlete.comingBack && !athlete.comingBack->planSeen)
        out.push_back({true, msg("send-check.no-clinicians-plan",
                                 {{"firstName", athlete.firstName}, {"from", athlete.comingBack->from}})});
    if (pain && !review.plan.painConfirmed)
        out.push_back({true, msg("send-check.pain-is-reported-read-the-caution")});
    std::stable_sort(out.begin(), out.end(), [](const auto& x, const auto& y) { return x.stop && !y.stop; });
    return out;
}

bool forbids(const std::vector<SendProblem>& problems) {
    return std::any_of(problems.begin(), problems.end(), [](const auto& p) { return p.stop; });
}

} // namespace jg
