// SPDX-License-Identifier: GPL-3.0-or-later
// causes and plan: what explains the findings, and a week of drills for them.
#include "apps/cli/command.h"

#include "coaching/hypotheses.h"
#include "coaching/week.h"
#include "kinematics/answers.h"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <iostream>
#include <map>

namespace jg::cli {

using nlohmann::json;

namespace {

/// "ROW" or "ROW:SIDE", each.
std::vector<SidedRow> rowsIn(const std::string& text, const Playbook& book) {
    std::vector<SidedRow> rows;
    for (const auto& word : split(text, ',')) {
        rows.push_back(sidedRowFrom(word));
        if (!book.isFinding(std::string_view(rows.back().row)))
            throw Refusal(msg("measure-commands.id-is-neither-a-measure-nor", {{"id", rows.back().row}}));
    }
    return rows;
}

/// Faults, each with its side where the row has two.
std::vector<SidedRow> findingsOf(const Arguments& a, const Playbook& book) {
    auto rows = rowsIn(a.need("findings"), book);
    if (rows.empty()) throw WrongUse(msg("measure-commands.findings-is-empty"));
    for (const SidedRow& f : rows) {
        const auto sides = book.sidesOf(f.row);
        const bool fits = f.side.empty() ? sides.empty() : isAmong(sides, f.side);
        std::vector<Message> names;
        for (const std::string& side : sides) names.push_back(asIs(f.row + ":" + side));
        if (!fits && !sides.empty())
            throw Refusal(
                msg("plan-commands.which-side", {{"row", f.row}, {"sides", joined(ListStyle::Or, names)}}));
        if (!fits) throw Refusal(msg("plan-commands.no-sides", {{"row", f.row}}));
    }
    return rows;
}

Known knownOf(const Arguments& a, const Playbook& book) {
    Known known;
    const auto add = [&](const char* option, Looked looked) {
        for (const auto& f : rowsIn(a.value(option).value_or(""), book)) known[f.row] = looked;
    };
    add("good", Looked::Good);
    add("cannot-tell", Looked::CannotTell);
    add("not-visible", Looked::NotVisible);
    return known;
}

json asJson(const CompetingCauses& c) {
    json causes = json::array(), screens = json::array();
    for (const Hypothesis& h : c.causes)
        causes.push_back(
            {{"id", h.cause}, {"why", h.why}, {"says", h.says}, {"known", h.standing}, {"tells", h.tells}});
    for (const Screen* s : c.screens) screens.push_back(s->id);
    return {{"sign", c.sign}, {"causes", causes}, {"screens", screens}};
}

void causes(const Arguments& a, std::stop_token) {
    const Playbook book = playbook();
    std::vector<Finding> findings;
    std::vector<std::string> ids;
    Known known = knownOf(a, book);
    std::map<std::string, std::string> sides;
    for (const SidedRow& f : findingsOf(a, book)) {
        const auto* m = book.measure(f.row);
        const auto* i = book.item(f.row);
        const bool protects = (m && m->protectsArm) || (i && i->protectsArm);
        findings.push_back({f.row, protects ? Verdict::Protect : Verdict::Change, 0, f.side});
        ids.push_back(f.row);
        if (!f.side.empty()) sides[f.row] = known.sides[f.row] = f.side;
    }
    const CauseReport report = explain(book, findings, known);
    json roots = json::array(), links = json::array(), competing = json::array();
    for (const Root& r : report.roots)
        roots.push_back({{"id", r.id},
                         {"side", sides.contains(r.id) ? json(sides.at(r.id)) : json(nullptr)},
                         {"circle", r.circle},
                         {"explains", r.explains},
                         {"evidence", r.evidence},
                         {"against", r.against},
                         {"unknown", r.unknown}});
    for (const CauseLink& l : report.links)
        links.push_back({{"from", textOf({l.from, sides.contains(l.from) ? sides.at(l.from) : ""})},
                         {"to", textOf({l.to, sides.contains(l.to) ? sides.at(l.to) : ""})},
                         {"why", l.why},
                         {"says", l.says},
                         {"through", l.through}});
    for (const CompetingCauses& c : competingCauses(book, ids, known)) competing.push_back(asJson(c));
    std::cout
        << json{{"roots", roots}, {"order", report.order}, {"links", links}, {"competing", competing}}.dump(2)
        << "\n";
}

/// "mon,thu" as a set of days.
unsigned daysIn(const std::string& text) {
    static const std::vector<std::string> names = {"mon", "tue", "wed", "thu", "fri", "sat", "sun"};
    unsigned days = 0;
    for (const auto& name : split(text, ',')) {
        const auto at = std::find(names.begin(), names.end(), name);
        if (at == names.end()) throw WrongUse(msg("cli.day-unknown", {{"day", name}}));
        days |= 1U << (at - names.begin());
    }
    return days;
}

DrillGates gatesOf(const Arguments& a) {
    const auto age = a.number("age");
    if (!age || *age < 5 || *age > 99) throw WrongUse(msg("measure-commands.age-wants-an-age-in-years"));
    DrillGates gates{static_cast<int>(*age), a.has("pain"), "", a.has("returning"), {}};
    gates.at.throwing = !a.has("no-throwing");
    if (const auto days = a.value("days")) gates.at.days = daysIn(*days);
    if (const auto games = a.value("games")) gates.at.gameDays = daysIn(*games);
    gates.at.without = split(a.value("without").value_or(""), ',');
    return gates;
}

std::optional<Need> needIn(const Arguments& a) {
    const auto id = a.value("need");
    if (!id) return std::nullopt;
    const auto need = needFromId(*id);
    if (!need) throw WrongUse(msg("cli.need-unknown", {{"need", *id}}));
    return need;
}

void plan(const Arguments& a, std::stop_token) {
    const Playbook book = playbook();
    DrillGates gates = gatesOf(a);
    const auto need = needIn(a);
    gates.chosen = findingsOf(a, book);
    std::vector<PlannedDrill> drills;
    json listed = json::array(), blocked = json::array();
    for (const SidedRow& finding : gates.chosen) {
        const std::string id = textOf(finding);
        const auto fit = drillsFor(book, id, gates, 2, need);
        for (const Drill* d : fit) {
            drills.push_back({d->id, finding.row, d->dose, false});
            listed.push_back({{"id", d->id},
                              {"name", d->name},
                              {"finding", finding.row},
                              {"side", finding.side.empty() ? json(nullptr) : json(finding.side)},
                              {"made", d->trains(finding)},
                              {"needs", d->needs},
                              {"dose", wordsOf(d->dose)},
                              {"daysAWeek", d->dose.days},
                              {"ball", d->ball},
                              {"throwing", d->throwing},
                              {"body", d->body}});
        }
        if (fit.empty()) blocked.push_back(whyNoDrill(book, id, gates));
    }
    const WeekPlan week = layOutWeek(book, drills, gates);
    json days = json::array(), notes = json::array();
    for (const PlanDay& d : week.days)
        days.push_back(
            {{"day", weekdayShort(d.weekday)}, {"body", d.body}, {"drills", d.drills}, {"throws", d.throws}});
    for (const auto& sentence : week.blocked) blocked.push_back(sentence);
    for (const auto& sentence : week.notes) notes.push_back(sentence);
    if (gates.pain) blocked.push_back(msg("measure-commands.pain-is-reported-no-throwing-drills"));
    std::cout << json{{"days", days},
                      {"drills", listed},
                      {"missingDose", week.missingDose},
                      {"blocked", blocked},
                      {"notes", notes}}
                     .dump(2)
              << "\n";
}

/// Graded items with the ways in which each can be off.
void items(const Arguments&, std::stop_token) {
    json all = json::array();
    for (const GradedItem& i : playbook().items) {
        json views = json::array(), sides = json::array();
        for (const View v : i.views) views.push_back(idOf(v));
        for (const GradedItem::Side& s : i.sides)
            sides.push_back({{"id", s.id}, {"fault", s.fault}, {"goal", s.goal}});
        if (i.sides.empty()) sides.push_back({{"id", ""}, {"fault", i.fault}, {"goal", i.goal}});
        all.push_back({{"id", i.id},
                       {"name", i.name},
                       {"position", info(i.position).id},
                       {"views", views},
                       {"sides", sides}});
    }
    std::cout << all.dump(2) << "\n";
}

json rowsAsJson(const std::vector<std::string>& written) {
    json all = json::array();
    for (const std::string& text : written) {
        const SidedRow f = sidedRowFrom(text);
        all.push_back({{"row", f.row}, {"side", f.side}});
    }
    return all;
}

json stagesAsJson(const std::vector<DrillStage>& stages) {
    json all = json::array();
    for (const DrillStage& s : stages) all.push_back({{"what", s.what}, {"until", s.until}});
    return all;
}

void drillList(const Arguments&, std::stop_token) {
    json all = json::array();
    for (const Drill& d : playbook().drills)
        all.push_back({{"id", d.id},
                       {"name", d.name},
                       {"trains", rowsAsJson(d.serves)},
                       {"against", rowsAsJson(d.against)},
                       {"throws", d.throwing},
                       {"ages", {d.ageFrom, 99}},
                       {"needs", d.needs},
                       {"equipment", d.equipment},
                       {"minutes", d.minutes},
                       {"notFor", d.notFor},
                       {"stages", stagesAsJson(d.stages)}});
    std::cout << all.dump(2) << "\n";
}

} // namespace

std::vector<Command> planCommands() {
    return {{"items", "items [--json]", {}, {"json"}, 0, 0, items},
            {"drills", "drills [--json]", {}, {"json"}, 0, 0, drillList},
            {"causes",
             "causes --findings a:side,b,c [--good d,e] [--cannot-tell f] [--not-visible g] [--json]",
             {"findings", "good", "cannot-tell", "not-visible"},
             {"json"},
             0,
             0,
             causes},
            {"plan",
             "plan --findings a:side,b --age N [--need teach|reach|hold|speed] [--pain] [--returning] "
             "[--no-throwing]\n"
             "        [--days mon,thu] [--games sat] [--without 'a wall,a partner'] [--json]",
             {"findings", "age", "need", "days", "games", "without"},
             {"pain", "returning", "no-throwing", "json"},
             0,
             0,
             plan}};
}

} // namespace jg::cli
