#include "review/review_json.h"

#include "coaching/target_json.h"
#include "review/json_fields.h"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <array>
#include <stdexcept>

namespace jg {

using nlohmann::json;

namespace {

json pointAsJson(ImagePoint p) {
    return json::array({p.x, p.y});
}

ImagePoint pointIn(const json& p) {
    return {p.at(0).get<double>(), p.at(1).get<double>()};
}

template <typename E>
E enumIn(const json& value, int count, const char* what) {
    // Enums with an idOf are stored by id; their first value's id is tried up to the count.
    const auto id = value.get<std::string>();
    for (int i = 0; i < count; ++i)
        if (idOf(static_cast<E>(i)) == id) return static_cast<E>(i);
    throw std::invalid_argument(std::string(what) + " \"" + id + "\" is unknown");
}

constexpr std::array kEventIds = {"frame",     "pointer", "pointer-off", "stroke",
                                  "stroke-to", "clear",   "marks-on",    "marks-off"};

json eventAsJson(const TakeEvent& e) {
    json row = {{"sample", e.sample}, {"kind", kEventIds.at(static_cast<std::size_t>(e.kind))}};
    if (e.kind == TakeEventKind::Frame) row["frame"] = e.frame;
    if (e.kind == TakeEventKind::Pointer || e.kind == TakeEventKind::StrokeBegin ||
        e.kind == TakeEventKind::StrokeTo)
        row["at"] = pointAsJson(e.at);
    return row;
}

TakeEvent eventIn(const json& row) {
    TakeEvent e;
    e.sample = row.at("sample");
    const auto id = row.at("kind").get<std::string>();
    const auto it = std::find(kEventIds.begin(), kEventIds.end(), id);
    if (it == kEventIds.end()) throw std::invalid_argument("event \"" + id + "\" is unknown");
    e.kind = static_cast<TakeEventKind>(it - kEventIds.begin());
    e.frame = row.value("frame", std::int64_t{0});
    if (row.contains("at")) e.at = pointIn(row["at"]);
    return e;
}

json takeAsJson(const Take& t) {
    json events = json::array();
    for (const TakeEvent& e : t.events) events.push_back(eventAsJson(e));
    return {{"file", t.file},
            {"sampleRate", t.sampleRate},
            {"samples", t.samples},
            {"microphone", t.microphone},
            {"events", events}};
}

Take takeIn(const json& row) {
    Take t{row.at("file"), row.at("sampleRate"), row.at("samples"), row.value("microphone", ""), {}};
    for (const auto& e : row.at("events")) t.events.push_back(eventIn(e));
    return t;
}

json planAsJson(const Plan& p) {
    json drills = json::array();
    for (const PlannedDrill& d : p.drills)
        drills.push_back({{"drill", d.drill},
                          {"finding", d.finding},
                          {"sets", d.dose.sets},
                          {"reps", d.dose.reps},
                          {"days", d.dose.days},
                          {"waived", d.doseWaived}});
    return {{"corrections", p.corrections}, {"drills", drills}, {"nextLook", dateAsJson(p.nextLook)},
            {"opening", p.opening},         {"ask", p.ask},     {"painConfirmed", p.painConfirmed}};
}

Plan planIn(const json& row) {
    Plan p;
    p.corrections = row.at("corrections").get<std::vector<std::string>>();
    for (const auto& d : row.at("drills"))
        p.drills.push_back({d.at("drill"),
                            d.at("finding"),
                            {d.at("sets"), d.at("reps"), d.at("days")},
                            d.value("waived", false)});
    p.nextLook = dateIn(row, "nextLook");
    p.opening = row.value("opening", "");
    p.ask = row.value("ask", "");
    p.painConfirmed = row.value("painConfirmed", false);
    return p;
}

json approachAsJson(const Approach& a) {
    json targets = json::array();
    for (const Target& t : a.targets) targets.push_back(targetAsJson(t));
    return {{"id", a.id},         {"name", a.name},    {"version", a.version}, {"ages", {a.ageFrom, a.ageTo}},
            {"targets", targets}, {"graded", a.graded}};
}

Approach approachIn(const json& row) {
    Approach a{row.at("id"),
               row.at("name"),
               row.at("version"),
               row.at("ages").at(0),
               row.at("ages").at(1),
               "",
               {},
               {}};
    for (const auto& t : row.at("targets")) a.targets.push_back(targetFromJson(t));
    a.graded = row.at("graded").get<std::vector<std::string>>();
    return a;
}

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

json marksAsJson(const std::map<std::string, FreeMark>& marks) {
    json rows = json::array();
    for (const auto& [id, mark] : marks) {
        json points = json::array();
        for (const ImagePoint p : mark.points) points.push_back(pointAsJson(p));
        rows.push_back({{"id", id}, {"kind", idOf(mark.kind)}, {"frame", mark.frame}, {"points", points}});
    }
    return rows;
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
    if (m.shake) {
        json shifts = json::array();
        for (const auto& [frame, by] : m.shake->shifts) shifts.push_back({frame, by.x, by.y});
        d["shake"] = {{"reference", m.shake->reference},
                      {"sdPx", m.shake->sdPx},
                      {"on", m.shake->on},
                      {"shifts", shifts}};
    }
    d["scales"] = json::object();
    for (const auto& [kind, s] : m.scales)
        d["scales"][std::string(info(kind).id)] = {{"frame", s.frame},
                                                   {"from", pointAsJson(s.from)},
                                                   {"to", pointAsJson(s.to)},
                                                   {"metres", s.metres}};
}

void writeDelivery(const DeliveryMarks& m, json& d) {
    d["clip"] = m.clip.value;
    d["delivery"] = m.number;
    d["pitch"] = m.pitch;
    writeCamera(m, d);
    d["moments"] = json::object();
    for (const auto& [moment, mark] : m.moments)
        d["moments"][std::string(info(moment).id)] =
            mark.frame ? json{{"frame", *mark.frame}} : json{{"notVisible", mark.notVisible}};
    d["points"] = pointsAsJson(m.points);
    d["paths"] = json::object();
    for (const auto& [landmark, path] : m.paths)
        d["paths"][std::string(info(landmark).id)] = {
            {"places", pathAsJson(path.places)}, {"from", pathAsJson(path.from)}, {"asks", path.asks}};
    d["marks"] = marksAsJson(m.marks);
    d["measureNotes"] = json::object();
    for (const auto& [id, n] : m.measureNotes)
        d["measureNotes"][id] = {{"state", idOf(n.state)}, {"reason", n.reason}};
    d["answers"] = json::object();
    for (const auto& [id, a] : m.answers) d["answers"][id] = {{"seen", a.seen}, {"numbers", a.numbers}};
}

void readCamera(const json& d, DeliveryMarks& m) {
    if (d.contains("cameraTurnDeg")) m.turn = CameraTurn{d["cameraTurnDeg"], d.value("cameraTurnSdDeg", 3.0)};
    if (d.contains("cut")) m.cut = FrameSpan{d["cut"].at(0), d["cut"].at(1)};
    if (d.contains("shake")) {
        const json& s = d["shake"];
        m.shake = CameraShake{s.at("reference"), {}, s.at("sdPx"), s.at("on")};
        for (const json& row : s.at("shifts")) m.shake->shifts[row.at(0)] = {row.at(1), row.at(2)};
    }
    const json scales = d.value("scales", json::object());
    for (const auto& [id, s] : scales.items())
        m.scales[need(scaleFromId(id), "scale")] = {s.at("frame"), pointIn(s.at("from")), pointIn(s.at("to")),
                                                    s.at("metres")};
}

void readMarks(const json& rows, DeliveryMarks& m) {
    for (const auto& row : rows) {
        FreeMark mark{row.at("id"), enumIn<MarkKind>(row.at("kind"), 6, "mark"), row.at("frame"), {}};
        for (const auto& p : row.at("points")) mark.points.push_back(pointIn(p));
        if (mark.points.size() != pointsOf(mark.kind))
            throw std::invalid_argument("a mark has the wrong number of points");
        m.marks[mark.id] = mark;
    }
}

void readDelivery(const json& d, DeliveryMarks& m) {
    m.clip.value = d.at("clip");
    m.number = d.value("delivery", 1);
    m.pitch = d.value("pitch", 1);
    readCamera(d, m);
    for (const auto& [id, row] : d.at("moments").items()) {
        MomentMark mark;
        if (row.contains("frame")) mark.frame = row["frame"].get<std::int64_t>();
        mark.notVisible = row.value("notVisible", "");
        m.moments[need(momentFromId(id), "position")] = mark;
    }
    for (const auto& row : d.at("points")) {
        const PointKey key{row.at("frame"),
                           need(landmarkFromId(row.at("landmark").get<std::string>()), "landmark")};
        m.points[key] = {{pointIn(row.at("at")), row.at("sigmaPx")}, row.value("hidden", "")};
    }
    const json paths = d.value("paths", json::object());
    for (const auto& [id, path] : paths.items())
        m.paths[need(landmarkFromId(id), "landmark")] = {pathIn(path.at("places")), pathIn(path.at("from")),
                                                         path.value("asks", std::vector<std::int64_t>{})};
    readMarks(d.at("marks"), m);
    for (const auto& [id, row] : d.at("measureNotes").items())
        m.measureNotes[id] = {enumIn<MeasureState>(row.at("state"), 4, "state"), row.value("reason", "")};
    const json answers = d.value("answers", json::object());
    for (const auto& [id, a] : answers.items())
        m.answers[id] = {a.value("seen", ""), a.value("numbers", std::map<std::string, double>{})};
}

/// The delivery in hand stands in the review itself, as it did before there were others.
void writeLooking(const Review& r, json& d) {
    writeDelivery(r, d);
    if (!r.aside.empty()) {
        d["aside"] = json::array();
        for (const DeliveryMarks& m : r.aside) {
            json row;
            writeDelivery(m, row);
            d["aside"].push_back(std::move(row));
        }
    }
    d["grades"] = json::object();
    for (const auto& [id, g] : r.grades)
        d["grades"][id] = {{"state", idOf(g.state)}, {"step", g.step}, {"reason", g.reason}};
    d["extras"] = r.extras;
}

void readLooking(const json& d, Review& r) {
    readDelivery(d, r);
    for (const json& row : d.value("aside", json::array())) {
        DeliveryMarks m;
        readDelivery(row, m);
        if (r.delivery(m.number)) throw std::invalid_argument("two deliveries have the same number");
        r.aside.push_back(std::move(m));
    }
    for (const auto& [id, row] : d.at("grades").items())
        r.grades[id] = {enumIn<GradeState>(row.at("state"), 6, "grade"), row.at("step"),
                        row.value("reason", "")};
    r.extras = d.value("extras", r.extras);
}

void writeSaying(const Review& r, json& d) {
    d["stops"] = json::array();
    for (const Stop& s : r.stops)
        d["stops"].push_back({{"id", s.id.value},
                              {"kind", idOf(s.kind)},
                              {"finding", s.finding},
                              {"title", s.title},
                              {"frame", s.frame},
                              {"delivery", s.delivery}});
    d["takes"] = json::object();
    for (const auto& [id, t] : r.takes) d["takes"][id.value] = takeAsJson(t);
    d["plan"] = planAsJson(r.plan);
    if (r.sent) d["sent"] = {{"on", isoDate(r.sent->on)}, {"to", r.sent->to}};
}

void readSaying(const json& d, Review& r) {
    for (const auto& s : d.at("stops"))
        r.stops.push_back({{s.at("id")},
                           enumIn<StopKind>(s.at("kind"), 3, "stop"),
                           s.at("finding"),
                           s.at("title"),
                           s.at("frame"),
                           s.value("delivery", 1)});
    for (const auto& [id, t] : d.at("takes").items()) r.takes[StopId{id}] = takeIn(t);
    r.plan = planIn(d.at("plan"));
    if (d.contains("sent")) r.sent = SentRecord{mustDate(d["sent"], "on"), d["sent"].at("to")};
}

} // namespace

json targetAsJson(const Target& t) {
    json row = {{"measure", t.measure},
                {"position", info(t.position).id},
                {"type", idOf(t.type)},
                {"x", t.x},
                {"y", t.y},
                {"soft", t.soft},
                {"unit", t.unit}};
    if (t.good) row["good"] = *t.good;
    return row;
}

std::string toJson(const Review& r) {
    json d = {{"format", "juxtagraph-review-1"},
              {"id", r.id.value},
              {"submission", r.submission.value},
              {"athlete", r.athlete.value},
              {"date", isoDate(r.date)},
              {"stage", idOf(r.stage)},
              {"approach", approachAsJson(r.approach)}};
    writeLooking(r, d);
    writeSaying(r, d);
    return d.dump();
}

Result<Review> reviewFromJson(std::string_view text) {
    return guarded<Review>(text, "review", [](const json& d) {
        Review r;
        r.id.value = d.at("id");
        r.submission.value = d.at("submission");
        r.athlete.value = d.at("athlete");
        r.date = mustDate(d, "date");
        r.stage = need(stageFromId(d.at("stage").get<std::string>()), "stage");
        r.approach = approachIn(d.at("approach"));
        readLooking(d, r);
        readSaying(d, r);
        return r;
    });
}

} // namespace jg
