// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/record/review_json.h"

#include "coaching/approach_json.h"
#include "coaching/target_json.h"
#include "review/record/delivery_json.h"
#include "review/record/json_fields.h"
#include "review/record/message_json.h"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <array>
#include <stdexcept>

namespace jg {

using nlohmann::json;

namespace {

constexpr const char* kReviewFormat = "juxtagraph-review-2";
constexpr const char* kReviewFormat1 = "juxtagraph-review-1";

constexpr std::array kEventIds = {"frame",    "pointer",   "pointer-off", "stroke",  "stroke-to", "clear",
                                  "marks-on", "marks-off", "stroke-drop", "goal-on", "goal-off",  "view"};
constexpr std::array kPenIds = {"free", "line", "arrow", "ring", "box"};

/// The place of an id among those of a kind.
template <std::size_t N>
std::optional<std::size_t> placeIn(const std::array<const char*, N>& ids, const std::string& id) {
    const auto it = std::find(ids.begin(), ids.end(), id);
    return it == ids.end() ? std::nullopt : std::optional(static_cast<std::size_t>(it - ids.begin()));
}

bool ofStroke(TakeEventKind kind) {
    return kind == TakeEventKind::StrokeBegin || kind == TakeEventKind::StrokeTo;
}

json eventAsJson(const TakeEvent& e) {
    json row = {{"sample", e.sample}, {"kind", kEventIds.at(static_cast<std::size_t>(e.kind))}};
    if (e.kind == TakeEventKind::Frame) row["frame"] = e.frame;
    if (ofStroke(e.kind) || e.kind == TakeEventKind::Pointer || e.kind == TakeEventKind::View)
        row["at"] = pointAsJson(e.at);
    if (e.kind == TakeEventKind::View) row["to"] = pointAsJson(e.to);
    if (e.pen != Pen::Free) row["pen"] = kPenIds.at(static_cast<std::size_t>(e.pen));
    if (e.fades) row["fades"] = true;
    if (e.joint) row["joint"] = info(*e.joint).id;
    return row;
}

TakeEvent eventIn(const json& row) {
    TakeEvent e;
    e.sample = row.at("sample");
    const auto id = row.at("kind").get<std::string>();
    const auto kind = placeIn(kEventIds, id);
    if (!kind) throw Unfit(msg("document.event", {{"id", id}}));
    e.kind = static_cast<TakeEventKind>(*kind);
    e.frame = row.value("frame", std::int64_t{0});
    if (row.contains("at")) e.at = pointIn(row["at"]);
    if (row.contains("to")) e.to = pointIn(row["to"]);
    if (row.contains("pen")) e.pen = static_cast<Pen>(need(placeIn(kPenIds, row["pen"]), "pen"));
    e.fades = row.value("fades", false);
    if (row.contains("joint")) e.joint = need(landmarkFromId(row["joint"].get<std::string>()), "landmark");
    return e;
}

json takeAsJson(const Take& t) {
    json events = json::array();
    for (const TakeEvent& e : t.events) events.push_back(eventAsJson(e));
    json row = {{"file", t.file},
                {"sampleRate", t.sampleRate},
                {"samples", t.samples},
                {"microphone", t.microphone},
                {"events", events}};
    for (const SampleSpan& cut : t.cuts) row["cuts"].push_back({cut.from, cut.to});
    if (t.atUnix != 0) row["at"] = t.atUnix;
    return row;
}

Take takeIn(const json& row) {
    constexpr int kMostSamplesAS = 768'000;
    constexpr std::int64_t kMostSamples = std::int64_t{1} << 40; // months
    Take t{fileNameIn(row.at("file")),
           within(row.at("sampleRate"), 1, kMostSamplesAS, "sampleRate"),
           within<std::int64_t>(row.at("samples"), 0, kMostSamples, "samples"),
           row.value("microphone", ""),
           {}};
    for (const auto& e : row.at("events")) t.events.push_back(eventIn(e));
    std::int64_t last = 0;
    for (const auto& cut : row.value("cuts", json::array())) {
        t.cuts.push_back({cut.at(0), cut.at(1)});
        if (t.cuts.back().from < last || t.cuts.back().to < t.cuts.back().from ||
            t.cuts.back().to > t.samples)
            throw Unfit(msg("document.not-valid", {{"what", "cut"}}));
        last = t.cuts.back().to;
    }
    t.atUnix = row.value("at", std::int64_t{0});
    return t;
}

json circumstancesAsJson(const Circumstances& c) {
    return {{"days", c.days},
            {"gameDays", c.gameDays},
            {"season", idOf(c.season)},
            {"throwing", c.throwing},
            {"without", c.without}};
}

Circumstances circumstancesIn(const json& row) {
    Circumstances c;
    c.days = row.value("days", c.days) & 0x7FU;
    c.gameDays = row.value("gameDays", c.gameDays) & 0x7FU;
    c.season = need(seasonFromId(row.value("season", "unknown")), "season");
    c.throwing = row.value("throwing", c.throwing);
    c.without = row.value("without", c.without);
    return c;
}

json whyNotAsJson(const WhyNot& w) {
    json row = {{"finding", w.finding}, {"screens", w.screens}};
    if (w.need) row["need"] = idOf(*w.need);
    return row;
}

WhyNot whyNotIn(const json& row) {
    WhyNot w{row.at("finding"), std::nullopt, {}};
    w.screens = row.value("screens", w.screens);
    if (row.contains("need")) w.need = need(needFromId(row["need"].get<std::string>()), "need");
    return w;
}

/// What was decided on causes, needs and the week; an older review has none of it.
void writeReasons(const Plan& p, json& row) {
    row["keeps"] = p.keeps;
    row["circumstances"] = circumstancesAsJson(p.circumstances);
    row["causes"] = row["whyNot"] = json::array();
    for (const CauseChoice& c : p.causes)
        row["causes"].push_back(
            {{"from", c.from}, {"to", c.to}, {"stance", idOf(c.stance)}, {"words", c.words}});
    for (const WhyNot& w : p.whyNot) row["whyNot"].push_back(whyNotAsJson(w));
    for (const auto& [finding, size] : p.sizes) row["sizes"][finding] = idOf(size);
}

void readReasons(const json& row, Plan& p) {
    p.keeps = row.value("keeps", p.keeps);
    if (row.contains("circumstances")) p.circumstances = circumstancesIn(row["circumstances"]);
    for (const json& c : row.value("causes", json::array()))
        p.causes.push_back(
            {c.at("from"), c.at("to"), enumIn<Stance>(c.at("stance"), 3, "stance"), c.value("words", "")});
    for (const json& w : row.value("whyNot", json::array())) p.whyNot.push_back(whyNotIn(w));
    const json sizes = row.value("sizes", json::object()); // items() only looks at it
    for (const auto& [finding, size] : sizes.items())
        p.sizes[finding] = need(findingSizeFromId(size.get<std::string>()), "size");
}

json sentenceAsJson(const OwnSentence& s) {
    json row = {{"text", s.text}, {"was", messageAsJson(s.was)}};
    if (s.language != Language::English) row["language"] = idOf(s.language);
    return row;
}

OwnSentence sentenceIn(const json& row) {
    return {row.at("text"), messageIn(row.at("was")),
            need(languageFromId(row.value("language", "en")), "language")};
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
    json row = {{"corrections", p.corrections}, {"drills", drills}, {"nextLook", dateAsJson(p.nextLook)},
                {"opening", p.opening},         {"ask", p.ask},     {"painConfirmed", p.painConfirmed}};
    if (p.reader) row["reader"] = idOf(*p.reader);
    if (!p.sentences.empty()) row["sentences"] = json::object();
    for (const auto& [key, s] : p.sentences) row["sentences"][key] = sentenceAsJson(s);
    writeReasons(p, row);
    return row;
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
    if (row.contains("reader")) p.reader = need(audienceFromId(row["reader"].get<std::string>()), "reader");
    const json sentences = row.value("sentences", json::object()); // items() only looks at it
    for (const auto& [key, s] : sentences.items()) p.sentences[key] = sentenceIn(s);
    readReasons(row, p);
    return p;
}

json judgingAsJson(const Judging& j) {
    json grades = json::array();
    for (const auto& [key, g] : j.grades) {
        json row = gradeAsJson(g);
        row["delivery"] = key.delivery;
        row["item"] = key.item;
        grades.push_back(std::move(row));
    }
    json row = {{"approach", approachAsJson(j.approach)},
                {"playbook", j.playbook},
                {"age", j.age},
                {"grades", grades}};
    for (const Target& t : j.setAside) row["setAside"].push_back(targetAsJson(t));
    return row;
}

Judging judgingIn(const json& row) {
    Judging j{approachFromJson(row.at("approach")), row.value("playbook", ""), row.value("age", 0), {}};
    for (const json& g : row.at("grades")) j.grades[{g.at("delivery"), g.at("item")}] = gradeIn(g);
    for (const json& t : row.value("setAside", json::array())) j.setAside.push_back(targetFromJson(t));
    return j;
}

void addDelivery(DeliveryMarks m, Review& r) {
    if (r.delivery(m.number)) throw Unfit(msg("document.same-number"));
    r.deliveries.push_back(std::move(m));
}

/// Until format 2 the delivery in hand stood in the review itself, and the grades were of all of them.
void readFormat1(const json& d, Review& r) {
    addDelivery(deliveryIn(d), r);
    r.lead = r.first().number;
    for (const json& row : d.value("aside", json::array())) addDelivery(deliveryIn(row), r);
    Judging j;
    j.approach = approachFromJson(d.at("approach"));
    for (const auto& [id, row] : d.at("grades").items()) j.grades[{r.lead, id}] = gradeIn(row);
    r.judgings = {std::move(j)};
}

void readFormat2(const json& d, Review& r) {
    for (const json& row : d.at("deliveries")) addDelivery(deliveryIn(row), r);
    r.lead = d.at("lead");
    r.judgings.clear();
    for (const json& row : d.at("judgings")) r.judgings.push_back(judgingIn(row));
    if (r.deliveries.empty() || r.judgings.empty()) throw Unfit(msg("document.no-delivery"));
}

void readLooking(const json& d, Review& r) {
    r.deliveries.clear();
    d.value("format", "") == kReviewFormat1 ? readFormat1(d, r) : readFormat2(d, r);
    std::sort(r.deliveries.begin(), r.deliveries.end(),
              [](const auto& a, const auto& b) { return a.number < b.number; });
    r.extras = d.value("extras", r.extras);
    for (const json& f : d.value("own", json::array()))
        r.own.push_back({f.at("id"), f.at("words"), f.at("group"), f.at("delivery"), f.at("frame"),
                         f.value("drill", "")});
}

void writeLooking(const Review& r, json& d) {
    for (const DeliveryMarks& m : r.deliveries) d["deliveries"].push_back(deliveryAsJson(m));
    d["lead"] = r.lead;
    for (const Judging& j : r.judgings) d["judgings"].push_back(judgingAsJson(j));
    d["extras"] = r.extras;
    for (const OwnFinding& f : r.own)
        d["own"].push_back({{"id", f.id},
                            {"words", f.words},
                            {"group", f.group},
                            {"delivery", f.delivery},
                            {"frame", f.frame},
                            {"drill", f.drill}});
}

void writeSaying(const Review& r, json& d) {
    d["stops"] = json::array();
    for (const Stop& s : r.stops) {
        d["stops"].push_back({{"id", s.id.value},
                              {"kind", idOf(s.kind)},
                              {"finding", s.finding},
                              {"title", s.title},
                              {"frame", s.frame},
                              {"delivery", s.delivery}});
        if (!s.words.empty()) d["stops"].back()["words"] = s.words;
        if (s.still) d["stops"].back()["still"] = true;
        if (s.beside)
            d["stops"].back()["beside"] = {{"review", s.beside->review.value},
                                           {"delivery", s.beside->delivery},
                                           {"frame", s.beside->frame},
                                           {"with", s.beside->with}};
    }
    d["takes"] = json::object();
    for (const auto& [id, t] : r.takes) d["takes"][id.value] = takeAsJson(t);
    for (const auto& [id, spares] : r.spareTakes)
        for (const Take& t : spares) d["spareTakes"][id.value].push_back(takeAsJson(t));
    d["plan"] = planAsJson(r.plan);
    if (r.sent) d["sent"] = {{"on", isoDate(r.sent->on)}, {"to", r.sent->to}};
}

std::optional<Beside> besideIn(const json& stop) {
    if (!stop.contains("beside")) return std::nullopt;
    const json& b = stop["beside"];
    return Beside{{idIn(b.at("review"))}, b.at("delivery"), b.at("frame"), b.at("with")};
}

void readSaying(const json& d, Review& r) {
    for (const auto& s : d.at("stops"))
        r.stops.push_back({{idIn(s.at("id"))},
                           enumIn<StopKind>(s.at("kind"), 4, "stop"),
                           s.at("finding"),
                           s.at("title"),
                           s.at("frame"),
                           s.value("delivery", 1),
                           s.value("words", ""),
                           s.value("still", false),
                           besideIn(s)});
    for (const auto& [id, t] : d.at("takes").items()) r.takes[StopId{idIn(id)}] = takeIn(t);
    const json spares = d.value("spareTakes", json::object());
    for (const auto& [id, takes] : spares.items())
        for (const json& t : takes) r.spareTakes[StopId{idIn(id)}].push_back(takeIn(t));
    r.plan = planIn(d.at("plan"));
    if (d.contains("sent")) r.sent = SentRecord{mustDate(d["sent"], "on"), d["sent"].at("to")};
}

} // namespace

namespace {

/// Two items were called as a measure is. A review with the playbook of its day knows them by that; one
/// without goes by today's names.
void renameOldItems(Review& r) {
    if (!r.judging().playbook.empty()) return;
    const auto now = [&](std::string& id) {
        if (id == "foot-from-above") id = "foot-comes-down";
        if (id == "finish-across") id = "arm-swings-across";
    };
    const auto graded = r.approach().graded;
    const auto wasItem = [&](const std::string& id) {
        return std::find(graded.begin(), graded.end(), id) != graded.end();
    };
    std::map<GradeKey, Grade> grades;
    for (const auto& [key, grade] : r.judging().grades) {
        GradeKey today = key;
        if (wasItem(today.item)) now(today.item);
        grades[today] = grade;
    }
    r.judging().grades = std::move(grades);
    for (Stop& s : r.stops)
        if (wasItem(s.finding)) now(s.finding);
    for (std::string& id : r.plan.corrections)
        if (wasItem(id)) now(id);
    for (PlannedDrill& d : r.plan.drills)
        if (wasItem(d.finding)) now(d.finding);
    for (std::string& id : r.judging().approach.graded) now(id);
}

} // namespace

std::string toJson(const Review& r) {
    json d = {{"format", kReviewFormat},    {"id", r.id.value},        {"submission", r.submission.value},
              {"athlete", r.athlete.value}, {"date", isoDate(r.date)}, {"stage", idOf(r.stage)}};
    writeLooking(r, d);
    writeSaying(r, d);
    return d.dump();
}

Result<Review> reviewFromJson(std::string_view text) {
    return guarded<Review>(text, "review", [](const json& d) {
        if (const std::string format = d.value("format", "");
            format != kReviewFormat && format != kReviewFormat1)
            throw Unfit(msg("document.format"));
        Review r;
        r.id.value = idIn(d.at("id"));
        r.submission.value = idIn(d.at("submission"));
        r.athlete.value = idIn(d.at("athlete"));
        r.date = mustDate(d, "date");
        r.stage = need(stageFromId(d.at("stage").get<std::string>()), "stage");
        readLooking(d, r);
        readSaying(d, r);
        renameOldItems(r);
        return r;
    });
}

} // namespace jg
