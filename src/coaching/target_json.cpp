// SPDX-License-Identifier: GPL-3.0-or-later
#include "coaching/target_json.h"

#include "base/unfit.h"

#include <nlohmann/json.hpp>

namespace jg {

namespace {

TargetOwner ownerIn(const nlohmann::json& row) {
    const auto on = parseIsoDate(row.at("on").get<std::string>());
    if (!on) throw Unfit(msg("playbook.date-unreadable", {{"date", row["on"].dump()}}));
    return {row.at("who"), *on, row.value("reason", "")};
}

} // namespace

Target targetFromJson(const nlohmann::json& row) {
    Target t;
    t.measure = row.at("measure");
    const auto positionId = row.at("position").get<std::string>();
    const auto position = momentFromId(positionId);
    if (!position) throw Unfit(msg("playbook.position-unknown", {{"id", positionId}}));
    t.position = *position;
    const auto typeId = row.at("type").get<std::string>();
    const auto type = targetTypeFromId(typeId);
    if (!type) throw Unfit(msg("playbook.target-unknown", {{"id", typeId}}));
    t.type = *type;
    t.x = row.value("x", 0.0);
    t.y = row.value("y", 0.0);
    t.soft = row.value("soft", 0.0);
    if (row.contains("good")) t.good = row["good"].get<double>();
    t.unit = row.value("unit", "");
    t.wanted = row.value("wanted", t.wanted);
    t.nearly = row.value("nearly", t.nearly);
    t.why = row.value("why", "");
    if (row.contains("ages")) t.ageFrom = row["ages"].at(0), t.ageTo = row["ages"].at(1);
    if (row.contains("owner")) t.owner = ownerIn(row["owner"]);
    return t;
}

nlohmann::json targetAsJson(const Target& t) {
    nlohmann::json row = {{"measure", t.measure},
                          {"position", info(t.position).id},
                          {"type", idOf(t.type)},
                          {"x", t.x},
                          {"y", t.y},
                          {"soft", t.soft},
                          {"unit", t.unit}};
    if (t.good) row["good"] = *t.good;
    if (!t.wanted.empty()) row["wanted"] = t.wanted;
    if (!t.nearly.empty()) row["nearly"] = t.nearly;
    if (!t.why.empty()) row["why"] = t.why;
    if (t.ageFrom != 0 || t.ageTo != 99) row["ages"] = {t.ageFrom, t.ageTo};
    if (t.owner)
        row["owner"] = {{"who", t.owner->who}, {"on", isoDate(t.owner->on)}, {"reason", t.owner->reason}};
    return row;
}

} // namespace jg
