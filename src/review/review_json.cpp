#include "review/review_json.h"

#include "coaching/target_json.h"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <array>
#include <stdexcept>

namespace jg {

using nlohmann::json;

namespace {

template <typename T>
T need(std::optional<T> value, const char* what) {
    if (!value) throw std::invalid_argument(std::string(what) + " is not valid");
    return *value;
}

json dateAsJson(const std::optional<Date>& date) {
    return date ? json(isoDate(*date)) : json(nullptr);
}

std::optional<Date> dateIn(const json& row, const char* field) {
    if (!row.contains(field) || row[field].is_null()) return std::nullopt;
    return need(parseIsoDate(row[field].get<std::string>()), field);
}

Date mustDate(const json& row, const char* field) {
    return need(dateIn(row, field), field);
}

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

json deliveriesAsJson(const std::vector<FoundDelivery>& deliveries) {
    json rows = json::array();
    for (const FoundDelivery& d : deliveries) {
        json places = json::object();
        for (const auto& [moment, place] : d.places)
            places[std::string(info(moment).id)] = {{"frame", place.frame}, {"sure", place.sure}};
        rows.push_back({{"first", d.first}, {"last", d.last}, {"places", places}});
    }
    return rows;
}

std::vector<FoundDelivery> deliveriesIn(const json& rows) {
    std::vector<FoundDelivery> all;
    for (const json& row : rows) {
        FoundDelivery d{row.at("first"), row.at("last"), {}};
        for (const auto& [id, place] : row.at("places").items())
            d.places[need(momentFromId(id), "moment")] = {place.at("frame"), place.at("sure")};
        all.push_back(std::move(d));
    }
    return all;
}

json clipAsJson(const Clip& c) {
    return {{"id", c.id.value},           {"athlete", c.athlete.value},
            {"media", c.mediaHash},       {"extension", c.extension},
            {"fileName", c.fileName},     {"view", idOf(c.view)},
            {"captureFps", c.captureFps}, {"captureSource", c.captureSource},
            {"frames", c.frames},         {"width", c.width},
            {"height", c.height},         {"check", c.check},
            {"damaged", c.damaged},       {"deliveries", deliveriesAsJson(c.deliveries)}};
}

Clip clipIn(const json& row) {
    Clip c;
    c.id.value = row.at("id");
    c.athlete.value = row.at("athlete");
    c.mediaHash = row.at("media");
    c.extension = row.at("extension");
    c.fileName = row.at("fileName");
    c.view = need(viewFromId(row.at("view").get<std::string>()), "view");
    c.captureFps = row.at("captureFps");
    c.captureSource = row.value("captureSource", "");
    c.frames = row.at("frames");
    c.width = row.at("width");
    c.height = row.at("height");
    c.check = row.value("check", std::vector<std::string>{});
    c.damaged = row.value("damaged", c.damaged);
    c.deliveries = deliveriesIn(row.value("deliveries", json::array()));
    return c;
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

void writeLooking(const Review& r, json& d) {
    if (r.turn) d["cameraTurnDeg"] = r.turn->deg;
    if (r.cut) d["cut"] = {r.cut->first, r.cut->last};
    if (r.shake) {
        json shifts = json::array();
        for (const auto& [frame, by] : r.shake->shifts) shifts.push_back({frame, by.x, by.y});
        d["shake"] = {{"reference", r.shake->reference},
                      {"sdPx", r.shake->sdPx},
                      {"on", r.shake->on},
                      {"shifts", shifts}};
    }
    d["scales"] = json::object();
    for (const auto& [kind, s] : r.scales)
        d["scales"][std::string(info(kind).id)] = {{"frame", s.frame},
                                                   {"from", pointAsJson(s.from)},
                                                   {"to", pointAsJson(s.to)},
                                                   {"metres", s.metres}};
    d["moments"] = json::object();
    for (const auto& [moment, mark] : r.moments) {
        json row = json::object();
        if (mark.frame)
            row["frame"] = *mark.frame;
        else
            row["notVisible"] = mark.notVisible;
        d["moments"][std::string(info(moment).id)] = row;
    }
    d["points"] = json::array();
    for (const auto& [key, mark] : r.points) {
        json row = {{"frame", key.frame},
                    {"landmark", info(key.landmark).id},
                    {"at", pointAsJson(mark.point.at)},
                    {"sigmaPx", mark.point.sigmaPx}};
        if (!mark.hidden.empty()) row["hidden"] = mark.hidden;
        d["points"].push_back(row);
    }
    d["paths"] = json::object();
    for (const auto& [landmark, path] : r.paths)
        d["paths"][std::string(info(landmark).id)] = {
            {"places", pathAsJson(path.places)}, {"from", pathAsJson(path.from)}, {"asks", path.asks}};
    d["marks"] = json::array();
    for (const auto& [id, mark] : r.marks) {
        json points = json::array();
        for (const ImagePoint p : mark.points) points.push_back(pointAsJson(p));
        d["marks"].push_back(
            {{"id", id}, {"kind", idOf(mark.kind)}, {"frame", mark.frame}, {"points", points}});
    }
    d["grades"] = json::object();
    for (const auto& [id, g] : r.grades)
        d["grades"][id] = {{"state", idOf(g.state)}, {"step", g.step}, {"reason", g.reason}};
    d["measureNotes"] = json::object();
    for (const auto& [id, n] : r.measureNotes)
        d["measureNotes"][id] = {{"state", idOf(n.state)}, {"reason", n.reason}};
    d["answers"] = json::object();
    for (const auto& [id, a] : r.answers) d["answers"][id] = {{"seen", a.seen}, {"numbers", a.numbers}};
    d["extras"] = r.extras;
}

void readLooking(const json& d, Review& r) {
    const json answers = d.value("answers", json::object());
    for (const auto& [id, a] : answers.items())
        r.answers[id] = {a.value("seen", ""), a.value("numbers", std::map<std::string, double>{})};
    r.extras = d.value("extras", r.extras);
    if (d.contains("cameraTurnDeg")) r.turn = CameraTurn{d["cameraTurnDeg"]};
    if (d.contains("cut")) r.cut = FrameSpan{d["cut"].at(0), d["cut"].at(1)};
    if (d.contains("shake")) {
        const json& s = d["shake"];
        r.shake = CameraShake{s.at("reference"), {}, s.at("sdPx"), s.at("on")};
        for (const json& row : s.at("shifts")) r.shake->shifts[row.at(0)] = {row.at(1), row.at(2)};
    }
    const json scales = d.value("scales", json::object());
    for (const auto& [id, s] : scales.items())
        r.scales[need(scaleFromId(id), "scale")] = {s.at("frame"), pointIn(s.at("from")), pointIn(s.at("to")),
                                                    s.at("metres")};
    for (const auto& [id, row] : d.at("moments").items()) {
        MomentMark mark;
        if (row.contains("frame")) mark.frame = row["frame"].get<std::int64_t>();
        mark.notVisible = row.value("notVisible", "");
        r.moments[need(momentFromId(id), "position")] = mark;
    }
    for (const auto& row : d.at("points")) {
        const PointKey key{row.at("frame"),
                           need(landmarkFromId(row.at("landmark").get<std::string>()), "landmark")};
        r.points[key] = {{pointIn(row.at("at")), row.at("sigmaPx")}, row.value("hidden", "")};
    }
    const json paths = d.value("paths", json::object());
    for (const auto& [id, path] : paths.items())
        r.paths[need(landmarkFromId(id), "landmark")] = {pathIn(path.at("places")), pathIn(path.at("from")),
                                                         path.value("asks", std::vector<std::int64_t>{})};
    for (const auto& row : d.at("marks")) {
        FreeMark mark{row.at("id"), enumIn<MarkKind>(row.at("kind"), 5, "mark"), row.at("frame"), {}};
        for (const auto& p : row.at("points")) mark.points.push_back(pointIn(p));
        if (mark.points.size() != pointsOf(mark.kind))
            throw std::invalid_argument("a mark has the wrong number of points");
        r.marks[mark.id] = mark;
    }
    for (const auto& [id, row] : d.at("grades").items())
        r.grades[id] = {enumIn<GradeState>(row.at("state"), 6, "grade"), row.at("step"),
                        row.value("reason", "")};
    for (const auto& [id, row] : d.at("measureNotes").items())
        r.measureNotes[id] = {enumIn<MeasureState>(row.at("state"), 4, "state"), row.value("reason", "")};
}

void writeSaying(const Review& r, json& d) {
    d["stops"] = json::array();
    for (const Stop& s : r.stops)
        d["stops"].push_back({{"id", s.id.value},
                              {"kind", idOf(s.kind)},
                              {"finding", s.finding},
                              {"title", s.title},
                              {"frame", s.frame}});
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
                           s.at("frame")});
    for (const auto& [id, t] : d.at("takes").items()) r.takes[StopId{id}] = takeIn(t);
    r.plan = planIn(d.at("plan"));
    if (d.contains("sent")) r.sent = SentRecord{mustDate(d["sent"], "on"), d["sent"].at("to")};
}

template <typename T, typename Read>
Result<T> guarded(std::string_view text, const char* what, Read read) {
    try {
        return read(json::parse(text));
    } catch (const std::exception& e) {
        return fail(ErrorCode::Damaged, std::string("The ") + what + " can't be read: " + e.what() + ".");
    }
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
              {"clip", r.clip.value},
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
        r.clip.value = d.at("clip");
        r.date = mustDate(d, "date");
        r.stage = need(stageFromId(d.at("stage").get<std::string>()), "stage");
        r.approach = approachIn(d.at("approach"));
        readLooking(d, r);
        readSaying(d, r);
        return r;
    });
}

std::string toJson(const Athlete& a) {
    return json{
        {"id", a.id.value},        {"firstName", a.firstName},       {"lastName", a.lastName},
        {"born", isoDate(a.born)}, {"hand", idOf(a.hand)},           {"level", a.level},
        {"email", a.email},        {"guardianName", a.guardianName}, {"guardianEmail", a.guardianEmail}}
        .dump();
}

Result<Athlete> athleteFromJson(std::string_view text) {
    return guarded<Athlete>(text, "athlete", [](const json& d) {
        return Athlete{{d.at("id")},
                       d.at("firstName"),
                       d.at("lastName"),
                       mustDate(d, "born"),
                       need(handFromId(d.at("hand").get<std::string>()), "hand"),
                       d.value("level", ""),
                       d.value("email", ""),
                       d.value("guardianName", ""),
                       d.value("guardianEmail", "")};
    });
}

std::string toJson(const Submission& s) {
    json clips = json::array();
    for (const Clip& c : s.clips) clips.push_back(clipAsJson(c));
    return json{{"id", s.id.value},
                {"athlete", s.athlete.value},
                {"received", isoDate(s.received)},
                {"promised", dateAsJson(s.promised)},
                {"asked", s.asked},
                {"pain", s.pain},
                {"delivery", s.delivery},
                {"surface", s.surface},
                {"clips", clips}}
        .dump();
}

Result<Submission> submissionFromJson(std::string_view text) {
    return guarded<Submission>(text, "submission", [](const json& d) {
        Submission s;
        s.id.value = d.at("id");
        s.athlete.value = d.at("athlete");
        s.received = mustDate(d, "received");
        s.promised = dateIn(d, "promised");
        s.asked = d.value("asked", "");
        s.pain = d.value("pain", "");
        s.delivery = d.value("delivery", "");
        s.surface = d.value("surface", "");
        for (const auto& c : d.at("clips")) s.clips.push_back(clipIn(c));
        return s;
    });
}

} // namespace jg
