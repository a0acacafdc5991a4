#include "ui/review/measure_words.h"

#include "review/deliveries.h"
#include "review/ghost.h"
#include "review/guide.h"
#include "review/letter_model.h"
#include "ui/review/measure_questions.h"
#include "ui/theme.h"

namespace jg::ui {

QString valueText(const MeasureValue& v) {
    if (!v.words.empty()) return QString::fromStdString(v.words);
    if (!v.value)
        return v.state == MeasureState::NotVisible || v.state == MeasureState::NotApplicable ? "\u2013" : "";
    return QString::fromStdString(numberInWords(*v.value, v.unit));
}

QString groupName(std::string_view id) {
    for (const MeasureGroup& g : measureGroups())
        if (g.id == id) return "Also measured \u00b7 " + text(g.name).toLower();
    return {};
}

QString waitsFor(const MeasureDefinition& m, const DeliveryMarks& delivery) {
    if (m.kind == MeasureKind::Seen) return "U: say what is seen";
    if (const auto open = openMoments(m, delivery); !open.empty())
        return "U: " + text(info(open.front()).name).toLower();
    return m.numbers.empty() ? QString() : QString("U: enter a number");
}

QString whatNext(const ReviewSession& session) {
    const auto& clips = session.submission().clips;
    const auto open = openElsewhere(session.review(), session.inHand(), session.playbook(), clips);
    if (!open) return "Then on to judging.";
    return QString("N: %1 still asks for %2 %3.")
        .arg(text(nameOf(*session.review().delivery(open->first), clips)))
        .arg(open->second)
        .arg(open->second == 1 ? "point" : "points");
}

QString noteOn(const ReviewSession& session, const PathTools& paths, const MeasureRow& row) {
    QStringList parts;
    for (const auto& w : row.value.warnings) parts << QString::fromStdString(w);
    parts << QString::fromStdString(row.value.reason);
    if (row.spread) parts << text(pitchesInWords(*row.spread, row.deliveries));
    if (row.judgement.text != row.value.reason) parts << QString::fromStdString(row.judgement.text);
    const MeasureDefinition* m = session.playbook().measure(row.id);
    if (row.value.state == MeasureState::NotLookedAt && !m->hasPoints())
        for (const Moment moment : openMoments(*m, session.delivery()))
            parts << text(info(moment).how) + " Go there and press U.";
    if (const auto suggested = paths.suggestion(m))
        parts << QString("The path says frame %1 for: %2. J goes there.")
                     .arg(suggested->second.frame)
                     .arg(text(info(suggested->first).name));
    if (const auto said = sayingFromPaths(session.delivery(), session.clip(), row.id))
        parts << QString("The path says \u201c%1\u201d: %2. U says so.")
                     .arg(text(said->option), text(said->why));
    if (const auto ghost =
            ghostOf(session.delivery(), session.playbook(), row, session.clip(), session.athlete().hand))
        parts << "To the goal: " + QString::fromStdString(ghost->words);
    else if (ghost.error().code == ErrorCode::NotFound)
        parts << QString::fromStdString(ghost.error().text);
    if (!m->unreliable.empty()) parts << "Less sure with: " + QString::fromStdString(m->unreliable) + ".";
    parts.removeAll(QString());
    return parts.join(' ');
}

} // namespace jg::ui
