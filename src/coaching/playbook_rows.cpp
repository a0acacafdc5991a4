// SPDX-License-Identifier: GPL-3.0-or-later
#include "coaching/playbook_rows.h"

#include "base/document.h"
#include "base/unfit.h"
#include "coaching/needs.h"
#include "coaching/row_order.h"

#include <nlohmann/json.hpp>

#include <algorithm>

namespace jg {

using nlohmann::json;

namespace {

constexpr const char* kKinds[] = {"item", "cause", "drill"}; // in the variant's order

Moment momentIn(const json& row, const char* field) {
    const auto id = row.at(field).get<std::string>();
    if (const auto moment = momentFromId(id)) return *moment;
    unfit(msg("playbook.position-unknown", {{"id", id}}));
}

std::vector<View> viewsIn(const json& row) {
    std::vector<View> views;
    for (const auto& v : row.at("views")) {
        const auto view = viewFromId(v.get<std::string>());
        if (!view) unfit(msg("playbook.view-unknown", {{"id", v.dump()}}));
        views.push_back(*view);
    }
    return views;
}

json itemAsJson(const GradedItem& i) {
    json views = json::array();
    for (const View v : i.views) views.push_back(idOf(v));
    json row = {{"id", i.id},         {"name", i.name},     {"fault", i.fault},
                {"goal", i.goal},     {"group", i.group},   {"position", info(i.position).id},
                {"views", views},     {"coach", i.coach},   {"young", i.young},
                {"player", i.player}, {"parent", i.parent}, {"protectsArm", i.protectsArm}};
    if (!i.measure.empty()) row["measure"] = textOf({i.measure, i.measureSide});
    if (!i.praise.empty()) row["praise"] = i.praise;
    for (const GradedItem::Side& s : i.sides)
        row["sides"].push_back(
            {{"id", s.id}, {"fault", s.fault}, {"goal", s.goal}, {"young", s.young}, {"player", s.player}});
    return row;
}

json causeAsJson(const Cause& c) {
    return {{"from", textOf(c.cause())},
            {"to", textOf(c.consequence())},
            {"says", c.says},
            {"effect", c.effect},
            {"why", c.why}};
}

json drillAsJson(const Drill& d) {
    json row = {{"id", d.id},           {"name", d.name},       {"body", d.body},
                {"needs", d.needs},     {"serves", d.serves},   {"equipment", d.equipment},
                {"how", d.how},         {"ball", d.ball},       {"throwing", d.throwing},
                {"armLoad", d.armLoad}, {"ageFrom", d.ageFrom}, {"lookAgainDays", d.lookAgainDays}};
    if (!d.dose.missing())
        row["dose"] = {{"sets", d.dose.sets}, {"reps", d.dose.reps}, {"days", d.dose.days}};
    if (!d.distance.empty()) row["distance"] = d.distance;
    if (!d.link.empty()) row["link"] = d.link;
    if (!d.supports.empty()) row["supports"] = d.supports;
    if (!d.against.empty()) row["against"] = d.against;
    if (!d.notFor.empty()) row["notFor"] = d.notFor;
    if (d.minutes > 0) row["minutes"] = d.minutes;
    for (const DrillStage& s : d.stages) row["stages"].push_back({{"what", s.what}, {"until", s.until}});
    return row;
}

/// Letters carry it to families: one https address and nothing that hides where it leads.
void checkLink(const std::string& link) {
    constexpr std::string_view kStart = "https://";
    constexpr std::size_t kLongest = 200;
    const bool plain = std::all_of(link.begin(), link.end(), [](unsigned char c) {
        return c > ' ' && c < 0x7f &&
               std::string_view("\"'<>@\\`{}|^").find(static_cast<char>(c)) == std::string_view::npos;
    });
    const bool led = link.starts_with(kStart) && link.size() > kStart.size() && link[kStart.size()] != '/';
    if (!link.empty() && (!led || !plain || link.size() > kLongest)) unfit(msg("playbook-rows.no-link"));
}

/// A row's fields that may not be empty, each with the words that ask for it.
struct Needed {
    const std::string& value;
    const char* what;
};

void checkFilled(std::initializer_list<Needed> fields) {
    for (const Needed& f : fields)
        if (f.value.find_first_not_of(" \t\n") == std::string::npos) unfit(msg(f.what));
}

void check(const Playbook& p, const GradedItem& i) {
    checkFilled({{i.name, "playbook-rows.no-name"},
                 {i.fault, "playbook-rows.no-fault"},
                 {i.goal, "playbook-rows.no-goal"},
                 {i.coach, "playbook-rows.no-coach"},
                 {i.young, "playbook-rows.no-young"},
                 {i.player, "playbook-rows.no-player"},
                 {i.parent, "playbook-rows.no-parent"}});
    if (i.fault == i.name || i.goal == i.name) unfit(msg("playbook-rows.good-as-fault"));
    if (i.views.empty()) unfit(msg("playbook-rows.no-view"));
    if (!i.measure.empty() && !p.measure(i.measure))
        unfit(msg("playbook.unknown-behind", {{"item", i.name}, {"measure", i.measure}}));
    for (const GradedItem& other : p.items)
        if (other.name == i.name && other.id != i.id) unfit(msg("playbook-rows.name-taken"));
}

void check(const Playbook& p, const Cause& c) {
    if (c.from == c.to && p.isFinding(std::string_view(c.from))) unfit(msg("playbook-rows.own-cause"));
    for (const auto& end : {c.cause(), c.consequence()})
        if (!p.isFinding(end)) unfit(msg("playbook.unknown-cause", {{"finding", textOf(end)}}));
    if (isLater(p, c.from, c.to))
        unfit(msg("playbook-rows.later-cause",
                  {{"from", p.nameOfFinding(c.from)}, {"to", p.nameOfFinding(c.to)}}));
    checkFilled({{c.says, "playbook-rows.no-owner"}, {c.why, "playbook-rows.no-why"}});
}

void check(const Playbook& p, const Drill& d) {
    checkFilled({{d.name, "playbook-rows.no-name"}, {d.how, "playbook-rows.no-how"}});
    if (d.dose.missing()) unfit(msg("playbook-rows.no-dose"));
    if (d.serves.empty() && d.supports.empty()) unfit(msg("playbook-rows.serves-nothing"));
    checkLink(d.link);
    for (const auto* list : {&d.serves, &d.against})
        for (const auto& id : *list)
            if (!p.isFinding(sidedRowFrom(id)))
                unfit(msg("playbook.unknown-served", {{"drill", d.name}, {"finding", id}}));
    if (d.ball && !d.throwing) unfit(msg("playbook.ball-throws"));
    for (const Drill& other : p.drills)
        if (other.name == d.name && other.id != d.id) unfit(msg("playbook-rows.name-taken"));
}

} // namespace

std::string keyOf(const PlaybookRow& row) {
    if (const auto* item = std::get_if<GradedItem>(&row)) return item->id;
    if (const auto* drill = std::get_if<Drill>(&row)) return drill->id;
    const Cause& c = std::get<Cause>(row);
    return textOf(c.cause()) + " > " + textOf(c.consequence()) + " : " + c.says;
}

std::string nameOf(const PlaybookRow& row) {
    if (const auto* item = std::get_if<GradedItem>(&row)) return item->name;
    if (const auto* drill = std::get_if<Drill>(&row)) return drill->name;
    const Cause& c = std::get<Cause>(row);
    return c.from + ": " + c.to;
}

GradedItem itemFromJson(const json& row) {
    GradedItem i;
    i.id = row.at("id");
    i.name = row.at("name");
    i.fault = row.value("fault", i.name); // playbooks of older reviews have but one name and one cue
    i.goal = row.value("goal", i.name);
    i.group = row.at("group");
    i.position = momentIn(row, "position");
    i.views = viewsIn(row);
    i.coach = row.at("coach");
    i.player = row.at("player");
    i.young = row.value("young", "");
    i.parent = row.value("parent", "");
    const SidedRow number = sidedRowFrom(row.value("measure", ""));
    i.measure = number.row;
    i.measureSide = number.side;
    i.praise = row.value("praise", "");
    if (row.contains("sides"))
        for (const json& s : row["sides"])
            i.sides.push_back({s.at("id"), s.at("fault"), s.at("goal"), s.at("young"), s.at("player")});
    i.protectsArm = row.value("protectsArm", false);
    return i;
}

Cause causeFromJson(const json& row) {
    const SidedRow from = sidedRowFrom(row.at("from").get<std::string>()),
                   to = sidedRowFrom(row.at("to").get<std::string>());
    return {from.row, to.row, row.at("says"), row.at("effect"), row.at("why"), from.side, to.side};
}

Drill drillFromJson(const json& row) {
    Drill d;
    d.id = row.at("id");
    d.name = row.at("name");
    d.body = row.at("body");
    if (d.body != "lower" && d.body != "upper") unfit(msg("playbook.body"));
    d.needs = row.at("needs").get<std::vector<std::string>>();
    for (const std::string& need : d.needs)
        if (!needFromId(need)) unfit(msg("playbook.need-unknown", {{"id", need}}));
    d.serves = row.at("serves").get<std::vector<std::string>>();
    d.supports = row.value("supports", d.supports);
    d.against = row.value("against", d.against);
    d.equipment = row.value("equipment", "none");
    d.how = row.at("how");
    if (row.contains("dose")) {
        const auto& dose = row["dose"];
        d.dose = {dose.value("sets", 0), dose.value("reps", 0), dose.value("days", 0)};
    }
    d.distance = row.value("distance", "");
    d.link = row.value("link", "");
    checkLink(d.link);
    d.ball = row.at("ball");
    d.throwing = row.value("throwing", d.ball);
    if (d.ball && !d.throwing) unfit(msg("playbook.ball-throws"));
    d.armLoad = row.value("armLoad", "none");
    d.ageFrom = row.value("ageFrom", 0);
    d.notFor = row.value("notFor", "");
    d.lookAgainDays = row.value("lookAgainDays", 28);
    d.minutes = row.value("minutes", 0);
    for (const json& s : row.value("stages", json::array()))
        d.stages.push_back({s.at("what"), s.at("until")});
    return d;
}

PlaybookRow rowFromJson(const json& document) {
    const auto kind = document.at("kind").get<std::string>();
    const json& row = document.at("row");
    if (kind == kKinds[0]) return itemFromJson(row);
    if (kind == kKinds[1]) return causeFromJson(row);
    if (kind == kKinds[2]) return drillFromJson(row);
    unfit(msg("playbook-rows.kind-unknown", {{"kind", kind}}));
}

json rowAsJson(const PlaybookRow& row) {
    json written;
    if (const auto* item = std::get_if<GradedItem>(&row)) written = itemAsJson(*item);
    if (const auto* cause = std::get_if<Cause>(&row)) written = causeAsJson(*cause);
    if (const auto* drill = std::get_if<Drill>(&row)) written = drillAsJson(*drill);
    return {{"kind", kKinds[row.index()]}, {"row", written}};
}

std::vector<std::string> changedFields(const PlaybookRow& before, const PlaybookRow& after) {
    const json was = rowAsJson(before).at("row"), is = rowAsJson(after).at("row");
    std::vector<std::string> changed;
    for (const auto& [field, value] : is.items())
        if (!was.contains(field) || was[field] != value) changed.push_back(field);
    for (const auto& [field, value] : was.items())
        if (!is.contains(field)) changed.push_back(field);
    return changed;
}

Status checkRow(const Playbook& playbook, const PlaybookRow& row) {
    try {
        std::visit([&](const auto& r) { check(playbook, r); }, row);
        return Done{};
    } catch (const std::exception& e) {
        return fail(ErrorCode::BadInput,
                    msg("playbook-rows.unfit", {{"name", nameOf(row)}, {"why", whyUnfit(e)}}));
    }
}

} // namespace jg
