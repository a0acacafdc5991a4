// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/tell/letter_model.h"

#include "coaching/claims.h"
#include "kinematics/answers.h"
#include "kinematics/unit_words.h"
#include "review/assess/number_words.h"
#include "review/record/read_by.h"
#include "review/tell/follow_up.h"
#include "review/tell/plan_rules.h"
#include "review/tell/stops.h"
#include "review/tell/told_number.h"
#include "review/tell/weighing.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <tuple>
#include <utility>

namespace jg {

namespace {

/// "one" to "six"; larger numbers in digits.
Message countWord(std::size_t n) {
    return msg("letter.count", {{"count", n}});
}

/// A time in words, and exactly for whom that says more.
Message timeFor(Audience reader, double seconds) {
    Message words = durationInWords(seconds);
    if (reader == Audience::Young) return words;
    return msg("told.duration", {{"words", words}, {"number", numberInWords(std::abs(seconds), "s")}});
}

/// A target as a family is told it beside a number: of one that reaches below zero the end that the number is
/// near, none that would need a minus sign, and none of "at least 0": the title says that in words.
Target toldTo(Target t, double value) {
    if (t.type == TargetType::Band && t.x < 0 && t.y >= 0 && value >= 0)
        t.type = TargetType::AtMost, t.x = t.y;
    const bool bound = t.type == TargetType::AtLeast || t.type == TargetType::AtMost;
    if (t.x < 0 || (t.type == TargetType::Band && t.y < 0) || (bound && t.x == 0)) t.type = TargetType::Any;
    return t;
}

/// A number in the plain words for its side of zero, and what it is on this body.
Message filledFor(const MeasureDefinition& m, const MeasureRow& measured, bool withTarget, const ReadBy& by) {
    const MeasureRow row = asTold(measured);
    const double value = *row.value.value;
    std::string sentence = value < 0 && !m.plainlyOther.empty() ? m.plainlyOther : m.plainly;
    const double told = m.plainlyOther.empty() ? value : std::abs(value);
    const Target target = toldTo(row.target, value);
    if (!withTarget || target.asksNothing()) sentence = without(sentence, "target");
    if (by.reader == Audience::Young) sentence = without(sentence, "error");
    const bool time = row.value.unit == "s" && told >= 0;
    return joined(
        ListStyle::Sentences,
        {filled(sentence, {{"value", time ? timeFor(by.reader, told) : numberInWords(told, row.value.unit)},
                           {"error", errorInWords(row.value)},
                           {"target", wordsOf(target)}}),
         lengthOnBody(m, row.value, by.heightM)});
}

/// "from the stretch, on the mound, fastball, 62 mph, on target"; what is not known is not said.
Message conditionsInWords(const Conditions& c) {
    std::vector<Message> words;
    if (c.start != Start::Unknown)
        words.push_back(c.start == Start::Stretch ? msg("letter.from-stretch") : msg("letter.from-wind-up"));
    if (c.surface != Surface::Unknown)
        words.push_back(c.surface == Surface::Mound ? msg("letter.on-mound") : msg("letter.on-flat"));
    if (c.pitch != PitchType::Unknown) words.push_back(nameOf(c.pitch));
    if (c.speedMps) words.push_back(speedInWords(*c.speedMps));
    if (c.went != Went::Unknown) words.push_back(nameOf(c.went));
    return joined(ListStyle::Commas, std::move(words));
}

/// Whether it shows in every pitch, for a measure seen in several; empty for one.
Message showsIn(const MeasureRow& row) {
    if (!row.spread || row.spread->judged < 2) return {};
    const auto off = static_cast<std::size_t>(row.spread->offTarget),
               all = static_cast<std::size_t>(row.spread->judged);
    if (off == all) return msg("letter.shows-in-all", {{"all", countWord(all)}});
    if (off == 0) return msg("letter.shows-in-none", {{"all", countWord(all)}});
    return msg("letter.shows-in", {{"off", countWord(off)}, {"all", countWord(all)}});
}

/// The number of a measure in plain words; empty when there is none.
Message numberSentence(const Playbook& playbook, const Assessment& a, const std::string& id,
                       const ReadBy& by) {
    const MeasureRow* row = a.measure(id);
    if (row && !row->value.seen.empty())
        return msg("letter.seen", {{"what", playbook.measure(id)->name},
                                   {"seen", row->value.seen},
                                   {"wanted", wordsOf(row->target)}});
    if (!row || !row->value.value) return {};
    const MeasureDefinition& m = *playbook.measure(id);
    if (*row->value.value < 0 && m.plainlyOther.empty()) return {}; // it has no words below zero
    return joined(ListStyle::Sentences, {filledFor(m, *row, true, by), showsIn(*row)});
}

/// How well a link of causes is borne out by what was found at its other end: 0 = a fault there, 1 = nothing
/// was found out, 2 = ruled out, for what stands there is good.
int doubtOf(const Assessment& a, const Cause& cause, const std::string& id) {
    const SidedRow other = cause.from == id ? cause.consequence() : cause.cause();
    const Judged* j = a.judged(other.row);
    if (!j || j->cannotTell) return 1;
    return j->strength || !meets(a.sided(other.row), other) ? 2 : 0;
}

/// Why a finding matters, or what it comes from: the link of causes that is borne out best. A cause counts as
/// the reason only when it was itself found on this athlete. Nothing when all are ruled out.
std::optional<Cause> reasonFor(const std::vector<Cause>& causes, const Assessment& a,
                               const Approach& approach, const std::string& id) {
    std::optional<Cause> best;
    const SidedRow finding = a.sided(id);
    for (const Cause& cause : causes) {
        if (!meets(finding, cause.cause()) && !meets(finding, cause.consequence())) continue;
        if (!isHeldBy(approach, cause.says)) continue; // a family is told no other school's
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

/// Where no cause is borne out: why the row matters, as the playbook has it.
Message whyItMatters(const Playbook& playbook, const Assessment& a, const std::string& id) {
    if (const GradedItem* item = playbook.item(id)) return asIs(item->parent);
    const SidedRow finding = a.sided(id);
    for (const GradedItem& item : playbook.items) // what looks at the same number, on its side
        if (item.measure == id && meets({id, item.measureSide}, finding) &&
            !(finding.side.empty() && playbook.measure(id)->hasSides()))
            return asIs(item.parent);
    return {};
}

/// Said where the number a correction shows is already where it should be.
Message numberIsGood(const Assessment& a, const std::string& measure) {
    const MeasureRow* row = a.measure(measure);
    return row && row->judgement.verdict == Verdict::Keep ? msg("letter.number-is-good") : Message{};
}

/// An item's cue for a reader.
const std::string& cueOf(const GradedItem& item, std::string_view side, const ReadBy& by) {
    if (const GradedItem::Side* own = item.side(side))
        return by.reader == Audience::Young ? own->young : own->player;
    if (by.reader == Audience::Young && !item.young.empty()) return item.young;
    return by.reader == Audience::Player ? item.player : item.cueFor(by.age);
}

/// How it should feel: an item's cue; of a measure its own for the way it is to go, else that of the item
/// which tells the same. Never what a drill asks for: that stands in the week.
std::string cueFor(const Playbook& playbook, const Assessment& a, const std::string& id, const ReadBy& by) {
    if (const GradedItem* item = playbook.item(id)) return cueOf(*item, a.sided(id).side, by);
    if (const MeasureDefinition* m = playbook.measure(id)) {
        const std::string side = a.sided(id).side;
        const std::string& own = m->kind == MeasureKind::Seen       ? m->feel
                                 : side == kAbove                   ? m->feelDown
                                 : side == kBelow || !m->hasSides() ? m->feelUp
                                                                    : m->feel;
        if (!own.empty()) return own;
        for (const GradedItem& item : playbook.items)
            if (item.measure == id && meets({id, item.measureSide}, {id, side}) &&
                (!m->hasSides() || !side.empty()))
                return cueOf(item, {}, by);
    }
    return {};
}

Message doseInWords(const PlannedDrill& planned, const Drill& drill) {
    if (planned.dose.missing()) return msg("letter.as-agreed");
    const Message dose =
        drill.ball ? msg("letter.throws", {{"dose", wordsOf(planned.dose)}}) : wordsOf(planned.dose);
    return joined(ListStyle::Commas, {dose, drill.ball ? asIs(drill.distance) : Message{}});
}

/// When to go on, and to what.
Message growsTo(const Drill& drill) {
    if (drill.stages.size() < 2) return {};
    return msg("letter.drill-grows", {{"until", drill.stages[0].until}, {"then", drill.stages[1].what}});
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
        row.how =
            joined(ListStyle::Sentences,
                   {asIs(drill->how),
                    drill->minutes > 0 ? msg("letter.minutes", {{"minutes", drill->minutes}}) : Message{},
                    growsTo(*drill),
                    drill->link.empty() ? Message{} : msg("letter.own-film", {{"link", drill->link}}),
                    drill->notFor.empty() ? Message{} : msg("letter.not-for", {{"whom", drill->notFor}})});
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
        if (s.kind == StopKind::Strength && spoken.size() < mostKept(review.plan.corrections.size()))
            spoken.push_back(s.finding);
    return spoken;
}

std::vector<Message> cautionsFor(const Athlete& athlete, bool pain) {
    std::vector<Message> cautions;
    if (pain) cautions.push_back(msg("letter.caution"));
    if (athlete.comingBack) cautions.push_back(msg("letter.coming-back"));
    return cautions;
}

/// What a reader needs beside the letter, and what a child need not read.
void suitReader(Audience reader, const std::string& name, LetterModel& m) {
    if (reader == Audience::Parent) {
        m.foreword = msg("letter.for-parents", {{"name", name}});
    } else if (reader == Audience::Young) {
        m.forGrownUps = std::exchange(m.weekNotes, {});
        m.forGrownUps.push_back(std::exchange(m.closing, msg("letter.closing-young")));
    }
}

using Wordings = std::array<const char*, kWordings>; ///< of one usual sentence

/// "Ludo, two good things and one to work on"; what there is none of is not counted out.
Message greetingFor(const std::string& name, std::size_t good, std::size_t work, unsigned wording) {
    constexpr Wordings kBoth = {"letter.greeting", "letter.greeting.2", "letter.greeting.3"};
    constexpr Wordings kGood = {"letter.greeting-good", "letter.greeting-good.2", "letter.greeting-good.3"};
    constexpr Wordings kWork = {"letter.greeting-work", "letter.greeting-work.2", "letter.greeting-work.3"};
    if (good + work == 0) return asIs(name);
    const Wordings& said = work == 0 ? kGood : good == 0 ? kWork : kBoth;
    return msg(said.at(wording % kWordings), {{"name", name}, {"good", good}, {"work", work}});
}

/// Figures from memory are the coach's affair until they were looked up; a family asks its league.
std::vector<Message> notesFor(const House& house, std::vector<Message> notes) {
    if (house.guidanceConfirmed) return notes;
    const auto fromMemory = [](const Message& note) {
        return note.id.starts_with("guidance.") || note.id == "week.over-guidance";
    };
    const bool any = std::any_of(notes.begin(), notes.end(), fromMemory);
    std::erase_if(notes, fromMemory);
    if (any) notes.push_back(msg("letter.ask-league"));
    return notes;
}

/// Where nothing is to be worked on: that nothing is wrong, or that nothing could be told.
Message summaryOf(const Assessment& a) {
    const auto any = [&](auto&& is) { return std::any_of(a.findings.begin(), a.findings.end(), is); };
    if (any([](const Judged& j) { return !j.strength && !j.cannotTell; })) return {};
    if (any([](const Judged& j) { return j.strength; })) return msg("letter.nothing-wrong");
    return tellsNothing(a) ? msg("letter.nothing-sure") : Message{};
}

/// How many things this film does not show, and the first of them.
Message notSeenIn(const Playbook& playbook, const Assessment& a) {
    constexpr std::size_t kNamed = 2;
    std::vector<std::string> names;
    for (const MeasureRow& m : a.measures)
        if (m.value.state == MeasureState::NotVisible && !(m.byHand && m.judgement.verdict))
            names.push_back(playbook.nameOfFinding(m.id));
    for (const ItemRow& i : a.items)
        if (i.grade && i.grade->state == GradeState::NotVisible)
            names.push_back(playbook.nameOfFinding(i.id));
    if (names.empty()) return {};
    std::vector<Message> some;
    for (std::size_t i = 0; i < std::min(kNamed, names.size()); ++i) some.push_back(asIs(names[i]));
    return msg("letter.not-seen-things",
               {{"count", names.size()}, {"some", joined(ListStyle::Commas, std::move(some))}});
}

const char* praisedAs(TargetType wanted) {
    return wanted == TargetType::AtMost ? "low" : wanted == TargetType::AtLeast ? "high" : "within";
}

/// "Keep it.", in one of its wordings, told apart by the row so that one letter does not say it thrice.
Message keepIt(const std::string& row, const ReadBy& by) {
    constexpr Wordings kSaid = {"letter.keep-it", "letter.keep-it.2", "letter.keep-it.3"};
    return msg(kSaid.at((by.wording + row.size()) % kWordings));
}

/// What is good and what it does, in the playbook's words; the number behind it for who reads numbers.
Message praiseOf(const MeasureDefinition& m, const MeasureRow& row, const ReadBy& by) {
    const auto told =
        m.praise.find(m.kind == MeasureKind::Seen ? row.value.seen : praisedAs(row.target.type));
    if (told == m.praise.end() || (m.kind != MeasureKind::Seen && row.target.asksNothing())) return {};
    const MeasureValue value = asTold(row.value);
    // A part of the height says little by itself.
    const bool number = by.reader != Audience::Young && value.value && *value.value >= 0 && value.unit != "%";
    return joined(ListStyle::Sentences,
                  {asIs(told->second),
                   number ? msg("letter.measured", {{"number", labelOf(value)}}) : Message{},
                   keepIt(m.id, by)});
}

} // namespace

MeasureRow asFamilySees(const MeasureRow& measured) {
    MeasureRow row = asTold(measured);
    if (!row.value.value) return row;
    row.target = toldTo(row.target, *row.value.value);
    if (*row.value.value < 0) {
        std::tie(row.value.low95, row.value.high95) = std::pair(-row.value.high95, -row.value.low95);
        row.value.value = -*row.value.value;
        row.target.type = TargetType::Any; // it lies on the other side
    }
    return row;
}

Message keepLine(const Assessment& a, const Playbook& playbook, const std::string& id, const ReadBy& by) {
    const std::string name = playbook.nameOfFinding(id);
    const MeasureRow* row = a.measure(id);
    if (row)
        if (Message praised = praiseOf(*playbook.measure(id), *row, by); !praised.empty()) return praised;
    if (row && !row->value.seen.empty())
        return msg("letter.keep-seen", {{"what", name}, {"seen", row->value.seen}});
    if (const GradedItem* item = playbook.item(id)) // what is good and what it does, never the fault's text
        return item->praise.empty() ? msg("letter.keep", {{"what", name}})
                                    : joined(ListStyle::Sentences, {asIs(item->praise), keepIt(id, by)});
    if (!row || !row->value.value) return msg("letter.keep", {{"what", name}});
    const Target target = toldTo(asTold(row->target), *row->value.value);
    const MeasureDefinition& m = *playbook.measure(id);
    if (*row->value.value < 0 && m.plainlyOther.empty()) return msg("letter.keep", {{"what", name}});
    if (!m.plainly.empty())
        return joined(ListStyle::Sentences,
                      {filledFor(m, *row, false, by),
                       target.asksNothing() ? keepIt(id, by)
                                            : msg("letter.keep-inside", {{"target", wordsOf(target)}})});
    const MeasureValue told = asTold(row->value);
    return msg("letter.keep-number", {{"what", name}, {"number", numberInWords(*told.value, told.unit)}});
}

std::string toldMeasure(const Playbook& playbook, const Assessment& a, const std::string& id) {
    const auto tells = [&](const std::string& measure) {
        return !joined(ListStyle::Sentences,
                       {numberSentence(playbook, a, measure, {}), numberIsGood(a, measure)})
                    .empty();
    };
    if (tells(id)) return id;
    // The number behind a look, when it does not say the opposite; never that of something else.
    const GradedItem* item = playbook.item(id);
    const auto fits = [&](const SidedRow& number) {
        return number.side.empty() || meets(number, {item->measure, item->measureSide});
    };
    if (item && tells(item->measure) && fits(a.sided(item->measure))) return item->measure;
    return id;
}

namespace {

/// Of what the judging's school holds, in words for parents.
Message weighingFor(const Review& review, const Playbook& playbook, const Assessment& a,
                    const std::string& id) {
    for (const Weighed& w : weighedIn(review, playbook, a))
        if (w.sign == id) return weighingInWords(playbook, a, heldBy(review.approach(), w));
    return {};
}

} // namespace

namespace {

/// The line of a number as a family is shown it: nothing below zero, neither the number nor its target.
std::optional<NumberLine> lineToldOf(const MeasureRow& row) {
    MeasureRow told = asTold(row);
    if (!told.value.value || *told.value.value < 0) return std::nullopt;
    if (told.target.x < 0) told.target = toldTo(told.target, *told.value.value);
    return numberLineOf(told);
}

} // namespace

LetterCorrection correctionOf(const Review& review, const Playbook& playbook, const Assessment& a,
                              const std::string& id, const ReadBy& by) {
    LetterCorrection c;
    c.finding = id;
    c.title = asIs(goalOf(playbook, a, id));
    const std::string told = toldMeasure(playbook, a, id);
    const GradedItem* item = playbook.item(id);
    const bool same = told == id || (item && item->measure == told);
    const MeasureRow* own = a.measure(id);
    const bool byEye = own && own->byHand && own->value.state == MeasureState::NotVisible;
    c.number = joined(ListStyle::Sentences,
                      {numberSentence(playbook, a, told, by), same ? numberIsGood(a, told) : Message{},
                       byEye ? msg("letter.by-eye") : Message{}});
    if (const MeasureRow* row = c.number.empty() ? nullptr : a.measure(told)) c.line = lineToldOf(*row);
    const auto causes = causesFor(playbook, review.plan.causes);
    if (const auto reason = reasonFor(causes, a, review.approach(), id))
        c.why = reasonInWords(*reason);
    else
        c.why = whyItMatters(playbook, a, id);
    if (by.reader == Audience::Parent) c.weighed = weighingFor(review, playbook, a, id);
    if (const auto size = review.plan.sizes.find(id);
        size != review.plan.sizes.end() && size->second != FindingSize::Style)
        c.size = msg("letter-size." + std::string(idOf(size->second)));
    if (const WhyNot* whyNot = review.plan.whyNotOf(id))
        if (const auto need = needOf(playbook, *whyNot))
            c.need = msg("letter-need." + std::string(idOf(*need)));
    c.feel = asIs(cueFor(playbook, a, id, by));
    if (const auto at = playbook.shownAt(id))
        c.caption = msg("letter.caption", {{"position", info(*at).name()}});
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

void tellSince(LetterModel& m, const Playbook& playbook, const std::string& name, Date when,
               const std::vector<FindingSince>& followed) {
    for (const FindingSince& f : followed) {
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
    const ReadBy by = readBy(review, athlete);
    LetterModel m;
    m.from = house.place;
    m.mark = house.mark;
    m.about = joined(ListStyle::Dots, {msg("letter.film-of", {{"date", submission.received}}),
                                       conditionsInWords(review.deliveryOr(review.leading()).conditions)});
    for (const std::string& id : keptIn(review))
        if (playbook.isFinding(id)) {
            m.keeps.push_back(keepLine(a, playbook, id, by));
            m.kept.push_back(id);
        }
    for (const std::string& id : review.plan.corrections)
        if (playbook.isFinding(id)) m.corrections.push_back(correctionOf(review, playbook, a, id, by));
    m.greeting = greetingFor(athlete.firstName, m.keeps.size(), m.corrections.size(), by.wording);
    for (const auto& [id, size] : review.plan.sizes)
        if (isStyle(review.plan, a, id) && playbook.isFinding(id) && !isAmong(m.kept, id) &&
            !isAmong(review.plan.corrections, id)) {
            m.keeps.push_back(msg("letter.style", {{"what", playbook.nameOfFinding(id)}}));
            m.kept.push_back(id);
        }
    m.opening = review.plan.opening;
    if (m.corrections.empty()) m.summary = summaryOf(a);
    m.cautions = cautionsFor(athlete, pain);
    const WeekPlan week =
        layOutWeek(playbook, review.plan.drills,
                   gatesFor(review.plan, a, athlete, submission, review.date, painElsewhere));
    m.week = weekRows(playbook, week, review.plan.drills);
    m.weekNotes = notesFor(house, week.notes);
    // Nobody is asked for pitches on a day before a doctor has said that they may throw.
    const bool rests = pain || (athlete.comingBack && !athlete.comingBack->planSeen);
    m.nextLook =
        rests ? msg("letter.next-look-cleared")
              : joined(ListStyle::Sentences,
                       {review.plan.nextLook ? msg("letter.next-look", {{"date", *review.plan.nextLook}})
                                             : Message{},
                        asIs(review.plan.ask)});
    m.writtenOn = review.date;
    if (!rests) m.nextLookOn = review.plan.nextLook;
    if (Message hidden = notSeenIn(playbook, a); !hidden.empty()) m.notSeen = {std::move(hidden)};
    m.closing = msg("letter.closing");
    m.signature = house.coach;
    suitReader(by.reader, athlete.firstName, m);
    return m;
}

std::vector<Message> readersSentences(const LetterModel& letter) {
    std::vector<Message> all = {letter.greeting, asIs(letter.opening), letter.summary};
    all.insert(all.end(), letter.since.begin(), letter.since.end());
    all.insert(all.end(), letter.keeps.begin(), letter.keeps.end());
    for (const LetterCorrection& c : letter.corrections)
        for (const Message* m : {&c.title, &c.number, &c.why, &c.weighed, &c.size, &c.feel, &c.need})
            all.push_back(*m);
    for (const LetterThen& t : letter.thens) all.insert(all.end(), t.changes.begin(), t.changes.end());
    for (const LetterWeekRow& row : letter.week) all.push_back(row.how);
    all.push_back(letter.closing);
    std::erase_if(all, [](const Message& m) { return m.empty() || m == asIs(std::string()); });
    return all;
}

} // namespace jg
