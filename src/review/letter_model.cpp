#include "review/letter_model.h"

#include "base/minus.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace jg {

namespace {

std::string rounded(double value) {
    return withMinus(std::to_string(std::llround(value)));
}

std::string withOneDecimal(double value) {
    const long long tenths = std::llround(std::abs(value) * 10);
    return withMinus((value < 0 && tenths > 0 ? "-" : "") + std::to_string(tenths / 10) + "." +
                     std::to_string(tenths % 10));
}

std::string replaced(std::string text, const std::string& what, const std::string& with) {
    for (auto at = text.find(what); at != std::string::npos; at = text.find(what, at + with.size()))
        text.replace(at, what.size(), with);
    return text;
}

std::string countWord(std::size_t n) {
    static constexpr std::array words = {"no", "one", "two", "three", "four", "five", "six"};
    return n < words.size() ? words.at(n) : std::to_string(n);
}

std::string keepLine(const Assessment& a, const Playbook& playbook, const std::string& id) {
    const std::string name = playbook.nameOfFinding(id);
    const MeasureRow* row = a.measure(id);
    if (!row || !row->value.value) return name + ".";
    return name + ": " + numberInWords(*row->value.value, row->value.unit) + ".";
}

/// "from the stretch, on the mound"; what is not known is not said.
std::string conditionsInWords(const Conditions& c) {
    std::string words;
    if (c.start != Start::Unknown)
        words = c.start == Start::Stretch ? "from the stretch" : "from the wind-up";
    if (c.surface != Surface::Unknown)
        words += std::string(words.empty() ? "" : ", ") +
                 (c.surface == Surface::Mound ? "on the mound" : "on flat ground");
    return words;
}

/// Whether it shows in every pitch, for a measure seen in several; empty for one.
std::string showsIn(const MeasureRow& row) {
    if (!row.spread || row.spread->judged < 2) return "";
    const int off = row.spread->offTarget, all = row.spread->judged;
    if (off == all) return " It shows in all " + countWord(static_cast<std::size_t>(all)) + " pitches.";
    return " It shows in " + countWord(static_cast<std::size_t>(off)) + " of " +
           countWord(static_cast<std::size_t>(all)) + " pitches.";
}

/// The number of a measure in plain words; empty when there is none.
std::string numberSentence(const Playbook& playbook, const Assessment& a, const std::string& id) {
    const MeasureRow* row = a.measure(id);
    if (!row || !row->value.value) return "";
    std::string text = playbook.measure(id)->plainly;
    text = replaced(text, "{value}", numberInWords(*row->value.value, row->value.unit));
    text = replaced(text, "{error}", errorInWords(row->value));
    return replaced(text, "{target}", wordsOf(row->target)) + showsIn(*row);
}

/// How well a link of causes is borne out by what was found at its other end: 0 = a fault there, 1 = nothing
/// was found out, 2 = ruled out, for what stands there is good.
int doubtOf(const Assessment& a, const Cause& cause, const std::string& id) {
    const std::string& other = cause.from == id ? cause.to : cause.from;
    for (const Judged& j : a.findings)
        if (j.finding.id == other) return j.strength ? 2 : j.cannotTell ? 1 : 0;
    return 1;
}

/// Why a finding matters, or what it comes from: the link of causes that is borne out best; null when all are
/// ruled out.
const Cause* reasonFor(const Playbook& playbook, const Assessment& a, const std::string& id) {
    const Cause* best = nullptr;
    for (const Cause& cause : playbook.causes) {
        if (cause.from != id && cause.to != id) continue;
        const int doubt = doubtOf(a, cause, id);
        if (doubt < (best ? doubtOf(a, *best, id) : 2)) best = &cause;
    }
    return best;
}

LetterCorrection correctionOf(const Review& review, const Playbook& playbook, const Assessment& a,
                              const std::string& id) {
    LetterCorrection c;
    c.finding = id;
    c.title = playbook.nameOfFinding(id);
    c.number = numberSentence(playbook, a, id);
    // An item has no number of its own: it shows the one it bears on.
    for (const Cause& cause : playbook.causes)
        if (c.number.empty() && cause.from == id && doubtOf(a, cause, id) < 2)
            c.number = numberSentence(playbook, a, cause.to);
    if (const Cause* reason = reasonFor(playbook, a, id)) c.why = reason->why;
    if (const GradedItem* item = playbook.item(id)) {
        c.feel = item->player;
    } else {
        // A measure borrows the cue of the first drill that serves it.
        for (const PlannedDrill& d : review.plan.drills)
            if (d.finding == id)
                if (const Drill* drill = playbook.drill(d.drill)) {
                    c.feel = drill->how;
                    break;
                }
    }
    const Moment at =
        playbook.measure(id) ? playbook.measure(id)->moments.back() : playbook.item(id)->position;
    c.caption = std::string(info(at).name) + ". White: you.";
    const MeasureRow* row = a.measure(id);
    c.delivery = row ? row->delivery : a.delivery;
    if (const auto frame = review.deliveryOr(c.delivery).frameOf(at)) c.frame = *frame;
    return c;
}

std::vector<LetterWeekRow> weekRows(const Playbook& playbook, const WeekPlan& plan,
                                    const std::vector<PlannedDrill>& drills) {
    std::vector<LetterWeekRow> rows;
    for (const PlannedDrill& planned : drills) {
        const Drill* drill = playbook.drill(planned.drill);
        if (!drill) continue;
        LetterWeekRow row;
        for (const PlanDay& day : plan.days)
            if (std::find(day.drills.begin(), day.drills.end(), drill->id) != day.drills.end())
                row.days += (row.days.empty() ? "" : ", ") + std::string(weekdayShort(day.weekday));
        if (row.days.empty()) continue; // blocked
        row.what = drill->name;
        row.how = drill->how;
        row.dose =
            planned.dose.missing() ? "as agreed" : wordsOf(planned.dose) + (drill->ball ? " throws" : "");
        if (drill->ball && !drill->distance.empty()) row.dose += ", " + drill->distance;
        row.ball = drill->ball;
        rows.push_back(std::move(row));
    }
    return rows;
}

/// "Ludo, two good things and one to work on"; what there is none of is not counted out.
std::string greetingFor(const std::string& name, std::size_t good, std::size_t work) {
    if (good + work == 0) return name;
    std::string words = name + ", ";
    if (good > 0) words += countWord(good) + (good == 1 ? " good thing" : " good things");
    if (good > 0 && work > 0) return words + " and " + countWord(work) + " to work on";
    if (work > 0) words += countWord(work) + (work == 1 ? " thing" : " things") + " to work on";
    return words;
}

} // namespace

std::string errorInWords(const MeasureValue& value) {
    if (value.unit == "x") return withOneDecimal(std::max(0.1, value.half95()));
    return rounded(std::max(1.0, value.half95()));
}

std::string numberInWords(double value, const std::string& unit) {
    if (unit == "deg") return rounded(value) + "\u00b0";
    if (unit == "%") return rounded(value) + " %";
    if (unit == "x") return withOneDecimal(value);
    return rounded(value) + " " + unit;
}

LetterModel writeLetter(const Review& review, const Playbook& playbook, const Assessment& a,
                        const Athlete& athlete, const Submission& submission, const House& house) {
    LetterModel m;
    m.from = house.place;
    m.about = "film of " + longDate(submission.received);
    if (const std::string how = conditionsInWords(review.deliveryOr(review.lead).conditions); !how.empty())
        m.about += " \u00b7 " + how;
    for (const Stop& s : review.stops)
        if (s.kind == StopKind::Strength && m.keeps.size() < 3)
            m.keeps.push_back(keepLine(a, playbook, s.finding));
    for (const std::string& id : review.plan.corrections)
        if (playbook.isFinding(id)) m.corrections.push_back(correctionOf(review, playbook, a, id));
    m.greeting = greetingFor(athlete.firstName, m.keeps.size(), m.corrections.size());
    m.opening = review.plan.opening;
    if (!submission.pain.empty())
        m.caution =
            "You told me that something hurts. Please stop throwing until a doctor or another licensed "
            "professional has looked at it, and follow what they say. This letter is about your movement; "
            "it is no diagnosis and no advice on an injury. It holds no throwing drills.";
    const WeekPlan week =
        layOutWeek(playbook, review.plan.drills, athlete.ageOn(review.date), !submission.pain.empty());
    m.week = weekRows(playbook, week, review.plan.drills);
    if (review.plan.nextLook) m.nextLook = longDate(*review.plan.nextLook) + ". ";
    m.nextLook += review.plan.ask;
    m.notSeen = a.notSeen;
    m.closing = "If anything hurts, stop throwing and tell a grown-up and a doctor before the next drill. "
                "Pitch counts "
                "and days of rest follow the rules of your league.";
    m.signature = house.coach;
    return m;
}

} // namespace jg
