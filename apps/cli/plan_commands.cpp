// causes and plan: what explains the findings, and a week of drills for them.
#include "apps/cli/command.h"

#include "coaching/hypotheses.h"
#include "coaching/week.h"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <iostream>

namespace jg::cli {

using nlohmann::json;

namespace {

std::vector<std::string> findingsIn(const std::string& text, const Playbook& book) {
    auto ids = split(text, ',');
    for (const auto& id : ids)
        if (!book.isFinding(id))
            throw Refusal(msg("measure-commands.id-is-neither-a-measure-nor", {{"id", id}}));
    return ids;
}

std::vector<std::string> findingsOf(const Arguments& a, const Playbook& book) {
    auto ids = findingsIn(a.need("findings"), book);
    if (ids.empty()) throw WrongUse(msg("measure-commands.findings-is-empty"));
    return ids;
}

Known knownOf(const Arguments& a, const Playbook& book) {
    Known known;
    const auto add = [&](const char* option, Looked looked) {
        for (const auto& id : findingsIn(a.value(option).value_or(""), book)) known[id] = looked;
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
    const auto ids = findingsOf(a, book);
    for (const auto& id : ids) {
        const auto* m = book.measure(id);
        const auto* i = book.item(id);
        const bool protects = (m && m->protectsArm) || (i && i->protectsArm);
        findings.push_back({id, protects ? Verdict::Protect : Verdict::Change, 0});
    }
    const Known known = knownOf(a, book);
    const CauseReport report = explain(book, findings, known);
    json roots = json::array(), links = json::array(), competing = json::array();
    for (const Root& r : report.roots)
        roots.push_back({{"id", r.id},
                         {"circle", r.circle},
                         {"explains", r.explains},
                         {"evidence", r.evidence},
                         {"against", r.against},
                         {"unknown", r.unknown}});
    for (const CauseLink& l : report.links)
        links.push_back({{"from", l.from}, {"to", l.to}, {"why", l.why}, {"through", l.through}});
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
    const DrillGates gates = gatesOf(a);
    const auto need = needIn(a);
    std::vector<PlannedDrill> drills;
    json listed = json::array(), blocked = json::array();
    for (const auto& id : findingsOf(a, book)) {
        const auto fit = drillsFor(book, id, gates, 2, need);
        for (const Drill* d : fit) {
            drills.push_back({d->id, id, d->dose, false});
            listed.push_back({{"id", d->id},
                              {"name", d->name},
                              {"finding", id},
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

} // namespace

std::vector<Command> planCommands() {
    return {{"causes",
             "causes --findings a,b,c [--good d,e] [--cannot-tell f] [--not-visible g] [--json]",
             {"findings", "good", "cannot-tell", "not-visible"},
             {"json"},
             0,
             0,
             causes},
            {"plan",
             "plan --findings a,b --age N [--need teach|reach|hold|speed] [--pain] [--returning] "
             "[--no-throwing]\n"
             "        [--days mon,thu] [--games sat] [--without 'a wall,a partner'] [--json]",
             {"findings", "age", "need", "days", "games", "without"},
             {"pain", "returning", "no-throwing", "json"},
             0,
             0,
             plan}};
}

} // namespace jg::cli
