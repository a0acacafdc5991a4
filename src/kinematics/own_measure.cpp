#include "kinematics/own_measure.h"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <cctype>

namespace jg {

using nlohmann::json;

std::span<const OwnMeasureKind> ownMeasureKinds() {
    static const std::vector<OwnMeasureKind> kinds = {
        {"jointAngle",
         "Angle at a joint",
         "the inner angle, 180 = straight",
         {"one end", "the joint", "other end"},
         false,
         false,
         "deg"},
        {"tilt",
         "Tilt of a line",
         "from vertical, + toward the plate",
         {"lower end", "upper end"},
         false,
         true,
         "deg"},
        {"aboveLevel",
         "Slope of a line",
         "above level, + when its far end is higher",
         {"near end", "far end"},
         false,
         false,
         "deg"},
        {"lineToLine",
         "Angle between two lines",
         "0 = the same way",
         {"first from", "first to", "second from", "second to"},
         false,
         false,
         "deg"},
        {"offLine",
         "Distance from a line",
         "percent of height",
         {"line from", "line to", "point"},
         false,
         false,
         "%"},
        {"ahead",
         "Ahead of a plumb line",
         "percent of height, + toward the plate",
         {"plumb through", "point"},
         false,
         true,
         "%"},
        {"above",
         "Above a level line",
         "percent of height, + when higher",
         {"level through", "point"},
         false,
         false,
         "%"},
        {"ratio",
         "Ratio of two lengths",
         "first over second",
         {"first from", "first to", "second from", "second to"},
         false,
         false,
         "x"},
        {"fall",
         "Fall between positions",
         "percent of height, + when it goes down",
         {"point"},
         true,
         false,
         "%"},
        {"distance", "Travel between positions", "percent of height", {"point"}, true, false, "%"},
        {"direction",
         "Direction of a way",
         "0 = straight to the plate, 90 = up",
         {"point"},
         true,
         true,
         "deg"},
        {"timeBetween", "Time between positions", "milliseconds", {}, true, false, "ms"},
        {"frameCount",
         "Frames while something holds",
         "from where it begins to where it ends",
         {},
         true,
         false,
         "frames"},
        {"turnSide",
         "Turn from a width",
         "against how wide it is at Set",
         {"one end", "other end"},
         false,
         true,
         "deg"}};
    return kinds;
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

/// What is wrong, as a sentence; empty when nothing is.
std::string wrongIn(const OwnMeasureOrder& o, const OwnMeasureKind& kind) {
    if (idFor(o.name).size() <= 4) return "Give the measure a name with a letter in it.";
    if (o.landmarks.size() != kind.points.size())
        return std::string(kind.name) + " needs " + std::to_string(kind.points.size()) +
               " landmarks. Choose each.";
    const bool pairs = kind.points.size() == 4; // two lines may share an end
    for (std::size_t i = 0; i < o.landmarks.size(); ++i)
        for (std::size_t j = i + 1; j < o.landmarks.size(); ++j)
            if (o.landmarks[i] == o.landmarks[j] && (!pairs || i / 2 == j / 2))
                return "The " + std::string(info(o.landmarks[i]).name) +
                       " stands there twice. Choose another one.";
    if (o.positions.size() != (kind.twoPositions ? 2U : 1U))
        return kind.twoPositions ? "Choose the two positions it lies between."
                                 : "Choose the position it is taken at.";
    if (kind.twoPositions && !(o.positions[0] < o.positions[1]) && isKeyPosition(o.positions[1]))
        return std::string(info(o.positions[1]).name) + " does not come after " +
               std::string(info(o.positions[0]).name) + ". Choose a later one.";
    return "";
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

std::string formulaOf(const OwnMeasureOrder& o, const OwnMeasureKind& kind) {
    std::string words = std::string(kind.name);
    for (std::size_t i = 0; i < o.landmarks.size(); ++i)
        words += (i == 0 ? ": " : " - ") + std::string(info(o.landmarks[i]).name);
    for (std::size_t i = 0; i < o.positions.size(); ++i)
        words += (i == 0 ? ", at " : " and ") + std::string(info(o.positions[i]).name);
    return words;
}

} // namespace

Result<std::string> ownMeasureRow(const OwnMeasureOrder& o) {
    const auto kinds = ownMeasureKinds();
    const auto kind = std::find_if(kinds.begin(), kinds.end(), [&](const auto& k) { return k.id == o.kind; });
    if (kind == kinds.end()) return fail(ErrorCode::BadInput, "Choose what kind of measure it is.");
    if (std::string wrong = wrongIn(o, *kind); !wrong.empty())
        return fail(ErrorCode::BadInput, std::move(wrong));
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
                {"formula", formulaOf(o, *kind)},
                {"hint", kind->how},
                {"source", "made by the coach"},
                {"plainly", o.name + ": {value} (give or take {error})."}};
    const auto parsed = parseMeasures(json{{"measures", {row}}}.dump());
    if (!parsed) return parsed.error();
    return row.dump();
}

} // namespace jg
