#include "review/letter_model.h"

#include "coaching/claims.h"
#include "kinematics/answers.h"
#include "kinematics/unit_words.h"
#include "review/follow_up.h"
#include "review/plan_rules.h"
#include "review/stops.h"

#include <algorithm>
#include <cmath>

namespace jg {

namespace {

/// "one" to "six"; larger numbers in digits.
Message countWord(std::size_t n) {
    return msg("letter.count", {{"count", n}});
}

/// Plain words without the sentence that names the target, for a number of which nothing is asked.
std::string withoutTarget(const std::string& plainly) {
    const auto target = plainly.find("{target}");
    const auto end = target == plainly.npos ? plainly.npos : plainly.rfind(". ", target);
    return end == plainly.npos ? plainly : plainly.substr(0, end + 1);
}

/// A number in the plain words for its side of zero.
Message filledFor(const MeasureDefinition& m, const MeasureRow& row, bool withTarget) {
    const double value = *row.value.value;
    const std::string& plainly = value < 0 && !m.plainlyOther.empty() ? m.plainlyOther : m.plainly;
    const double told = m.plainlyOther.empty() ? value : std::abs(value);
    return filled(withTarget && !row.target.asksNothing() ? plainly : withoutTarget(plainly),
                  {{"value", numberInWords(told, row.value.unit)},
                   {"error", errorInWords(row.value)},
                   {"target", wordsOf(row.target)}});
}

/// "from the stretch, on the mound"; what is not known is not said.
Message conditionsInWords(const Conditions& c) {
    std::vector<Message> words;
    if (c.start != Start::Unknown)
        words.push_back(c.start == Start::Stretch ? msg("letter.from-stretch") : msg("letter.from-wind-up"));
    if (c.surface != Surface::Unknown)
        words.push_back(c.surface == Surface::Mound ? msg("letter.on-mound") : msg("letter.on-flat"));
    return joined(ListStyle::Commas, std::move(words));
}

/// Whether it shows in every pitch, for a measure seen in several; empty for one.
Message showsIn(const MeasureRow& row) {
    if (!row.spread || row.spread->judged < 2) return {};
    const auto off = static_cast<std::size_t>(row.spread->offTarget),
               all = static_cast<std::size_t>(row.spread->judged);
    if (off == all) return msg("letter.shows-in-all", {{"all", countWord(all)}});
    return msg("letter.shows-in", {{"off", countWord(off)}, {"all", countWord(all)}});
}

/// The number of a measure in plain words; empty when there is none.
Message numberSentence(const Playbook& playbook, const Assessment& a, const std::string& id) {
    const MeasureRow* row = a.measure(id);
    if (row && !row->value.seen.empty())
        return msg("letter.seen", {{"what", playbook.measure(id)->name},
                                   {"seen", row->value.seen},
                                   {"wanted", wordsOf(row->target)}});
    if (!row || !row->value.value) return {};
    return joined(ListStyle::Sentences, {filledFor(*playbook.measure(id), *row, true), showsIn(*row)});
}

/// How well a link of causes is borne out by what was found at its other end: 0 = a fault there, 1 = nothing
/// was found out, 2 = ruled out, for what stands there is good.
int doubtOf(const Assessment& a, const Cause& cause, const std::string& id) {
    const std::string& other = cause.from == id ? cause.to : cause.from;
    const Judged* j = a.judged(other);
    return !j ? 1 : j->strength ? 2 : j->cannotTell ? 1 : 0;
}

/// Why a finding matters, or what it comes from: the link of causes that is borne out best. A cause counts as
/// the reason only when it was itself found on this athlete. Nothing when all are ruled out.
std::optional<Cause> reasonFor(const std::vector<Cause>& causes, const Assessment& a, const std::string& id) {
    std::optional<Cause> best;
    for (const Cause& cause : causes) {
        if (cause.from != id && cause.to != id) continue;
        const int doubt = doubtOf(a, cause, id);
        if (cause.to == id && doubt > 0) continue;
        if (doubt < (best ? doubtOf(a, *best, id) : 2)) best = cause;
    }
    return best;
}

/// The reason as the letter tells it: what no video can show is told as an opinion.
Message reasonInWords(const Cause& cause) {
    return claimIn(cause.why).empty() ? asIs(cause.why) : msg("letter.claim", {{"why", cause.why}});
}

/// Said where the number a correction shows is already where it should be.
Message numberIsGood(const Assessment& a, const std::string& measure) {
    const MeasureRow* row = a.measure(measure);
    return row && row->judgement.verdict == Verdict::Keep ? msg("letter.number-is-good") : Message{};
}

/// How it should feel: an item's cue; of a measure its own for the way it is to go, else that of the item
/// which tells the same. Never what a drill asks for: that stands in the week.
std::string cueFor(const Playbook& playbook, const Assessment& a, const std::string& id, int age) {
    if (const GradedItem* item = playbook.item(id)) return item->cueFor(age);
    if (const MeasureDefinition* m = playbook.measure(id)) {
        const MeasureRow* row = a.measure(id);
        const bool up = row && row->judgement.gap < 0;
        const std::string& own = m->kind == MeasureKind::Seen ? m->feel : up ? m->feelUp : m->feelDown;
        if (!own.empty()) return own;
    }
    for (const GradedItem& item : playbook.items)
        if (item.measure == id) return item.cueFor(age);
    return {};
}

Message doseInWords(const PlannedDrill& planned, const Drill& drill) {
    if (planned.dose.missing()) return msg("letter.as-agreed");
    const Message dose =
        drill.ball ? msg("letter.throws", {{"dose", wordsOf(planned.dose)}}) : wordsOf(planned.dose);
    return joined(ListStyle::Commas, {dose, drill.ball ? asIs(drill.distance) : Message{}});
}

std::vector<LetterWeekRow> weekRows(const Playbook& playbook, const WeekPlan& plan,
                                    const std::vector<PlannedDrill>& drills) {
    std::vector<LetterWeekRow> rows;
    for (const PlannedDrill& planned : drills) {
        const Drill* drill = playbook.drill(planned.drill);
        if (!drill) continue;
        LetterWeekRow row;
        std::vector<Message> days;
        for (const PlanDay& day : plan.days)
            if (std::find(day.drills.begin(), day.drills.end(), drill->id) != day.drills.end()) {
                days.push_back(weekdayShort(day.weekday));
                row.weekdays.push_back(day.weekday);
            }
        if (days.empty()) continue; // blocked
        row.days = joined(ListStyle::Commas, std::move(days));
        row.what = asIs(drill->name);
        row.how = asIs(drill->how);
        row.dose = doseInWords(planned, *drill);
        row.ball = drill->ball;
        row.body = msg("letter-body." + drill->body);
        row.lower = drill->body == "lower";
        rows.push_back(std::move(row));
    }
    return rows;
}

/// The strengths the letter names: those chosen, else those that are spoken.
std::vector<std::string> keptIn(const Review& review) {
    if (!review.plan.keeps.empty()) return review.plan.keeps;
    std::vector<std::string> spoken;
    for (const Stop& s : review.stops)
        if (s.kind == StopKind::Strength && spoken.size() < kMostKept) spoken.push_back(s.finding);
    return spoken;
}

std::vector<Message> cautionsFor(const Athlete& athlete, bool pain) {
    std::vector<Message> cautions;
    if (pain) cautions.push_back(msg("letter.caution"));
    if (athlete.comingBack) cautions.push_back(msg("letter.coming-back"));
    return cautions;
}

/// "Ludo, two good things and one to work on"; what there is none of is not counted out.
Message greetingFor(const std::string& name, std::size_t good, std::size_t work) {
    if (good + work == 0) return asIs(name);
    const char* id = work == 0   ? "letter.greeting-good"
                     : good == 0 ? "letter.greeting-work"
                                 : "letter.greeting";
    return msg(id, {{"name", name}, {"good", good}, {"work", work}});
}

} // namespace

Message keepLine(const Assessment& a, const Playbook& playbook, const std::string& id) {
    const std::string name = playbook.nameOfFinding(id);
    const MeasureRow* row = a.measure(id);
    if (row && !row->value.seen.empty())
        return msg("letter.keep-seen", {{"what", name}, {"seen", row->value.seen}});
    if (const GradedItem* item = playbook.item(id)) // what is good, and why it matters
        return joined(ListStyle::Sentences, {msg("letter.keep", {{"what", name}}), asIs(item->parent)});
    if (!row || !row->value.value) return msg("letter.keep", {{"what", name}});
    if (const MeasureDefinition& m = *playbook.measure(id); !m.plainly.empty())
        return joined(
            ListStyle::Sentences,
            {filledFor(m, *row, false), row->target.asksNothing()
                                            ? Message{}
                                            : msg("letter.keep-inside", {{"target", wordsOf(row->target)}})});
    return msg("letter.keep-number",
               {{"what", name}, {"number", numberInWords(*row->value.value, row->value.unit)}});
}

std::string toldMeasure(const Review& review, const Playbook& playbook, const Assessment& a,
                        const std::string& id) {
    const auto tells = [&](const std::string& measure) {
        return !joined(ListStyle::Sentences, {numberSentence(playbook, a, measure), numberIsGood(a, measure)})
                    .empty();
    };
    if (tells(id)) return id;
    if (const GradedItem* item = playbook.item(id); item && tells(item->measure)) return item->measure;
    for (const Cause& cause : causesFor(playbook, review.plan.causes))
        if (cause.from == id && doubtOf(a, cause, id) == 0 && !numberSentence(playbook, a, cause.to).empty())
            return cause.to;
    return id;
}

LetterCorrection correctionOf(const Review& review, const Playbook& playbook, const Assessment& a,
                              const std::string& id, int age) {
    LetterCorrection c;
    c.finding = id;
    c.title = asIs(goalOf(playbook, a, id));
    const std::string told = toldMeasure(review, playbook, a, id);
    const GradedItem* item = playbook.item(id);
    const bool same = told == id || (item && item->measure == told);
    c.number = joined(ListStyle::Sentences,
                      {numberSentence(playbook, a, told), same ? numberIsGood(a, told) : Message{}});
    if (const MeasureRow* row = c.number.empty() ? nullptr : a.measure(told)) c.line = numberLineOf(*row);
    const auto causes = causesFor(playbook, review.plan.causes);
    if (const auto reason = reasonFor(causes, a, id)) c.why = reasonInWords(*reason);
    if (const WhyNot* whyNot = review.plan.whyNotOf(id))
        if (const auto need = needOf(playbook, *whyNot))
            c.need = msg("letter-need." + std::string(idOf(*need)));
    c.feel = asIs(cueFor(playbook, a, id, age));
    const Moment at =
        playbook.measure(id) ? playbook.measure(id)->moments.back() : playbook.item(id)->position;
    c.caption = msg("letter.caption", {{"position", info(at).name()}});
    const FindingPlace place = placeOfFinding(review, playbook, a, id);
    c.delivery = place.delivery;
    c.frame = place.frame;
    if (review.ownFinding(id)) c.caption = {}; // its frame is no position
    return c;
}

bool LetterWeekRow::on(int weekday) const {
    return std::find(weekdays.begin(), weekdays.end(), weekday) != weekdays.end();
}

Message LetterModel::bodyOn(int weekday) const {
    for (const LetterWeekRow& row : week)
        if (row.on(weekday)) return row.body;
    return {};
}

Message errorInWords(const MeasureValue& value) {
    if (value.unit == "x") return number(std::max(0.1, value.half95()), 1);
    return number(std::max(1.0, value.half95()));
}

Message numberInWords(double value, const std::string& unit) {
    return withUnit(Decimal{value, unit == "x" ? 1 : 0}, unit);
}

Message labelOf(const MeasureValue& v) {
    if (!v.value) return {};
    return msg("label.number", {{"number", numberInWords(*v.value, v.unit)}, {"error", errorInWords(v)}});
}

void tellSince(LetterModel& m, const Playbook& playbook, const std::string& name, Date when,
               const std::vector<Followed>& followed) {
    for (const Followed& f : followed) {
        const char* id = f.became == Became::Good     ? "letter.since-good"
                         : f.became == Became::Better ? "letter.since-better"
                         : f.became == Became::Kept   ? "letter.since-kept"
                         : f.became == Became::Worse
                             ? (f.wasKept ? "letter.since-slipped" : "letter.since-worse")
                             : nullptr;
        if (!id) continue; // what can't be told is no news for a family
        m.since.push_back(msg(id, {{"what", playbook.nameOfFinding(f.finding)}}));
        if (!f.numbers.empty() && f.became != Became::Kept) m.since.push_back(f.numbers);
    }
    if (m.since.empty()) return;
    m.sinceHeading =
        name.empty() ? msg("letter.since", {{"date", when}}) : msg("letter.since-named", {{"name", name}});
}

LetterModel writeLetter(const Review& review, const Playbook& playbook, const Assessment& a,
                        const Athlete& athlete, const Submission& submission, const House& house,
                        bool painElsewhere) {
    const bool pain = submission.painOpen() || painElsewhere;
    LetterModel m;
    m.from = house.place;
    m.about = joined(ListStyle::Dots, {msg("letter.film-of", {{"date", submission.received}}),
                                       conditionsInWords(review.deliveryOr(review.lead).conditions)});
    for (const std::string& id : keptIn(review))
        if (playbook.isFinding(id)) {
            m.keeps.push_back(keepLine(a, playbook, id));
            m.kept.push_back(id);
        }
    for (const std::string& id : review.plan.corrections)
        if (playbook.isFinding(id))
            m.corrections.push_back(correctionOf(review, playbook, a, id, athlete.ageOn(review.date)));
    m.greeting = greetingFor(athlete.firstName, m.keeps.size(), m.corrections.size());
    m.opening = review.plan.opening;
    m.cautions = cautionsFor(athlete, pain);
    const WeekPlan week = layOutWeek(playbook, review.plan.drills,
                                     gatesFor(review.plan, athlete, submission, review.date, painElsewhere));
    m.week = weekRows(playbook, week, review.plan.drills);
    m.weekNotes = week.notes;
    m.nextLook =
        joined(ListStyle::Sentences,
               {review.plan.nextLook ? msg("letter.next-look", {{"date", *review.plan.nextLook}}) : Message{},
                asIs(review.plan.ask)});
    m.writtenOn = review.date;
    m.nextLookOn = review.plan.nextLook;
    m.notSeen = a.notSeen;
    m.closing = msg("letter.closing");
    m.signature = house.coach;
    return m;
}

} // namespace jg
