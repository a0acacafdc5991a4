// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/forms/row_editors.h"

#include "kinematics/answers.h"
#include "ui/kit/form_dialog.h"
#include "ui/kit/theme.h"

#include <QCheckBox>
#include <QComboBox>
#include <QLineEdit>
#include <QPlainTextEdit>
#include <QSpinBox>

#include <algorithm>

namespace jg::ui {

namespace {

std::string wordsIn(const QLineEdit* field) {
    return field->text().trimmed().toStdString();
}
std::string wordsIn(const QPlainTextEdit* field) {
    return field->toPlainText().trimmed().toStdString();
}

std::vector<std::string> tickedOf(const std::vector<QCheckBox*>& boxes) {
    std::vector<std::string> on;
    for (const QCheckBox* box : boxes)
        if (box->isChecked()) on.push_back(box->objectName().toStdString());
    return on;
}

/// A row's form with its doors; `read` gives the row as the fields have it.
struct RowForm {
    FormDialog* dialog;
    RowHome home;
    std::string key;
    RowKept then;

    void openWith(std::function<PlaybookRow()> read) {
        dialog->openWith([f = *this, read = std::move(read)]() -> std::optional<QString> {
            const auto kept =
                keepRow(f.home.library, f.home.playbook, read(), f.key, f.home.today, f.home.ids);
            if (!kept) return say(kept.error().text);
            // Once the form is gone: the page it stands on is made again.
            QObject::connect(f.dialog, &QDialog::accepted, f.dialog->parent(),
                             [then = f.then, key = *kept] { then(Done{}, key); });
            return std::nullopt;
        });
    }
};

/// The form of a row that is known or new; a row of the coach's own can be taken away again.
RowForm formOf(QWidget* parent, const RowHome& home, const PlaybookRow& row, const QString& title, bool isNew,
               const RowKept& then) {
    auto* dialog = new FormDialog(parent, "edit-row", title,
                                  say(isNew ? "row-editors.new" : "row-editors.next-edition"));
    RowForm form{dialog, home, {}, then};
    if (isNew) return form;
    const auto own = ownRows(home.library);
    if (!own) return form;
    form.key = keptKeyOf(*own, row);
    const bool changed =
        std::any_of(own->begin(), own->end(), [&](const RowEdition& e) { return e.key == form.key; });
    if (!changed) return form;
    const bool shipped = isShipped(home.playbook, form.key);
    dialog->door("take-away", say(shipped ? "row-editors.as-it-came" : "row-editors.remove"),
                 [home, key = form.key, then] { then(removeRow(home.library, home.playbook, key), {}); });
    return form;
}

QStringList namesOf(std::span<const MomentInfo> moments) {
    QStringList names;
    for (const MomentInfo& m : moments) names << say(m.name());
    return names;
}

constexpr std::string_view kBodyGroups[] = {"lower", "trunk", "arm"};
constexpr View kViews[] = {View::Open, View::Closed, View::Front, View::Rear};

void editItem(RowForm form, const GradedItem& item) {
    FormDialog& d = *form.dialog;
    auto* name = d.line("item-name", say("row-editors.good-name"), text(item.name));
    auto* fault = d.line("item-fault", say("row-editors.fault-name"), text(item.fault));
    auto* goal = d.line("item-goal", say("row-editors.goal-name"), text(item.goal));
    QStringList groups;
    int group = 0, position = static_cast<int>(item.position);
    for (std::size_t i = 0; i < std::size(kBodyGroups); ++i) {
        groups << say(msg("group." + std::string(kBodyGroups[i])));
        if (item.group == kBodyGroups[i]) group = static_cast<int>(i);
    }
    auto* groupBox = d.choice("item-group", say("row-editors.group"), groups, group);
    auto* at = d.choice("item-position", say("row-editors.position"), namesOf(allMoments()), position);
    std::vector<Tickable> views;
    for (const View v : kViews) views.push_back({std::string(idOf(v)), say(nameOf(v)), item.seenFrom(v)});
    const auto seen = d.ticks("item-views", say("row-editors.seen-from"), views);
    auto* coach = d.words("item-coach", say("row-editors.for-the-coach"), text(item.coach));
    auto* young = d.words("item-young", say("row-editors.for-the-young"), text(item.young));
    auto* player = d.words("item-player", say("row-editors.for-players"), text(item.player));
    auto* parent = d.words("item-parent", say("row-editors.for-parents"), text(item.parent));
    QStringList measures{say("row-editors.no-measure")};
    std::vector<std::string> ids{""};
    for (const MeasureDefinition& m : form.home.playbook.measures) {
        measures << text(m.name);
        ids.push_back(m.id);
    }
    const auto behind = std::find(ids.begin(), ids.end(), item.measure) - ids.begin();
    auto* measure =
        d.choice("item-measure", say("row-editors.number-behind"), measures, static_cast<int>(behind));
    auto* arm = d.tick("item-arm", say("row-editors.protects-the-arm"), item.protectsArm);
    auto* praise = d.words("item-praise", say("row-editors.praise"), text(item.praise));
    form.openWith([=, was = item]() -> PlaybookRow {
        GradedItem i;
        i.id = was.id;
        i.sides = was.sides;
        i.praise = wordsIn(praise);
        i.name = wordsIn(name), i.fault = wordsIn(fault), i.goal = wordsIn(goal);
        i.group = kBodyGroups[static_cast<std::size_t>(groupBox->currentIndex())];
        i.position = allMoments()[static_cast<std::size_t>(at->currentIndex())].moment;
        for (const std::string& v : tickedOf(seen)) i.views.push_back(*viewFromId(v));
        i.coach = wordsIn(coach), i.young = wordsIn(young), i.player = wordsIn(player);
        i.parent = wordsIn(parent);
        i.measure = ids[static_cast<std::size_t>(measure->currentIndex())];
        if (i.measure == was.measure) i.measureSide = was.measureSide;
        i.protectsArm = arm->isChecked();
        return i;
    });
}

/// What a side asks for, in the playbook's words.
std::string sideName(const Playbook& p, const SidedRow& finding) {
    if (const GradedItem* i = p.item(finding.row))
        if (const GradedItem::Side* side = i->side(finding.side)) return side->fault;
    const MeasureDefinition* m = p.measure(finding.row);
    return !m ? std::string() : finding.side == kBelow ? m->goalUp : m->goalDown;
}

/// Every finding by name, with its id; one that can be off two ways by each side. One without a side is
/// listed where it is on: a row that was written before there were any.
std::vector<Tickable> findingsOf(const Playbook& p, const std::vector<std::string>& on) {
    std::vector<Tickable> all;
    const auto add = [&](const std::string& id, const std::string& name) {
        const auto sides = p.sidesOf(id);
        if (sides.empty() || isAmong(on, id)) all.push_back({id, text(name), isAmong(on, id)});
        for (const std::string& side : sides) {
            const std::string sided = textOf({id, side});
            all.push_back({sided,
                           say("row-editors.side", {{"name", name}, {"side", sideName(p, {id, side})}}),
                           isAmong(on, sided)});
        }
    };
    for (const MeasureDefinition& m : p.measures) add(m.id, m.name);
    for (const GradedItem& i : p.items) add(i.id, i.name);
    std::sort(all.begin(), all.end(),
              [](const Tickable& a, const Tickable& b) { return a.name.localeAwareCompare(b.name) < 0; });
    return all;
}

constexpr const char* kEffects[] = {"velocity", "timing",    "control",
                                    "arm load", "direction", "repeatability"};

void editCause(RowForm form, const Cause& cause) {
    FormDialog& d = *form.dialog;
    const std::string causeText = textOf(cause.cause()), effectText = textOf(cause.consequence());
    const auto findings = findingsOf(form.home.playbook, {causeText, effectText});
    QStringList names;
    int from = 0, to = 0;
    for (std::size_t i = 0; i < findings.size(); ++i) {
        names << findings[i].name;
        if (findings[i].id == causeText) from = static_cast<int>(i);
        if (findings[i].id == effectText) to = static_cast<int>(i);
    }
    auto* fromBox = d.choice("cause-from", say("row-editors.cause-from"), names, from);
    auto* toBox = d.choice("cause-to", say("row-editors.cause-to"), names, to);
    auto* says = d.line("cause-says", say("row-editors.whose-opinion"), text(cause.says));
    QStringList effects;
    int effect = 0;
    for (std::size_t i = 0; i < std::size(kEffects); ++i) {
        effects << say(msg("row-editors.effect", {{"effect", std::string(kEffects[i])}}));
        if (cause.effect == kEffects[i]) effect = static_cast<int>(i);
    }
    auto* effectBox = d.choice("cause-effect", say("row-editors.what-it-acts-on"), effects, effect);
    auto* why = d.words("cause-why", say("row-editors.why"), text(cause.why));
    form.openWith([=]() -> PlaybookRow {
        const auto chosen = [&](const QComboBox* box) {
            return sidedRowFrom(findings[static_cast<std::size_t>(box->currentIndex())].id);
        };
        const SidedRow one = chosen(fromBox), other = chosen(toBox);
        return Cause{one.row,       other.row,
                     wordsIn(says), kEffects[static_cast<std::size_t>(effectBox->currentIndex())],
                     wordsIn(why),  one.side,
                     other.side};
    });
}

constexpr const char* kNeeds[] = {"teach", "reach", "hold", "speed"};
constexpr const char* kLoads[] = {"none", "low", "medium", "high"};

constexpr const char* kUntil = " > "; ///< between what is done and what must be seen before the next

QString stagesInWords(const std::vector<DrillStage>& stages) {
    QStringList lines;
    for (const DrillStage& s : stages) lines << text(s.what) + kUntil + text(s.until);
    return lines.join('\n');
}

/// A line each; what is not said stays empty.
std::vector<DrillStage> stagesFrom(const QString& words) {
    std::vector<DrillStage> stages;
    for (const QString& line : words.split('\n', Qt::SkipEmptyParts)) {
        const auto at = line.indexOf('>');
        stages.push_back({line.left(at).trimmed().toStdString(),
                          at < 0 ? std::string() : line.mid(at + 1).trimmed().toStdString()});
    }
    return stages;
}

void editDrill(RowForm form, const Drill& drill) {
    FormDialog& d = *form.dialog;
    auto* name = d.line("drill-name", say("row-editors.drill-name"), text(drill.name));
    auto* how = d.words("drill-how", say("row-editors.how"), text(drill.how));
    auto* sets = d.number("drill-sets", say("row-editors.sets"), drill.dose.sets, 0, 20);
    auto* reps = d.number("drill-reps", say("row-editors.repetitions"), drill.dose.reps, 0, 100);
    auto* days = d.number("drill-days", say("row-editors.days-a-week"), drill.dose.days, 0, 7);
    auto* body =
        d.choice("drill-body", say("row-editors.group"),
                 {say(msg("group.lower")), say("row-editors.upper-body")}, drill.body == "upper" ? 1 : 0);
    std::vector<Tickable> needs;
    for (const char* need : kNeeds)
        needs.push_back({need, say(msg("row-editors.need", {{"need", need}})), isAmong(drill.needs, need)});
    const auto needed = d.ticks("drill-needs", say("row-editors.helps-who"), needs);
    const auto serves =
        d.list("drill-serves", say("row-editors.serves"), findingsOf(form.home.playbook, drill.serves));
    auto* equipment = d.line("drill-equipment", say("row-editors.equipment"), text(drill.equipment));
    auto* distance = d.line("drill-distance", say("row-editors.distance"), text(drill.distance));
    auto* ball = d.tick("drill-ball", say("row-editors.throws-a-ball"), drill.ball);
    auto* throwing = d.tick("drill-throwing", say("row-editors.throwing-motion"), drill.throwing);
    QStringList loads;
    int load = 0;
    for (std::size_t i = 0; i < std::size(kLoads); ++i) {
        loads << say(msg("row-editors.arm-load", {{"load", kLoads[i]}}));
        if (drill.armLoad == kLoads[i]) load = static_cast<int>(i);
    }
    auto* loadBox = d.choice("drill-load", say("row-editors.load-of-the-arm"), loads, load);
    auto* age = d.number("drill-age", say("row-editors.from-age"), drill.ageFrom, 0, 99);
    auto* notFor = d.line("drill-not-for", say("row-editors.not-for"), text(drill.notFor));
    auto* minutes = d.number("drill-minutes", say("row-editors.minutes"), drill.minutes, 0, 120);
    auto* stages = d.words("drill-stages", say("row-editors.stages"), stagesInWords(drill.stages));
    auto* link = d.line("drill-link", say("row-editors.link"), QString::fromStdString(drill.link),
                        say("row-editors.link-hint"));
    auto* look = d.number("drill-look", say("row-editors.look-again-days"), drill.lookAgainDays, 1, 365);
    form.openWith([=, id = drill.id, supports = drill.supports, against = drill.against]() -> PlaybookRow {
        Drill r;
        r.id = id;
        r.supports = supports;
        r.against = against;
        r.name = wordsIn(name), r.how = wordsIn(how);
        r.dose = {sets->value(), reps->value(), days->value()};
        r.body = body->currentIndex() == 1 ? "upper" : "lower";
        r.needs = tickedOf(needed);
        r.serves = serves();
        r.equipment = wordsIn(equipment).empty() ? "none" : wordsIn(equipment);
        r.distance = wordsIn(distance);
        r.ball = ball->isChecked();
        r.throwing = r.ball || throwing->isChecked();
        r.armLoad = kLoads[static_cast<std::size_t>(loadBox->currentIndex())];
        r.ageFrom = age->value();
        r.notFor = wordsIn(notFor);
        r.link = link->text().trimmed().toStdString();
        r.lookAgainDays = look->value();
        r.minutes = minutes->value();
        r.stages = stagesFrom(stages->toPlainText());
        return r;
    });
}

} // namespace

void editRow(QWidget* parent, const RowHome& home, const PlaybookRow& row, const RowKept& then) {
    if (const auto* item = std::get_if<GradedItem>(&row)) {
        const bool isNew = item->id.empty();
        editItem(
            formOf(parent, home, row, isNew ? say("row-editors.new-item") : text(item->name), isNew, then),
            *item);
    } else if (const auto* cause = std::get_if<Cause>(&row)) {
        const bool isNew = cause->from.empty();
        editCause(formOf(parent, home, row, say(isNew ? "row-editors.new-cause" : "row-editors.a-cause"),
                         isNew, then),
                  *cause);
    } else if (const auto* drill = std::get_if<Drill>(&row)) {
        const bool isNew = drill->id.empty();
        editDrill(
            formOf(parent, home, row, isNew ? say("row-editors.new-drill") : text(drill->name), isNew, then),
            *drill);
    }
}

} // namespace jg::ui
