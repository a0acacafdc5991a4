#include "coaching/target_json.h"

#include "base/unfit.h"

#include <nlohmann/json.hpp>

namespace jg {

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
    return t;
}

} // namespace jg
