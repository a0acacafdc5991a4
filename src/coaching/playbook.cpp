#include "coaching/playbook.h"

#include "base/file_store.h"
#include "coaching/target_json.h"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <stdexcept>

namespace jg {

using nlohmann::json;

const Target* Approach::targetOf(std::string_view measure) const {
    const auto it =
        std::find_if(targets.begin(), targets.end(), [&](const Target& t) { return t.measure == measure; });
    return it == targets.end() ? nullptr : &*it;
}

bool GradedItem::seenFrom(View view) const {
    return std::find(views.begin(), views.end(), view) != views.end();
}

std::string wordsOf(const Dose& dose) {
    if (dose.missing()) return "dose missing";
    return dose.sets == 1 ? std::to_string(dose.reps)
                          : std::to_string(dose.sets) + " \u00d7 " + std::to_string(dose.reps);
}

namespace {
template <typename Row>
const Row* rowById(const std::vector<Row>& rows, std::string_view id) {
    const auto it = std::find_if(rows.begin(), rows.end(), [&](const Row& r) { return r.id == id; });
    return it == rows.end() ? nullptr : &*it;
}
} // namespace

const Approach* Playbook::approach(std::string_view id) const {
    return rowById(approaches, id);
}
const GradedItem* Playbook::item(std::string_view id) const {
    return rowById(items, id);
}
const Drill* Playbook::drill(std::string_view id) const {
    return rowById(drills, id);
}

std::string Playbook::nameOfFinding(std::string_view id) const {
    if (const auto* m = measure(id)) return m->name;
    if (const auto* i = item(id)) return i->name;
    return std::string(id);
}

namespace {

[[noreturn]] void wrong(const std::string& what) {
    throw std::invalid_argument(what);
}

Moment momentIn(const json& row, const char* field) {
    const auto id = row.at(field).get<std::string>();
    if (const auto moment = momentFromId(id)) return *moment;
    wrong("position \"" + id + "\" is unknown");
}

std::vector<View> viewsIn(const json& row) {
    std::vector<View> views;
    for (const auto& v : row.at("views")) {
        const auto view = viewFromId(v.get<std::string>());
        if (!view) wrong("view " + v.dump() + " is unknown");
        views.push_back(*view);
    }
    return views;
}

Target targetOf(const json& row) {
    Target t = targetFromJson(row);
    if (t.type == TargetType::Band && !(t.y > t.x)) wrong("the band of " + t.measure + " is empty");
    return t;
}

Approach approachOf(const json& d) {
    Approach a;
    a.id = d.at("id");
    a.name = d.at("name");
    a.version = d.at("version");
    a.ageFrom = d.at("ages").at(0);
    a.ageTo = d.at("ages").at(1);
    a.about = d.value("about", "");
    for (const auto& row : d.at("targets")) a.targets.push_back(targetOf(row));
    a.graded = d.at("graded").get<std::vector<std::string>>();
    return a;
}

GradedItem itemOf(const json& row) {
    GradedItem i;
    i.id = row.at("id");
    i.name = row.at("name");
    i.group = row.at("group");
    i.position = momentIn(row, "position");
    i.views = viewsIn(row);
    i.coach = row.at("coach");
    i.player = row.at("player");
    i.protectsArm = row.value("protectsArm", false);
    return i;
}

Cause causeOf(const json& row) {
    return {row.at("from"), row.at("to"), row.at("says"), row.at("effect"), row.at("why")};
}

Drill drillOf(const json& row) {
    Drill d;
    d.id = row.at("id");
    d.name = row.at("name");
    d.body = row.at("body");
    if (d.body != "lower" && d.body != "upper") wrong("body must be lower or upper");
    d.needs = row.at("needs").get<std::vector<std::string>>();
    d.serves = row.at("serves").get<std::vector<std::string>>();
    d.equipment = row.value("equipment", "none");
    d.how = row.at("how");
    if (row.contains("dose")) {
        const auto& dose = row["dose"];
        d.dose = {dose.value("sets", 0), dose.value("reps", 0), dose.value("days", 0)};
    }
    d.distance = row.value("distance", "");
    d.ball = row.at("ball");
    d.armLoad = row.value("armLoad", "none");
    d.ageFrom = row.value("ageFrom", 0);
    d.lookAgainDays = row.value("lookAgainDays", 28);
    return d;
}

void checkIds(const Playbook& p) {
    for (const Approach& a : p.approaches) {
        for (const Target& t : a.targets)
            if (!p.measure(t.measure)) wrong("approach " + a.id + " names the unknown measure " + t.measure);
        for (const auto& id : a.graded)
            if (!p.item(id)) wrong("approach " + a.id + " names the unknown item " + id);
    }
    for (const Cause& c : p.causes)
        for (const auto& id : {c.from, c.to})
            if (!p.isFinding(id)) wrong("a cause names the unknown finding " + id);
    for (const Drill& d : p.drills)
        for (const auto& id : d.serves)
            if (!p.isFinding(id)) wrong("drill " + d.id + " serves the unknown finding " + id);
}

json parseFile(const std::filesystem::path& path) {
    auto text = readFile(path);
    if (!text) wrong(text.error().text);
    return json::parse(*text);
}

template <typename Row, typename Make>
void readRows(const std::filesystem::path& file, const char* field, std::vector<Row>& rows, Make make) {
    std::string at = "the file";
    try {
        const json document = parseFile(file);
        for (const auto& row : document.at(field)) {
            at = "row " + std::to_string(rows.size() + 1);
            rows.push_back(make(row));
        }
    } catch (const std::exception& e) {
        wrong(file.filename().string() + ", at " + at + ": " + e.what());
    }
}

void readApproaches(const std::filesystem::path& folder, Playbook& p) {
    for (const auto& entry : std::filesystem::directory_iterator(folder)) {
        if (entry.path().extension() != ".json") continue;
        const json document = parseFile(entry.path());
        if (document.value("format", "") == "juxtagraph-approach-1")
            p.approaches.push_back(approachOf(document));
    }
    std::sort(p.approaches.begin(), p.approaches.end(),
              [](const auto& a, const auto& b) { return a.name < b.name; });
    if (p.approaches.empty()) wrong("there is no approach");
}

} // namespace

Result<Playbook> loadPlaybook(const std::filesystem::path& folder) {
    auto measures = readFile(folder / "measures.json");
    if (!measures) return measures.error();
    auto parsed = parseMeasures(*measures);
    if (!parsed) return parsed.error();
    auto depths = readFile(folder / "depths.json");
    if (!depths) return depths.error();
    auto body = BodyDepths::parse(*depths);
    if (!body) return body.error();
    Playbook p;
    p.measures = std::move(*parsed);
    p.depths = std::move(*body);
    try {
        readRows(folder / "items.json", "items", p.items, itemOf);
        readRows(folder / "causes.json", "causes", p.causes, causeOf);
        readRows(folder / "drills.json", "drills", p.drills, drillOf);
        readApproaches(folder, p);
        checkIds(p);
    } catch (const std::exception& e) {
        return fail(ErrorCode::BadInput, std::string("The playbook can't be read: ") + e.what() + ".");
    }
    return p;
}

} // namespace jg
