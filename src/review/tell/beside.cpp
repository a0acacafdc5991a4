// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/tell/beside.h"

#include "review/assess/number_words.h"
#include "review/tell/told_number.h"

#include <algorithm>
#include <cstdlib>

namespace jg {

namespace {

/// The position on a frame of a delivery that is set on the other, too.
std::optional<Moment> momentOn(const DeliveryMarks& own, std::int64_t frame, const DeliveryMarks& other) {
    for (const MomentInfo& m : keyPositions())
        if (own.frameOf(m.moment) == frame && other.frameOf(m.moment)) return m.moment;
    return std::nullopt;
}

std::optional<Moment> nearestShared(const DeliveryMarks& own, std::int64_t frame,
                                    const DeliveryMarks& other) {
    std::optional<Moment> best;
    for (const MomentInfo& m : keyPositions()) {
        const auto at = own.frameOf(m.moment);
        if (!at || !other.frameOf(m.moment)) continue;
        if (!best || std::abs(*at - frame) < std::abs(*own.frameOf(*best) - frame)) best = m.moment;
    }
    return best;
}

bool isAt(const MeasureDefinition& m, const DeliveryMarks& marks, std::int64_t frame) {
    return !m.moments.empty() && marks.frameOf(m.moments.back()) == frame;
}

} // namespace

std::optional<Beside> besideAt(const DeliveryMarks& own, std::int64_t frame, const JuxtaEntry& other) {
    auto moment = momentOn(own, frame, other.marks);
    if (!moment) moment = nearestShared(own, frame, other.marks);
    if (!moment) return std::nullopt;
    return Beside{other.key.review, other.marks.number, *other.marks.frameOf(*moment), *own.frameOf(*moment)};
}

std::string picturedMeasure(const Playbook& playbook, const Assessment& a, const std::string& finding) {
    const std::string told = toldMeasure(playbook, a, finding);
    const MeasureRow* row = a.measure(told);
    return row && row->value.value ? told : finding;
}

std::vector<JuxtaChange> besideChanges(const Stop& stop, const ThenAndNow& both, const Playbook& playbook,
                                       const std::set<std::string>& overruled) {
    const auto& [then, now] = both;
    std::vector<JuxtaChange> changes;
    const auto compare = [&, &then = then, &now = now](const std::string& id) {
        if (auto change = compareMeasure(then, now, id, overruled.contains(id)))
            changes.push_back(std::move(*change));
    };
    const std::string told = picturedMeasure(playbook, now.results, stop.finding);
    if (playbook.measure(told)) {
        compare(told);
        return changes;
    }
    if (!stop.beside) return changes;
    for (const MeasureRow& r : now.results.measures)
        if (const MeasureDefinition* m = playbook.measure(r.id); m && isAt(*m, now.marks, stop.beside->with))
            compare(r.id);
    std::stable_partition(changes.begin(), changes.end(),
                          [](const JuxtaChange& c) { return c.trend && isReal(*c.trend); });
    return changes;
}

namespace {

/// Two deliveries that only their numbers tell apart.
bool sameDay(const JuxtaEntry& then, const JuxtaEntry& now) {
    return then.when == now.when;
}

} // namespace

Message thenCaption(const JuxtaEntry& then, const JuxtaEntry& now) {
    if (!then.baseline.empty()) return asIs(then.baseline);
    if (sameDay(then, now)) return msg("beside.delivery", {{"number", then.marks.number}});
    return day(then.when, then.when.year() == now.when.year() ? DateStyle::Day : DateStyle::Year);
}

Message nowCaption(const JuxtaEntry& then, const JuxtaEntry& now) {
    if (sameDay(then, now)) return msg("beside.delivery", {{"number", now.marks.number}});
    return day(now.when, DateStyle::Day);
}

namespace {

Message changeInWords(const JuxtaChange& change, const Playbook& playbook, const Message& when) {
    const MeasureDefinition* m = playbook.measure(change.measure);
    const Message what = m ? asIs(m->name) : asIs(change.measure);
    if (!change.trend) return msg("beside.not-comparable", {{"what", what}, {"why", change.notComparable}});
    const char* id = nullptr;
    switch (*change.trend) {
    case Trend::Better:
        id = "beside.better";
        break;
    case Trend::Worse:
        id = "beside.worse";
        break;
    case Trend::Changed:
        id = "beside.changed";
        break;
    case Trend::InsideError:
        id = "beside.inside-error";
        break;
    case Trend::InsideSpread:
        id = "beside.inside-spread";
        break;
    }
    const MeasureValue before = asTold(*change.values.front()), after = asTold(*change.values.back());
    return msg(id, {{"what", what},
                    {"when", when},
                    {"then", numberInWords(*before.value, before.unit)},
                    {"now", numberInWords(*after.value, after.unit)}});
}

} // namespace

std::vector<Message> changesInWords(const std::vector<JuxtaChange>& changes, const Playbook& playbook,
                                    const Message& when, std::size_t most) {
    std::vector<Message> all;
    for (const JuxtaChange& c : changes)
        if (all.size() < most) all.push_back(changeInWords(c, playbook, when));
    if (all.empty()) all.push_back(msg("beside.no-numbers"));
    return all;
}

namespace {

/// The step of an item on a delivery; nothing where it was not graded.
std::optional<int> stepOf(const JuxtaEntry& e, const std::string& item) {
    for (const ItemRow& row : e.results.items)
        if (row.id == item && row.grade && row.grade->state == GradeState::Graded) return row.grade->step;
    return std::nullopt;
}

} // namespace

std::vector<Message> toldChanges(const Stop& stop, const ThenAndNow& both,
                                 const std::vector<JuxtaChange>& changes, const Playbook& playbook,
                                 std::size_t most) {
    const Message when = thenCaption(both.then, both.now);
    const auto then = stepOf(both.then, stop.finding), now = stepOf(both.now, stop.finding);
    if (!then || !now) return changesInWords(changes, playbook, when, most);
    std::vector<Message> all;
    if (!changes.empty()) all = changesInWords(changes, playbook, when, most);
    all.insert(all.begin(), msg("beside.grade", {{"what", playbook.nameOfFinding(stop.finding)},
                                                 {"when", when},
                                                 {"then", *then},
                                                 {"now", *now}}));
    return all;
}

void tellBeside(LetterModel& letter, const Playbook& playbook, const Stop& stop, const ThenAndNow& both,
                const std::set<std::string>& overruled) {
    constexpr std::size_t kMostNumbers = 2;
    if (!stop.beside || letter.thens.size() >= kMostThens) return;
    LetterThen told;
    told.stop = stop.id;
    told.title =
        msg("letter.then-title",
            {{"what", playbook.isFinding(stop.finding) ? playbook.nameOfFinding(stop.finding) : stop.title}});
    told.then = thenCaption(both.then, both.now);
    told.now = nowCaption(both.then, both.now);
    told.changes =
        toldChanges(stop, both, besideChanges(stop, both, playbook, overruled), playbook, kMostNumbers);
    told.delivery = stop.delivery;
    told.frame = stop.beside->with;
    told.thenFrame = stop.beside->frame;
    letter.thens.push_back(std::move(told));
}

Message changeInShort(const std::vector<JuxtaChange>& changes, const Playbook& playbook,
                      const Message& when) {
    if (changes.empty() || !changes.front().trend) return {};
    const JuxtaChange& c = changes.front();
    const MeasureDefinition* m = playbook.measure(c.measure);
    const MeasureValue before = asTold(*c.values.front()), after = asTold(*c.values.back());
    const char* became = !isReal(*c.trend)           ? "beside.no-sure-change"
                         : *c.trend == Trend::Better ? "beside.really-better"
                         : *c.trend == Trend::Worse  ? "beside.really-worse"
                                                     : "beside.really-changed";
    return msg("beside.short", {{"what", m ? m->shortName : c.measure},
                                {"when", when},
                                {"then", numberInWords(*before.value, before.unit)},
                                {"now", numberInWords(*after.value, after.unit)},
                                {"became", msg(became)}});
}

} // namespace jg
