// SPDX-License-Identifier: GPL-3.0-or-later
// An assessment as it was computed, kept with its review.
#include "coaching/target_json.h"
#include "review/assess/counts_json.h"
#include "review/assess/summary.h"
#include "review/record/delivery_json.h"
#include "review/record/json_fields.h"
#include "review/record/message_json.h"
#include "review/record/review_json.h"

#include <algorithm>
#include <cmath>

namespace jg {

using nlohmann::json;

namespace {

constexpr const char* kFormat = "juxtagraph-results-1";
constexpr int kStates = 4, kJudgeStates = 6;

/// JSON knows no infinity: a gap over an error of nothing is kept as very large.
double finite(double v) {
    constexpr double kLargest = 1e300;
    return std::isnan(v) ? 0 : std::clamp(v, -kLargest, kLargest);
}

json valueAsJson(const MeasureValue& v) {
    json row = {{"id", v.id},
                {"unit", v.unit},
                {"sd", finite(v.sd)},
                {"low95", finite(v.low95)},
                {"high95", finite(v.high95)},
                {"state", idOf(v.state)}};
    row["value"] = v.value ? json(*v.value) : json(nullptr);
    if (!v.seen.empty()) row["seen"] = v.seen;
    if (!v.words.empty()) row["words"] = messageAsJson(v.words);
    if (!v.reason.empty()) row["reason"] = messageAsJson(v.reason);
    if (!v.warnings.empty()) row["warnings"] = messagesAsJson(v.warnings);
    return row;
}

MeasureValue valueIn(const json& row) {
    MeasureValue v;
    v.id = row.at("id");
    if (!row.at("value").is_null()) v.value = row["value"].get<double>();
    v.unit = row.at("unit");
    v.sd = row.at("sd");
    v.low95 = row.at("low95");
    v.high95 = row.at("high95");
    v.state = enumIn<MeasureState>(row.at("state"), kStates, "state");
    v.words = messageIn(row.value("words", json("")));
    v.seen = row.value("seen", "");
    v.reason = messageIn(row.value("reason", json("")));
    v.warnings = messagesIn(row.value("warnings", json::array()));
    return v;
}

json verdictAsJson(const std::optional<Verdict>& v) {
    return v ? json(idOf(*v)) : json(nullptr);
}

std::optional<Verdict> verdictIn(const json& row) {
    if (row.is_null()) return std::nullopt;
    return need(verdictFromId(row.get<std::string>()), "verdict");
}

json judgementAsJson(const Judgement& j) {
    return {{"state", idOf(j.state)},
            {"verdict", verdictAsJson(j.verdict)},
            {"gap", finite(j.gap)},
            {"gapInSds", finite(j.gapInSds)},
            {"text", messageAsJson(j.text)}};
}

Judgement judgementIn(const json& row) {
    return {enumIn<JudgeState>(row.at("state"), kJudgeStates, "judgement"), verdictIn(row.at("verdict")),
            row.at("gap"), row.at("gapInSds"), messageIn(row.at("text"))};
}

json spreadAsJson(const PitchSpread& s) {
    return {{"pitches", s.pitches}, {"judged", s.judged}, {"offTarget", s.offTarget},
            {"mean", s.mean},       {"sd", s.sd},         {"half95", s.half95},
            {"unit", s.unit}};
}

PitchSpread spreadIn(const json& row) {
    PitchSpread s;
    s.pitches = row.at("pitches");
    s.judged = row.at("judged");
    s.offTarget = row.at("offTarget");
    s.mean = row.at("mean");
    s.sd = row.at("sd");
    s.half95 = row.at("half95");
    s.unit = row.at("unit");
    return s;
}

json rowAsJson(const MeasureRow& m) {
    json row = {{"value", valueAsJson(m.value)},
                {"judgement", judgementAsJson(m.judgement)},
                {"target", targetAsJson(m.target)},
                {"delivery", m.delivery}};
    for (const DeliveryValue& d : m.deliveries)
        row["deliveries"].push_back({{"number", d.number},
                                     {"pitch", d.pitch},
                                     {"view", idOf(d.view)},
                                     {"value", valueAsJson(d.value)},
                                     {"verdict", verdictAsJson(d.verdict)},
                                     {"standsOut", d.standsOut}});
    if (m.spread) row["spread"] = spreadAsJson(*m.spread);
    if (m.byHand) row["byHand"] = gradeAsJson(*m.byHand);
    return row;
}

MeasureRow rowIn(const json& row) {
    MeasureRow m;
    m.value = valueIn(row.at("value"));
    m.id = m.value.id;
    m.judgement = judgementIn(row.at("judgement"));
    m.target = targetFromJson(row.at("target"));
    m.delivery = row.at("delivery");
    for (const json& d : row.value("deliveries", json::array()))
        m.deliveries.push_back({d.at("number"), d.at("pitch"),
                                need(viewFromId(d.at("view").get<std::string>()), "view"),
                                valueIn(d.at("value")), verdictIn(d.at("verdict")), d.at("standsOut")});
    if (row.contains("spread")) m.spread = spreadIn(row["spread"]);
    if (row.contains("byHand")) m.byHand = gradeIn(row["byHand"]);
    return m;
}

json itemAsJson(const ItemRow& i) {
    json row = {{"id", i.id}, {"seen", i.seenFromHere}, {"delivery", i.delivery}};
    if (i.grade) row["grade"] = gradeAsJson(*i.grade);
    return row;
}

ItemRow itemIn(const json& row) {
    ItemRow i{row.at("id"), std::nullopt, row.at("seen"), row.at("delivery")};
    if (row.contains("grade")) i.grade = gradeIn(row["grade"]);
    return i;
}

json findingAsJson(const Judged& j) {
    json row = {{"id", j.finding.id},
                {"verdict", idOf(j.finding.verdict)},
                {"gapInSds", finite(j.finding.gapInSds)},
                {"strength", j.strength},
                {"cannotTell", j.cannotTell}};
    if (!j.finding.side.empty()) row["side"] = j.finding.side;
    return row;
}

Judged findingIn(const json& row) {
    return {{row.at("id"), *verdictIn(row.at("verdict")), row.at("gapInSds"), row.value("side", "")},
            row.at("strength"),
            row.at("cannotTell")};
}

template <typename Row, typename Write>
json listAsJson(const std::vector<Row>& rows, Write write) {
    json list = json::array();
    for (const Row& row : rows) list.push_back(write(row));
    return list;
}

} // namespace

std::string toJson(const Assessment& a) {
    return json{{"format", kFormat},
                {"delivery", a.delivery},
                {"measures", listAsJson(a.measures, rowAsJson)},
                {"items", listAsJson(a.items, itemAsJson)},
                {"findings", listAsJson(a.findings, findingAsJson)},
                {"notSeen", messagesAsJson(a.notSeen)},
                {"counts", countsAsJson(a.counts)}}
        .dump();
}

Result<Assessment> assessmentFromJson(std::string_view text) {
    return guarded<Assessment>(text, "results", [](const json& d) {
        if (d.value("format", "") != kFormat) throw Unfit(msg("document.format"));
        Assessment a;
        a.delivery = d.at("delivery");
        for (const json& row : d.at("measures")) a.measures.push_back(rowIn(row));
        for (const json& row : d.at("items")) a.items.push_back(itemIn(row));
        for (const json& row : d.at("findings")) a.findings.push_back(findingIn(row));
        a.notSeen = messagesIn(d.at("notSeen"));
        a.counts = countsIn(d.at("counts"));
        return a;
    });
}

} // namespace jg
