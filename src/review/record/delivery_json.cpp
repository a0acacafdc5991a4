// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/record/delivery_json.h"

#include "review/record/derived_json.h"
#include "review/record/json_fields.h"

namespace jg {

using nlohmann::json;

namespace {

json marksAsJson(const std::map<std::string, FreeMark>& marks) {
    json rows = json::array();
    for (const auto& [id, mark] : marks) {
        json points = json::array();
        for (const ImagePoint p : mark.points) points.push_back(pointAsJson(p));
        rows.push_back({{"id", id}, {"kind", idOf(mark.kind)}, {"frame", mark.frame}, {"points", points}});
    }
    return rows;
}

json veilsAsJson(const Veils& veils) {
    json rows = json::array();
    for (const auto& [id, veil] : veils) {
        json boxes = json::array();
        for (const auto& [frame, box] : veil.boxes)
            boxes.push_back({frame, box.from.x, box.from.y, box.to.x, box.to.y});
        rows.push_back({{"id", id}, {"boxes", boxes}, {"drawn", veil.drawn}, {"asks", veil.asks}});
    }
    return rows;
}

json goalsAsJson(const std::map<std::string, HandGoal>& goals) {
    json all = json::object();
    for (const auto& [id, goal] : goals) {
        all[id] = {{"frame", goal.frame}, {"joints", json::object()}};
        for (const auto& [landmark, at] : goal.joints)
            all[id]["joints"][std::string(info(landmark).id)] = pointAsJson(at);
    }
    return all;
}

json pointsAsJson(const std::map<PointKey, PointMark>& points) {
    json rows = json::array();
    for (const auto& [key, mark] : points) {
        json row = {{"frame", key.frame},
                    {"landmark", info(key.landmark).id},
                    {"at", pointAsJson(mark.point.at)},
                    {"sigmaPx", mark.point.sigmaPx}};
        if (!mark.hidden.empty()) row["hidden"] = mark.hidden;
        rows.push_back(row);
    }
    return rows;
}

void writeCamera(const DeliveryMarks& m, json& d) {
    if (m.turn) {
        d["cameraTurnDeg"] = m.turn->deg;
        d["cameraTurnSdDeg"] = m.turn->sdDeg;
    }
    if (m.cut) d["cut"] = {m.cut->first, m.cut->last};
    if (m.shake) d["shakeOn"] = m.shake->on;
    d["scales"] = json::object();
    for (const auto& [kind, s] : m.scales)
        d["scales"][std::string(info(kind).id)] = {{"frame", s.frame},
                                                   {"from", pointAsJson(s.from)},
                                                   {"to", pointAsJson(s.to)},
                                                   {"metres", s.metres}};
}

json conditionsAsJson(const Conditions& c) {
    json row = {{"start", idOf(c.start)},
                {"surface", idOf(c.surface)},
                {"pitch", idOf(c.pitch)},
                {"went", idOf(c.went)}};
    if (c.numberInOuting) row["numberInOuting"] = *c.numberInOuting;
    if (c.speedMps) row["speedMps"] = *c.speedMps;
    if (!c.tried.empty()) row["tried"] = c.tried;
    return row;
}

Conditions conditionsIn(const json& row) {
    Conditions c;
    c.start = need(startFromId(row.value("start", "")), "start");
    c.surface = need(surfaceFromId(row.value("surface", "")), "surface");
    c.pitch = need(pitchTypeFromId(row.value("pitch", "")), "pitch type");
    c.went = need(wentFromId(row.value("went", "")), "place the ball went");
    if (row.contains("numberInOuting")) c.numberInOuting = row["numberInOuting"].get<int>();
    if (row.contains("speedMps")) c.speedMps = row["speedMps"].get<double>();
    c.tried = row.value("tried", "");
    return c;
}

void writePlaced(const DeliveryMarks& m, json& d) {
    d["moments"] = json::object();
    for (const auto& [moment, mark] : m.moments) {
        json& row = d["moments"][std::string(info(moment).id)];
        row = mark.frame ? json{{"frame", *mark.frame}} : json{{"notVisible", mark.notVisible}};
        if (!mark.again.empty()) row["again"] = mark.again;
    }
    d["points"] = pointsAsJson(m.points);
    d["marks"] = marksAsJson(m.marks);
    if (!m.veils.empty()) d["veils"] = veilsAsJson(m.veils);
    if (!m.goals.empty()) d["goals"] = goalsAsJson(m.goals);
    d["measureNotes"] = json::object();
    for (const auto& [id, n] : m.measureNotes)
        d["measureNotes"][id] = {{"state", idOf(n.state)}, {"reason", n.reason}};
    d["answers"] = json::object();
    for (const auto& [id, a] : m.answers) d["answers"][id] = {{"seen", a.seen}, {"numbers", a.numbers}};
}

void readCamera(const json& d, DeliveryMarks& m) {
    if (d.contains("cameraTurnDeg")) m.turn = CameraTurn{d["cameraTurnDeg"], d.value("cameraTurnSdDeg", 3.0)};
    if (d.contains("cut")) m.cut = FrameSpan{d["cut"].at(0), d["cut"].at(1)};
    const json scales = d.value("scales", json::object());
    for (const auto& [id, s] : scales.items())
        m.scales[need(scaleFromId(id), "scale")] = {s.at("frame"), pointIn(s.at("from")), pointIn(s.at("to")),
                                                    s.at("metres")};
}

void readMarks(const json& rows, DeliveryMarks& m) {
    for (const auto& row : rows) {
        FreeMark mark{row.at("id"), enumIn<MarkKind>(row.at("kind"), 6, "mark"), row.at("frame"), {}};
        for (const auto& p : row.at("points")) mark.points.push_back(pointIn(p));
        if (mark.points.size() != pointsOf(mark.kind)) throw Unfit(msg("document.mark-points"));
        m.marks[mark.id] = mark;
    }
}

void readVeils(const json& rows, DeliveryMarks& m) {
    for (const json& row : rows) {
        Veil veil{{}, row.at("drawn"), row.value("asks", std::vector<std::int64_t>{})};
        for (const json& b : row.at("boxes")) veil.boxes[b.at(0)] = {{b.at(1), b.at(2)}, {b.at(3), b.at(4)}};
        if (veil.boxes.empty()) throw Unfit(msg("document.not-valid", {{"what", "veil"}}));
        m.veils[row.at("id")] = std::move(veil);
    }
}

void readGoals(const json& all, DeliveryMarks& m) {
    for (const auto& [id, row] : all.items()) {
        HandGoal& goal = m.goals[id];
        goal.frame = row.at("frame");
        for (const auto& [landmark, at] : row.at("joints").items())
            goal.joints[need(landmarkFromId(landmark), "landmark")] = pointIn(at);
    }
}

void readPlaced(const json& d, DeliveryMarks& m) {
    for (const auto& [id, row] : d.at("moments").items()) {
        MomentMark mark;
        if (row.contains("frame")) mark.frame = row["frame"].get<std::int64_t>();
        mark.notVisible = row.value("notVisible", "");
        mark.again = row.value("again", mark.again);
        m.moments[need(momentFromId(id), "position")] = mark;
    }
    for (const auto& row : d.at("points")) {
        const PointKey key{row.at("frame"),
                           need(landmarkFromId(row.at("landmark").get<std::string>()), "landmark")};
        m.points[key] = {{pointIn(row.at("at")), row.at("sigmaPx")}, row.value("hidden", "")};
    }
    readMarks(d.at("marks"), m);
    readVeils(d.value("veils", json::array()), m);
    readGoals(d.value("goals", json::object()), m);
    for (const auto& [id, row] : d.at("measureNotes").items())
        m.measureNotes[id] = {enumIn<MeasureState>(row.at("state"), 4, "state"), row.value("reason", "")};
    const json answers = d.value("answers", json::object());
    for (const auto& [id, a] : answers.items())
        m.answers[id] = {a.value("seen", ""), a.value("numbers", std::map<std::string, double>{})};
}

} // namespace

json gradeAsJson(const Grade& g) {
    json row = {{"state", idOf(g.state)}, {"step", g.step}, {"reason", g.reason}};
    if (!g.side.empty()) row["side"] = g.side;
    if (g.evidence.atUnix != 0) row["at"] = g.evidence.atUnix;
    if (g.evidence.frame) row["frame"] = *g.evidence.frame;
    for (const SeenNumber& n : g.evidence.numbers)
        row["numbers"].push_back(
            {{"measure", n.measure}, {"value", n.value}, {"sd", n.sd}, {"unit", n.unit}});
    return row;
}

Grade gradeIn(const json& row) {
    Grade g{enumIn<GradeState>(row.at("state"), 6, "grade"), row.at("step"), row.value("reason", ""), {}};
    g.side = row.value("side", "");
    g.evidence.atUnix = row.value("at", std::int64_t{0});
    if (row.contains("frame")) g.evidence.frame = row["frame"].get<std::int64_t>();
    for (const json& n : row.value("numbers", json::array()))
        g.evidence.numbers.push_back({n.at("measure"), n.at("value"), n.at("sd"), n.at("unit")});
    return g;
}

json deliveryAsJson(const DeliveryMarks& m) {
    json d = {{"clip", m.clip.value},
              {"number", m.number},
              {"pitch", m.pitch},
              {"conditions", conditionsAsJson(m.conditions)}};
    writeCamera(m, d);
    writePlaced(m, d);
    return d;
}

DeliveryMarks deliveryIn(const json& d) {
    DeliveryMarks m;
    m.clip.value = idIn(d.at("clip"));
    m.number = d.value("number", d.value("delivery", 1)); // format 1 called it so
    m.pitch = d.value("pitch", 1);
    m.conditions = conditionsIn(d.value("conditions", json::object()));
    readCamera(d, m);
    readPlaced(d, m);
    // Whether the shake is taken out is the coach's word; the shifts lie beside the clip.
    if (d.contains("shakeOn")) m.shake = CameraShake{0, {}, 0, d["shakeOn"]};
    readDerivedIn(d, true, m);
    return m;
}

} // namespace jg
