// SPDX-License-Identifier: GPL-3.0-or-later
#include "coaching/target_json.h"
#include "review/record/delivery_json.h"
#include "review/record/json_fields.h"
#include "review/record/message_json.h"
#include "review/record/review_json.h"

namespace jg {

using nlohmann::json;

namespace {

// Own choice, far beyond any film: what is reckoned with them stays within its type.
constexpr std::int64_t kMostFrames = 100'000'000;
constexpr int kMostPixels = 1'000'000;
constexpr double kMostFps = 1e6;

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
            {"height", c.height}};
}

void readSurveyIn(const json& row, Clip& c) {
    if (row.contains("tiltDeg")) c.tiltDeg = row["tiltDeg"].get<double>();
    c.check = messagesIn(row.value("check", json::array()));
    c.damaged = row.value("damaged", c.damaged);
    c.deliveries = deliveriesIn(row.value("deliveries", json::array()));
}

Clip clipIn(const json& row) {
    Clip c;
    c.id.value = idIn(row.at("id"));
    c.athlete.value = idIn(row.at("athlete"));
    c.mediaHash = fileNameIn(row.at("media"));
    c.extension = row.at("extension");
    c.fileName = row.at("fileName");
    c.view = need(viewFromId(row.at("view").get<std::string>()), "view");
    c.captureFps = within(row.at("captureFps"), 0.0, kMostFps, "captureFps");
    c.captureSource = row.value("captureSource", "");
    c.frames = within<std::int64_t>(row.at("frames"), 0, kMostFrames, "frames");
    c.width = within(row.at("width"), 0, kMostPixels, "width");
    c.height = within(row.at("height"), 0, kMostPixels, "height");
    readSurveyIn(row, c); // a library of schema 1 keeps it here
    return c;
}

json consentAsJson(const Consent& c) {
    return {{"filming", c.filming},
            {"showing", c.showing},
            {"model", c.model},
            {"by", c.by},
            {"byGuardian", c.byGuardian},
            {"on", isoDate(c.on)},
            {"until", dateAsJson(c.until)},
            {"takenBack", dateAsJson(c.takenBack)}};
}

Consent consentIn(const json& row) {
    return {row.at("filming"),    row.at("showing"),   row.at("model"),      row.at("by"),
            row.at("byGuardian"), mustDate(row, "on"), dateIn(row, "until"), dateIn(row, "takenBack")};
}

} // namespace

std::string surveyToJson(const Clip& c) {
    json row = {{"check", messagesAsJson(c.check)},
                {"damaged", c.damaged},
                {"deliveries", deliveriesAsJson(c.deliveries)}};
    if (c.tiltDeg) row["tiltDeg"] = *c.tiltDeg;
    return row.dump();
}

Status readSurvey(std::string_view text, Clip& clip) {
    auto read = guarded<Clip>(text, "film-check", [&](const json& row) {
        Clip c = clip;
        readSurveyIn(row, c);
        return c;
    });
    if (!read) return read.error();
    clip = std::move(*read);
    return Done{};
}

Message Submission::painWords() const {
    return messageFromText(pain);
}

std::string toJson(const Athlete& a) {
    json row = {
        {"id", a.id.value},        {"firstName", a.firstName},       {"lastName", a.lastName},
        {"born", isoDate(a.born)}, {"hand", idOf(a.hand)},           {"level", a.level},
        {"email", a.email},        {"guardianName", a.guardianName}, {"guardianEmail", a.guardianEmail}};
    if (a.heightM) row["heightM"] = *a.heightM;
    if (!a.approach.empty()) row["approach"] = a.approach;
    if (a.comingBack) {
        row["comingBack"] = {{"from", a.comingBack->from}, {"planSeen", dateAsJson(a.comingBack->planSeen)}};
    }
    for (const Target& t : a.targets) row["targets"].push_back(targetAsJson(t));
    for (const Baseline& b : a.baselines)
        row["baselines"].push_back({{"name", b.name}, {"review", b.review.value}, {"delivery", b.delivery}});
    for (const Overruled& o : a.overruled)
        row["overruled"].push_back({{"measure", o.measure}, {"why", o.why}, {"on", isoDate(o.on)}});
    for (const HeightOn& h : a.heights) row["heights"].push_back({{"on", isoDate(h.on)}, {"m", h.metres}});
    for (const PitchCount& o : a.outings)
        row["outings"].push_back({{"on", isoDate(o.on)}, {"pitches", o.pitches}, {"felt", o.felt}});
    if (!a.model.empty()) row["model"] = a.model;
    if (a.consent) row["consent"] = consentAsJson(*a.consent);
    if (a.language != Language::English) row["language"] = idOf(a.language);
    return row.dump();
}

Result<Athlete> athleteFromJson(std::string_view text) {
    return guarded<Athlete>(text, "athlete", [](const json& d) {
        Athlete a;
        a.id.value = idIn(d.at("id"));
        a.firstName = d.at("firstName");
        a.lastName = d.at("lastName");
        a.born = mustDate(d, "born");
        a.hand = need(handFromId(d.at("hand").get<std::string>()), "hand");
        a.level = d.value("level", "");
        if (d.contains("heightM")) a.heightM = d["heightM"].get<double>();
        a.approach = d.value("approach", "");
        if (d.contains("comingBack"))
            a.comingBack = ComingBack{d["comingBack"].at("from"), dateIn(d["comingBack"], "planSeen")};
        for (const json& t : d.value("targets", json::array())) a.targets.push_back(targetFromJson(t));
        for (const json& b : d.value("baselines", json::array()))
            a.baselines.push_back({b.at("name"), {idIn(b.at("review"))}, b.value("delivery", 0)});
        for (const json& o : d.value("overruled", json::array()))
            a.overruled.push_back({o.at("measure"), o.at("why"), mustDate(o, "on")});
        for (const json& h : d.value("heights", json::array()))
            a.heights.push_back({mustDate(h, "on"), h.at("m")});
        for (const json& o : d.value("outings", json::array()))
            a.outings.push_back({mustDate(o, "on"), o.at("pitches"), o.value("felt", "")});
        a.model = d.value("model", "");
        if (d.contains("consent")) a.consent = consentIn(d["consent"]);
        a.language = need(languageFromId(d.value("language", "en")), "language");
        a.email = d.value("email", "");
        a.guardianName = d.value("guardianName", "");
        a.guardianEmail = d.value("guardianEmail", "");
        return a;
    });
}

std::string toJson(const Promise& p) {
    return json{{"owes", idOf(p.owes)},           {"kept", idOf(p.kept)}, {"made", dateAsJson(p.made)},
                {"closed", dateAsJson(p.closed)}, {"words", p.words},     {"review", p.review.value}}
        .dump();
}

Result<Promise> promiseFromJson(std::string_view text) {
    if (text.empty()) return Promise{};
    return guarded<Promise>(text, "promise", [](const json& d) {
        Promise p;
        p.owes = enumIn<Owes>(d.at("owes"), 2, "owes");
        p.kept = enumIn<Kept>(d.at("kept"), 3, "kept");
        p.made = dateIn(d, "made");
        p.closed = dateIn(d, "closed");
        p.words = d.value("words", "");
        p.review.value = idIn(d.value("review", json("")));
        return p;
    });
}

std::string toJson(const Submission& s) {
    json clips = json::array();
    for (const Clip& c : s.clips) clips.push_back(clipAsJson(c));
    json row = {{"id", s.id.value},
                {"athlete", s.athlete.value},
                {"received", isoDate(s.received)},
                {"promised", dateAsJson(s.promised)},
                {"asked", s.asked},
                {"pain", s.pain},
                {"delivery", idOf(s.start)},
                {"surface", idOf(s.surface)},
                {"clips", clips}};
    if (!s.mail.empty()) row["mail"] = s.mail;
    if (s.painClosed) row["painClosed"] = {{"on", isoDate(s.painClosed->on)}, {"words", s.painClosed->words}};
    return row.dump();
}

Result<Submission> submissionFromJson(std::string_view text) {
    return guarded<Submission>(text, "submission", [](const json& d) {
        Submission s;
        s.id.value = idIn(d.at("id"));
        s.athlete.value = idIn(d.at("athlete"));
        s.received = mustDate(d, "received");
        s.promised = dateIn(d, "promised");
        s.asked = d.value("asked", "");
        s.pain = d.value("pain", "");
        s.mail = d.value("mail", "");
        if (d.contains("painClosed"))
            s.painClosed = PainClosed{mustDate(d["painClosed"], "on"), d["painClosed"].value("words", "")};
        s.start = need(startFromId(d.value("delivery", "")), "start");
        s.surface = need(surfaceFromId(d.value("surface", "")), "surface");
        for (const auto& c : d.at("clips")) s.clips.push_back(clipIn(c));
        return s;
    });
}

} // namespace jg
