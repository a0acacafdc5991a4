// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/bench/measure_words.h"

#include "review/assess/ghost.h"
#include "review/assess/guide.h"
#include "review/assess/number_words.h"
#include "review/record/deliveries.h"
#include "review/record/tried.h"
#include "review/tell/letter_model.h"
#include "ui/bench/measure_questions.h"
#include "ui/forms/verdict_look.h"
#include "ui/kit/theme.h"

namespace jg::ui {

QString valueText(const MeasureValue& v) {
    if (!v.words.empty()) return say(v.words);
    if (!v.value)
        return v.state == MeasureState::NotVisible || v.state == MeasureState::NotApplicable ? "\u2013" : "";
    return say(numberInWords(*v.value, v.unit));
}

QString groupName(std::string_view id) {
    const Message name = nameOfGroup(id);
    return name.empty() ? QString() : say("measure-words.also", {{"group", name}});
}

QString waitsFor(const MeasureDefinition& m, const DeliveryMarks& delivery) {
    if (m.kind == MeasureKind::Seen) return say("measure-words.u-say-what-is-seen");
    if (const auto open = openMoments(m, delivery); !open.empty())
        return say("measure-words.u-position", {{"position", info(open.front()).name()}});
    return m.numbers.empty() ? QString() : say("measure-words.u-enter-a-number");
}

ListRow listRowOf(const MeasureDefinition& m, const MeasureRow& r, const DeliveryMarks& delivery) {
    ListRow row;
    row.title = text(m.shortName);
    row.sub = r.target.type == TargetType::Record ? say("verdict.recorded") : say(wordsOf(r.target));
    // An answer is longer than a number: it stands below the name.
    if (!r.value.seen.empty())
        row.sub = text(r.value.seen);
    else
        row.value = valueText(r.value);
    if (r.value.value) row.error = say("measure-bench.error", {{"error", errorInWords(r.value)}});
    if (r.value.state == MeasureState::NotLookedAt && !m.hasPoints()) row.sub = waitsFor(m, delivery);
    row.look = lookOf(r.judgement);
    return row;
}

QString whatNext(const ReviewSession& session) {
    const auto& clips = session.submission().clips;
    const auto open = openElsewhere(session.review(), session.inHand(), session.playbook(), clips);
    if (!open) return say("measure-words.then-on-to-judging");
    return say(
        "measure-words.still-asks",
        {{"delivery", nameOf(*session.review().delivery(open->first), clips)}, {"count", open->second}});
}

namespace {

/// How far it leaned when it was tried, and the angle in space where it differs, or that nobody tried the
/// error; how often it held stands on the coach's sheet.
Message ofTrial(const ReviewSession& session, const MeasureRow& row, const MeasureDefinition& m) {
    const DeliveryMarks* d = row.value.value ? session.review().delivery(row.delivery) : nullptr;
    if (!d) return {};
    const double fps = filmOf(*d, session.submission().clips).captureFps;
    const Trial* trial = trialOf(session.playbook(), row.id, *d, fps);
    if (!trial) return triedInWords(session.playbook(), m, *d, fps);
    if (!trial->keepsItsPromise()) return {}; // it says so itself
    return leanInShort(*trial);
}

} // namespace

QString noteOn(const ReviewSession& session, const PathTools& paths, const MeasureRow& row) {
    QStringList parts;
    for (const auto& w : row.value.warnings) parts << say(w);
    parts << say(row.value.reason);
    if (row.spread) parts << say(pitchesInWords(*row.spread, row.deliveries));
    if (row.judgement.text != row.value.reason) parts << say(row.judgement.text);
    const MeasureDefinition* m = session.playbook().measure(row.id);
    parts << say(ofTrial(session, row, *m));
    if (row.value.state == MeasureState::NotLookedAt && !m->hasPoints())
        for (const Moment moment : openMoments(*m, session.delivery()))
            parts << say("measure-words.how-go-there-and-press-u", {{"how", info(moment).how()}});
    if (const auto suggested = paths.suggestion(m))
        parts << say("measure-words.path-frame",
                     {{"frame", suggested->second.frame}, {"suggested", info(suggested->first).name()}});
    if (const auto said = sayingFromPaths(session.delivery(), session.clip(), row.id))
        parts << say("measure-words.the-path-says-option-why-u",
                     {{"option", said->option}, {"why", said->why}});
    if (const auto ghost =
            ghostOf(session.delivery(), session.playbook(), row, session.clip(), session.athlete().hand))
        parts << (ghost->byHand ? say("measure-words.goal-by-hand")
                                : say("measure-words.to-the-goal-ghost", {{"ghost", ghost->words}}));
    else if (ghost.error().code == ErrorCode::NotFound)
        parts << say(ghost.error().text);
    if (!m->unreliable.empty())
        parts << say("measure-words.less-sure-with-unreliable", {{"unreliable", m->unreliable}});
    parts.removeAll(QString());
    return parts.join(' ');
}

} // namespace jg::ui
