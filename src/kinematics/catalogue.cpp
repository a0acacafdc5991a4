#include "kinematics/catalogue.h"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <array>
#include <set>
#include <stdexcept>
#include <utility>

namespace jg {

using nlohmann::json;

bool MeasureDefinition::seenFrom(View view) const {
    return std::find(views.begin(), views.end(), view) != views.end();
}

bool MeasureDefinition::needsHeight() const {
    return kind == MeasureKind::OffLine || kind == MeasureKind::Fall || kind == MeasureKind::Distance;
}

bool MeasureDefinition::isAngle() const {
    return unit == "deg";
}

namespace {

MeasureKind kindFromId(const std::string& id) {
    static constexpr std::array<std::pair<std::string_view, MeasureKind>, 9> kinds = {{
        {"jointAngle", MeasureKind::JointAngle},
        {"tilt", MeasureKind::Tilt},
        {"aboveLine", MeasureKind::AboveLine},
        {"aboveLevel", MeasureKind::AboveLevel},
        {"offLine", MeasureKind::OffLine},
        {"fall", MeasureKind::Fall},
        {"distance", MeasureKind::Distance},
        {"changeOfAngle", MeasureKind::ChangeOfAngle},
        {"timeBetween", MeasureKind::TimeBetween},
    }};
    for (const auto& [name, kind] : kinds)
        if (name == id) return kind;
    throw std::invalid_argument("kind \"" + id + "\" is unknown");
}

std::pair<std::size_t, std::size_t> slotRange(MeasureKind kind) {
    switch (kind) {
    case MeasureKind::JointAngle:
    case MeasureKind::AboveLine:
        return {3, 3};
    case MeasureKind::Tilt:
    case MeasureKind::AboveLevel:
    case MeasureKind::Fall:
    case MeasureKind::Distance:
        return {2, 2};
    case MeasureKind::OffLine:
        return {3, 6};
    case MeasureKind::ChangeOfAngle:
        return {6, 6};
    case MeasureKind::TimeBetween:
        break;
    }
    return {0, 0};
}

Moment momentAt(const json& value) {
    const auto id = value.get<std::string>();
    if (const auto moment = momentFromId(id)) return *moment;
    throw std::invalid_argument("position \"" + id + "\" is unknown");
}

Slot slotOf(const json& row, Moment standard) {
    Slot slot{row.at("name").get<std::string>(), Landmark::Head, standard};
    const auto id = row.at("landmark").get<std::string>();
    const auto landmark = landmarkFromId(id);
    if (!landmark) throw std::invalid_argument("landmark \"" + id + "\" is unknown");
    slot.landmark = *landmark;
    if (row.contains("at")) slot.at = momentAt(row["at"]);
    return slot;
}

MeasureDefinition measureOf(const json& row) {
    MeasureDefinition m;
    m.id = row.at("id");
    m.name = row.at("name");
    m.shortName = row.value("shortName", m.name);
    m.group = row.at("group");
    m.kind = kindFromId(row.at("kind"));
    m.unit = row.at("unit");
    for (const auto& p : row.at("positions")) m.moments.push_back(momentAt(p));
    if (m.moments.empty()) throw std::invalid_argument("it has no position");
    for (const auto& p : row.value("points", json::array())) m.slots.push_back(slotOf(p, m.moments.front()));
    for (const auto& v : row.at("views")) {
        const auto view = viewFromId(v.get<std::string>());
        if (!view) throw std::invalid_argument("view " + v.dump() + " is unknown");
        m.views.push_back(*view);
    }
    m.formula = row.at("formula");
    m.hint = row.value("hint", "");
    m.source = row.at("source");
    m.protectsArm = row.value("protectsArm", false);
    m.plainly = row.value("plainly", "");
    const auto [least, most] = slotRange(m.kind);
    if (m.slots.size() < least || m.slots.size() > most)
        throw std::invalid_argument("it has " + std::to_string(m.slots.size()) + " points, its kind takes " +
                                    std::to_string(least) + " to " + std::to_string(most));
    if (m.kind == MeasureKind::TimeBetween && m.moments.size() != 2)
        throw std::invalid_argument("a time needs two positions");
    return m;
}

} // namespace

Result<std::vector<MeasureDefinition>> parseMeasures(std::string_view text) {
    std::vector<MeasureDefinition> all;
    std::string at = "the file";
    try {
        const json document = json::parse(text);
        std::set<std::string> seen;
        for (const auto& row : document.at("measures")) {
            at = "measure " + row.value("id", std::string("without an id"));
            all.push_back(measureOf(row));
            if (!seen.insert(all.back().id).second) throw std::invalid_argument("its id is used twice");
        }
    } catch (const std::exception& e) {
        return fail(ErrorCode::BadInput, "The measures can't be read, at " + at + ": " + e.what() + ".");
    }
    return all;
}

const MeasureDefinition* findMeasure(const std::vector<MeasureDefinition>& all, std::string_view id) {
    const auto it = std::find_if(all.begin(), all.end(), [&](const auto& m) { return m.id == id; });
    return it == all.end() ? nullptr : &*it;
}

} // namespace jg
