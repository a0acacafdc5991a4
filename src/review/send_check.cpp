#include "review/send_check.h"

#include "review/people_check.h"

#include <algorithm>

namespace jg {

Result<Recipient> recipientFor(const Athlete& athlete, Date today) {
    const bool minor = athlete.isMinorOn(today);
    Recipient r{minor ? athlete.guardianName : athlete.fullName(),
                minor ? athlete.guardianEmail : athlete.email, minor};
    if (r.email.find('@') == std::string::npos)
        return fail(ErrorCode::Refused, minor ? athlete.firstName +
                                                    " is under 18 and no guardian's address is known. "
                                                    "Enter one on the athlete's page."
                                              : "No mail address is known for " + athlete.firstName + ".");
    if (!isOneAddress(r.email))
        return fail(ErrorCode::Refused, "\"" + r.email +
                                            "\" is not one mail address. Correct it on the athlete's "
                                            "page.");
    if (minor && guardianIsThemselves(athlete))
        return fail(ErrorCode::Refused, "The guardian's address is " + athlete.firstName +
                                            "'s own. Enter the guardian's on the athlete's page.");
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
        out.push_back({true, "The film in this review belongs to another athlete. It must not go to " +
                                 athlete.firstName + ": take it out and review the right film."});
}

void checkOpenWork(const Review& review, const Assessment& a, Problems& out) {
    const int notJudged = a.counts.judgedAll - a.counts.judged;
    if (notJudged > 0)
        out.push_back({true, std::to_string(notJudged) + " of " + std::to_string(a.counts.judgedAll) +
                                 " items are not looked at. Grade them, or set them aside."});
    const int notMeasured = a.counts.measuresAll - a.counts.measures;
    if (notMeasured > 0)
        out.push_back({true, std::to_string(notMeasured) + " of " + std::to_string(a.counts.measuresAll) +
                                 " measures are not looked at. Take them, or set them aside."});
    if (a.counts.saidAll == 0)
        out.push_back({false, "There is no spoken stop, so no film goes with the letter."});
    for (const Stop& s : review.stops)
        if (!review.takes.contains(s.id))
            out.push_back({true, "\"" + s.title + "\" is in the running order and not said yet."});
}

void checkPlan(const Review& review, const Playbook& playbook, Problems& out) {
    const Plan& plan = review.plan;
    const bool good = std::any_of(review.stops.begin(), review.stops.end(),
                                  [](const Stop& s) { return s.kind == StopKind::Strength; });
    if (plan.corrections.empty() && !good)
        out.push_back(
            {true, "The letter is empty: choose in Say what was good, or in Prescribe what to work on."});
    else if (plan.corrections.empty())
        out.push_back({false, "Nothing to work on is chosen in Prescribe."});
    if (plan.corrections.size() > kMostCorrections)
        out.push_back({true, "More than three corrections: choose the three that matter most."});
    for (const std::string& id : plan.corrections) {
        const std::string name = playbook.nameOfFinding(id);
        const bool drilled = std::any_of(plan.drills.begin(), plan.drills.end(), [&](const PlannedDrill& d) {
            const Drill* drill = playbook.drill(d.drill); // one drill may serve two corrections
            return d.finding == id || (drill && std::find(drill->serves.begin(), drill->serves.end(), id) !=
                                                    drill->serves.end());
        });
        if (!drilled) out.push_back({true, "\"" + name + "\" has no drill."});
        for (const Stop& s : review.stops)
            if (s.finding == id && s.kind == StopKind::Strength)
                out.push_back({true, "\"" + name + "\" is both a strength and a correction."});
    }
    if (!plan.nextLook) out.push_back({false, "No date is set for the next look."});
}

void checkWeek(const Review& review, const Playbook& playbook, const Athlete& athlete, bool pain, Date today,
               Problems& out) {
    const WeekPlan week = layOutWeek(playbook, review.plan.drills, athlete.ageOn(today), pain);
    for (const std::string& sentence : week.blocked) out.push_back({true, sentence});
    for (const std::string& id : week.missingDose)
        out.push_back({true, "The dose of \"" + playbook.drill(id)->name +
                                 "\" is missing. Set it in Prescribe, or say there that it needs none."});
}

} // namespace

std::vector<SendProblem> checkBeforeSending(const Review& review, const Playbook& playbook,
                                            const Assessment& a, const Athlete& athlete,
                                            const Submission& submission, Date today) {
    Problems out;
    const bool pain = !submission.pain.empty();
    checkOwner(review, athlete, submission, out);
    if (const auto to = recipientFor(athlete, today); !to) out.push_back({true, to.error().text});
    checkOpenWork(review, a, out);
    checkPlan(review, playbook, out);
    if (const int damaged = pointsOnDamaged(review, submission); damaged > 0)
        out.push_back(
            {false, std::to_string(damaged) + (damaged == 1 ? " point lies" : " points lie") +
                        " on damaged pictures: the numbers from them are less sure than they say."});
    checkWeek(review, playbook, athlete, pain, today, out);
    if (pain && !review.plan.painConfirmed)
        out.push_back({true, "Pain is reported. Read the caution at the top of the letter and confirm it."});
    std::stable_sort(out.begin(), out.end(), [](const auto& x, const auto& y) { return x.stop && !y.stop; });
    return out;
}

bool forbids(const std::vector<SendProblem>& problems) {
    return std::any_of(problems.begin(), problems.end(), [](const auto& p) { return p.stop; });
}

} // namespace jg
