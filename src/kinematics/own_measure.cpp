// SPDX-License-Identifier: GPL-3.0-or-later
#include "kinematics/own_measure.h"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <cctype>

namespace jg {

using nlohmann::json;

std::span<const OwnMeasureKind> ownMeasureKinds() {
    static const std::vector<OwnMeasureKind> kinds = {
        {"jointAngle", {"one-end", "the-joint", "other-end"}, false, false, "deg"},
        {"tilt", {"lower-end", "upper-end"}, false, true, "deg"},
        {"aboveLevel", {"near-end", "far-end"}, false, false, "deg"},
        {"lineToLine", {"first-from", "first-to", "second-from", "second-to"}, false, false, "deg"},
        {"offLine", {"line-from", "line-to", "point"}, false, false, "%"},
        {"ahead", {"plumb-through", "point"}, false, true, "%"},
        {"above", {"level-through", "point"}, false, false, "%"},
        {"ratio", {"first-from", "first-to", "second-from", "second-to"}, false, false, "x"},
        {"fall", {"point"}, true, false, "%"},
        {"distance", {"point"}, true, false, "%"},
        {"direction", {"point"}, true, true, "deg"},
        {"timeBetween", {}, true, false, "ms"},
        {"frameCount", {}, true, false, "frames"},
        {"turnSide", {"one-end", "other-end"}, false, true, "deg"}};
    return kinds;
}

Message OwnMeasureKind::name() const {
    return msg("own-kind." + std::string(id));
}

Message OwnMeasureKind::how() const {
    return msg("own-kind-how." + std::string(id));
}

Message OwnMeasureKind::pointName(std::string_view point) {
    return msg("own-point." + std::string(point));
}

namespace {

std::string idFor(const std::string& name) {
    std::string id = "own-";
    for (const char c : name) {
        const auto u = static_cast<unsigned char>(c);
        if (std::isalnum(u))
            id += static_cast<char>(std::tolower(u));
        else if (id.back() != '-')
            id += '-';
    }
    while (id.back() == '-') id.pop_back();
    return id;
}

std::string idOf(Landmark l) {
    return std::string(info(l).id);
}
std::string idOf(Moment m) {
    return std::string(info(m).id);
}

/// What is wrong; empty when nothing is.
Message wrongIn(const OwnMeasureOrder& o, const OwnMeasureKind& kind) {
    if (idFor(o.name).size() <= 4) return msg("own-measure.name");
    if (o.landmarks.size() != kind.points.size())
        return msg("own-measure.landmarks", {{"kind", kind.name()}, {"count", kind.points.size()}});
    const bool pairs = kind.points.size() == 4; // two lines may share an end
    for (std::size_t i = 0; i < o.landmarks.size(); ++i)
        for (std::size_t j = i + 1; j < o.landmarks.size(); ++j)
            if (o.landmarks[i] == o.landmarks[j] && (!pairs || i / 2 == j / 2))
                return msg("own-measure.twice", {{"landmark", info(o.landmarks[i]).name()}});
    if (o.positions.size() != (kind.twoPositions ? 2U : 1U))
        return kind.twoPositions ? msg("own-measure.two-positions") : msg("own-measure.one-position");
    if (kind.twoPositions && !(o.positions[0] < o.positions[1]) && isKeyPosition(o.positions[1]))
        return msg("own-measure.order",
                   {{"later", info(o.positions[1]).name()}, {"earlier", info(o.positions[0]).name()}});
    return {};
}

json pointsOf(const OwnMeasureOrder& o, const OwnMeasureKind& kind) {
    json points = json::array();
    const auto add = [&](std::string name, Landmark landmark, Moment at) {
        points.push_back({{"name", std::move(name)}, {"landmark", idOf(landmark)}, {"at", idOf(at)}});
    };
    if (kind.id == "turnSide") { // the same width again where it is square to the camera
        for (const Moment at : {o.positions[0], Moment::Set})
            for (const Landmark l : o.landmarks) add(idOf(l) + "-" + idOf(at), l, at);
        return points;
    }
    if (kind.twoPositions) {
        for (const Landmark l : o.landmarks)
            for (const Moment at : o.positions) add(idOf(l) + "-" + idOf(at), l, at);
        return points;
    }
    for (std::size_t i = 0; i < o.landmarks.size(); ++i)
        add(std::to_string(i + 1) + "-" + idOf(o.landmarks[i]), o.landmarks[i], o.positions[0]);
    return points;
}

Message formulaOf(const OwnMeasureOrder& o, const OwnMeasureKind& kind) {
    std::vector<Message> landmarks, positions;
    for (const Landmark l : o.landmarks) landmarks.push_back(info(l).name());
    for (const Moment m : o.positions) positions.push_back(info(m).name());
    const Message at = joined(ListStyle::And, positions);
    if (landmarks.empty())
        return msg("own-measure.formula-times", {{"kind", kind.name()}, {"positions", at}});
    return msg(
        "own-measure.formula",
        {{"kind", kind.name()}, {"landmarks", joined(ListStyle::Commas, landmarks)}, {"positions", at}});
}

} // namespace

Result<std::string> ownMeasureRow(const OwnMeasureOrder& o,
                                  const std::function<std::string(const Message&)>& say) {
    const auto kinds = ownMeasureKinds();
    const auto kind = std::find_if(kinds.begin(), kinds.end(), [&](const auto& k) { return k.id == o.kind; });
    if (kind == kinds.end()) return fail(ErrorCode::BadInput, msg("own-measure.kind"));
    if (Message wrong = wrongIn(o, *kind); !wrong.empty()) return fail(ErrorCode::BadInput, std::move(wrong));
    json positions = json::array();
    for (const Moment m : o.positions) positions.push_back(idOf(m));
    if (kind->id == "turnSide") positions.push_back(idOf(Moment::Set));
    json row = {{"id", idFor(o.name)},
                {"name", o.name},
                {"group", "own"},
                {"kind", o.kind},
                {"unit", kind->unit},
                {"positions", positions},
                {"points", pointsOf(o, *kind)},
                {"views", kind->sideOnly ? json{"open", "closed"} : json{"open", "closed", "front", "rear"}},
                {"formula", say(formulaOf(o, *kind))},
                {"hint", say(kind->how())},
                {"source", say(msg("own-measure.source"))},
                {"plainly", say(msg("own-measure.plainly",
                                    {{"name", o.name}, {"value", "{value}"}, {"error", "{error}"}}))}};
    const auto parsed = parseMeasures(json{{"measures", {row}}}.dump());
    if (!parsed) return parsed.error();
    return row.dump();
}

} // namespace jg
