// SPDX-License-Identifier: GPL-3.0-or-later
#include "coaching/approach_json.h"

#include "coaching/target_json.h"
#include "coaching/teaching.h"

#include <nlohmann/json.hpp>

namespace jg {

using nlohmann::json;

Approach approachFromJson(const json& d) {
    Approach a;
    a.id = d.at("id");
    a.name = d.at("name");
    a.version = d.at("version");
    a.ageFrom = d.at("ages").at(0);
    a.ageTo = d.at("ages").at(1);
    a.about = d.value("about", "");
    a.basedOn = d.value("basedOn", "");
    for (const auto& row : d.at("targets")) a.targets.push_back(targetFromJson(row));
    a.graded = d.at("graded").get<std::vector<std::string>>();
    a.lenient = d.value("lenient", a.lenient);
    for (const auto& part : d.value("parts", json::array()))
        a.parts.push_back({part.at("name"), part.at("rows").get<std::vector<std::string>>()});
    a.teaching = teachingFromId(d.value("teaching", ""));
    a.power = d.value("power", "");
    return a;
}

json approachAsJson(const Approach& a) {
    json targets = json::array();
    for (const Target& t : a.targets) targets.push_back(targetAsJson(t));
    json d = {
        {"format", kApproachFormat},    {"id", a.id},       {"name", a.name},     {"version", a.version},
        {"ages", {a.ageFrom, a.ageTo}}, {"about", a.about}, {"targets", targets}, {"graded", a.graded}};
    if (!a.basedOn.empty()) d["basedOn"] = a.basedOn;
    if (!a.lenient.empty()) d["lenient"] = a.lenient;
    for (const CardPart& part : a.parts) d["parts"].push_back({{"name", part.name}, {"rows", part.rows}});
    if (a.teaching != Teaching::ByWeight) d["teaching"] = idOf(a.teaching);
    if (!a.power.empty()) d["power"] = a.power;
    return d;
}

} // namespace jg
