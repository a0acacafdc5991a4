// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/record/derived_json.h"

#include "review/record/json_fields.h"

#include <utility>

namespace jg {

using nlohmann::json;

namespace {

json pathAsJson(const Path& path) {
    json rows = json::array();
    for (const PathPlace& p : path) rows.push_back({p.frame, p.at.x, p.at.y, p.sdPx});
    return rows;
}

Path pathIn(const json& rows) {
    Path path;
    for (const json& row : rows) path.push_back({row.at(0), {row.at(1), row.at(2)}, row.at(3)});
    return path;
}

void writeDerived(const DeliveryMarks& m, json& d) {
    if (m.shake) {
        json shifts = json::array();
        for (const auto& [frame, by] : m.shake->shifts) shifts.push_back({frame, by.x, by.y});
        d["shake"] = {{"reference", m.shake->reference}, {"sdPx", m.shake->sdPx}, {"shifts", shifts}};
    }
    for (const auto& [landmark, path] : m.paths)
        d["paths"][std::string(info(landmark).id)] = {
            {"places", pathAsJson(path.places)}, {"from", pathAsJson(path.from)}, {"asks", path.asks}};
}

} // namespace

void readDerivedIn(const json& d, bool shakeOn, DeliveryMarks& m) {
    if (d.contains("shake")) {
        const json& s = d["shake"];
        m.shake = CameraShake{s.at("reference"), {}, s.at("sdPx"), s.value("on", shakeOn)};
        for (const json& row : s.at("shifts")) m.shake->shifts[row.at(0)] = {row.at(1), row.at(2)};
    }
    const json paths = d.value("paths", json::object());
    for (const auto& [id, path] : paths.items())
        m.paths[need(landmarkFromId(id), "landmark")] = {pathIn(path.at("places")), pathIn(path.at("from")),
                                                         path.value("asks", std::vector<std::int64_t>{})};
}

std::string derivedToJson(const DeliveryMarks& delivery) {
    json d = json::object();
    writeDerived(delivery, d);
    return d.empty() ? "" : d.dump();
}

Status readDerived(std::string_view text, DeliveryMarks& delivery) {
    const bool on = !delivery.shake || delivery.shake->on;
    delivery.shake.reset();
    delivery.paths.clear();
    if (text.empty()) return Done{};
    auto read = guarded<DeliveryMarks>(text, "paths", [&](const json& d) {
        DeliveryMarks m;
        readDerivedIn(d, on, m);
        return m;
    });
    if (!read) return read.error();
    delivery.shake = std::move(read->shake);
    delivery.paths = std::move(read->paths);
    return Done{};
}

} // namespace jg
