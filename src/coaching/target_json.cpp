#include "coaching/target_json.h"

#include <nlohmann/json.hpp>

#include <stdexcept>

namespace jg {

Target targetFromJson(const nlohmann::json& row) {
    Target t;
    t.measure = row.at("measure");
    const auto positionId = row.at("position").get<std::string>();
    const auto position = momentFromId(positionId);
    if (!position) throw std::invalid_argument("position \"" + positionId + "\" is unknown");
    t.position = *position;
    const auto typeId = row.at("type").get<std::string>();
    const auto type = targetTypeFromId(typeId);
    if (!type) throw std::invalid_argument("target type \"" + typeId + "\" is unknown");
    t.type = *type;
    t.x = row.value("x", 0.0);
    t.y = row.value("y", 0.0);
    t.soft = row.value("soft", 0.0);
    if (row.contains("good")) t.good = row["good"].get<double>();
    t.unit = row.value("unit", "");
    return t;
}

} // namespace jg
