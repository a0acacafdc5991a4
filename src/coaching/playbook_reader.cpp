// SPDX-License-Identifier: GPL-3.0-or-later
#include "coaching/playbook_reader.h"

#include "base/document.h"
#include "base/file_store.h"
#include "base/unfit.h"
#include "coaching/approach_json.h"
#include "coaching/needs.h"
#include "coaching/playbook_rows.h"
#include "coaching/target_json.h"
#include "kinematics/answers.h"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <set>

namespace jg {

using nlohmann::json;

namespace {

Screen screenOf(const json& row) {
    Screen s{
        row.at("id"), row.at("name"), row.at("how"), row.at("pass"), row.at("fail"), row.at("tells"), {}, ""};
    s.groups = row.at("groups").get<std::vector<std::string>>();
    s.notFor = row.value("notFor", "");
    if (!needFromId(s.tells)) unfit(msg("playbook.need-unknown", {{"id", s.tells}}));
    return s;
}

FocusCard focusOf(const json& row) {
    FocusCard f{row.at("id"), row.at("name"), row.at("rows").get<std::vector<std::string>>(), {}};
    f.lenient = row.value("lenient", f.lenient);
    for (const json& t : row.value("adds", json::array())) f.adds.push_back(targetFromJson(t));
    return f;
}

void checkShape(const Target& t) {
    if (t.type == TargetType::Band && !(t.y > t.x))
        unfit(msg("playbook.band-empty", {{"measure", t.measure}}));
    if (t.type == TargetType::Options && t.wanted.empty())
        unfit(msg("playbook.nothing-wanted", {{"measure", t.measure}}));
    if (t.soft < 0) unfit(msg("playbook.soft-negative", {{"measure", t.measure}}));
    if (t.ageFrom > t.ageTo) unfit(msg("playbook.ages-turned", {{"what", t.measure}}));
}

void checkTargetOf(const Playbook& p, const Approach& a, const Target& t) {
    const MeasureDefinition* m = p.measure(t.measure);
    if (!m) unfit(msg("playbook.unknown-measure", {{"approach", a.id}, {"measure", t.measure}}));
    if (std::find(m->moments.begin(), m->moments.end(), t.position) == m->moments.end())
        unfit(msg("playbook.target-elsewhere",
                  {{"approach", a.id}, {"measure", t.measure}, {"position", info(t.position).name()}}));
    const bool seen = m->kind == MeasureKind::Seen;
    if (!t.asksNothing() && seen != (t.type == TargetType::Options))
        unfit(msg("playbook.target-kind", {{"approach", a.id}, {"measure", t.measure}}));
    for (const auto* answers : {&t.wanted, &t.nearly})
        for (const std::string& answer : *answers)
            if (!isAmong(m->options, answer))
                unfit(msg("playbook.unknown-answer",
                          {{"approach", a.id}, {"measure", t.measure}, {"answer", answer}}));
}

void checkApproachIds(const Playbook& p, const Approach& a) {
    if (a.id.empty() || a.name.empty()) unfit(msg("playbook.approach-nameless"));
    if (a.ageFrom > a.ageTo) unfit(msg("playbook.ages-turned", {{"what", a.name}}));
    std::set<std::string> asked;
    for (const Target& t : a.targets) {
        checkShape(t);
        checkTargetOf(p, a, t);
        if (!asked.insert(t.measure).second)
            unfit(msg("playbook.two-targets", {{"approach", a.id}, {"measure", t.measure}}));
    }
    for (const auto& id : a.graded)
        if (!p.item(id)) unfit(msg("playbook.unknown-item", {{"approach", a.id}, {"item", id}}));
}

void checkIds(const Playbook& p) {
    for (const Approach& a : p.approaches) checkApproachIds(p, a);
    for (const GradedItem& i : p.items)
        if (!i.measure.empty() && !p.measure(i.measure))
            unfit(msg("playbook.unknown-behind", {{"item", i.id}, {"measure", i.measure}}));
    for (const Cause& c : p.causes)
        for (const auto& end : {c.cause(), c.consequence()})
            if (!p.isFinding(end)) unfit(msg("playbook.unknown-cause", {{"finding", textOf(end)}}));
    for (const Drill& d : p.drills)
        for (const auto* list : {&d.serves, &d.against})
            for (const auto& id : *list)
                if (!p.isFinding(sidedRowFrom(id)))
                    unfit(msg("playbook.unknown-served", {{"drill", d.id}, {"finding", id}}));
    for (const FocusCard& f : p.focuses) {
        for (const auto& id : f.rows)
            if (!p.isFinding(id)) unfit(msg("playbook.unknown-focus", {{"focus", f.id}, {"finding", id}}));
        Approach asking;
        asking.id = f.id;
        for (const Target& t : f.adds) {
            checkShape(t);
            checkTargetOf(p, asking, t);
        }
    }
}

const std::string& fileOf(const PlaybookFiles& files, const std::string& name) {
    const auto it = files.find(name);
    if (it == files.end()) unfit(msg("playbook.file-missing", {{"file", name}}));
    return it->second;
}

template <typename Row, typename Make>
void readRows(const PlaybookFiles& files, const std::string& kind, std::vector<Row>& rows, Make make) {
    const std::string name = kind + ".json";
    Message at = msg("playbook.the-file");
    try {
        const json document = parseDocument(fileOf(files, name));
        for (const auto& row : document.at(kind)) {
            at = msg("playbook.row", {{"row", rows.size() + 1}});
            rows.push_back(make(row));
        }
    } catch (const std::exception& e) {
        unfit(msg("playbook.at", {{"file", name}, {"place", at}, {"why", whyUnfit(e)}}));
    }
}

void readApproaches(const PlaybookFiles& files, Playbook& p) {
    for (const auto& [name, text] : files) {
        try {
            const json document = parseDocument(text);
            if (document.value("format", "") == kApproachFormat)
                p.approaches.push_back(approachFromJson(document));
        } catch (const std::exception& e) {
            unfit(msg("playbook.at",
                      {{"file", name}, {"place", msg("playbook.the-file")}, {"why", whyUnfit(e)}}));
        }
    }
    std::sort(p.approaches.begin(), p.approaches.end(),
              [](const auto& a, const auto& b) { return a.name < b.name; });
    if (p.approaches.empty()) unfit(msg("playbook.no-approach"));
}

constexpr const char *kDepths = "depths.json", *kTrials = "trials.json";

PlaybookFiles readFiles(const std::filesystem::path& folder) {
    PlaybookFiles files;
    std::error_code ec;
    for (const auto& entry : std::filesystem::directory_iterator(folder, ec)) {
        const std::string name = entry.path().filename().string();
        if (entry.path().extension() != ".json" || name == kDepths || name == kTrials) continue;
        auto text = readFile(entry.path());
        if (!text) unfit(text.error().text);
        files[name] = std::move(*text);
    }
    return files;
}

/// A playbook made by hand may come without.
Result<Trials> readTrials(const std::filesystem::path& file) {
    std::error_code ec;
    if (!std::filesystem::exists(file, ec)) return Trials{};
    auto text = readFile(file);
    if (!text) return text.error();
    return Trials::parse(*text);
}

/// Rows of `live` that the frozen ones do not know: they came later.
template <typename Row>
void addNewer(std::vector<Row>& frozen, const std::vector<Row>& live) {
    for (const Row& row : live)
        if (std::none_of(frozen.begin(), frozen.end(), [&](const Row& f) { return f.id == row.id; }))
            frozen.push_back(row);
}

} // namespace

Playbook parsePlaybook(const PlaybookFiles& files, const std::vector<MeasureDefinition>& known) {
    Playbook p;
    auto measures = parseMeasures(fileOf(files, "measures.json"));
    if (!measures) unfit(measures.error().text);
    p.measures = std::move(*measures);
    addNewer(p.measures, known);
    readRows(files, "items", p.items, itemFromJson);
    readRows(files, "causes", p.causes, causeFromJson);
    readRows(files, "drills", p.drills, drillFromJson);
    if (files.contains("focuses.json")) readRows(files, "focuses", p.focuses, focusOf);
    if (files.contains("screens.json")) readRows(files, "screens", p.screens, screenOf);
    readApproaches(files, p);
    checkIds(p);
    p.text = p.shipped = std::make_shared<const std::string>(json(files).dump());
    return p;
}

Status checkApproach(const Playbook& playbook, const Approach& approach) {
    try {
        checkApproachIds(playbook, approach);
        return Done{};
    } catch (const std::exception& e) {
        return fail(ErrorCode::BadInput,
                    msg("playbook.approach-unfit", {{"name", approach.name}, {"why", whyUnfit(e)}}));
    }
}

Result<Playbook> loadPlaybook(const std::filesystem::path& folder) {
    auto depths = readFile(folder / kDepths);
    if (!depths) return depths.error();
    auto body = BodyDepths::parse(*depths);
    if (!body) return body.error();
    auto trials = readTrials(folder / kTrials);
    if (!trials) return trials.error();
    try {
        Playbook p = parsePlaybook(readFiles(folder));
        for (const GradedItem& i : p.items)
            if (p.measure(i.id)) unfit(msg("playbook.id-of-both", {{"id", i.id}}));
        p.depths = std::move(*body);
        p.trials = std::move(*trials);
        return p;
    } catch (const std::exception& e) {
        return fail(ErrorCode::BadInput, msg("playbook.unreadable", {{"why", whyUnfit(e)}}));
    }
}

Result<Playbook> thawPlaybook(const Playbook& live, const std::string& text) {
    if (live.text && *live.text == text) return live;
    try {
        Playbook p = parsePlaybook(parseDocument(text).get<PlaybookFiles>(), live.measures);
        p.depths = live.depths;
        p.trials = live.trials;
        p.lengths = live.lengths;
        addNewer(p.items, live.items);
        addNewer(p.drills, live.drills);
        addNewer(p.screens, live.screens);
        return p;
    } catch (const std::exception& e) {
        return fail(ErrorCode::Damaged, msg("playbook.frozen-unreadable", {{"why", whyUnfit(e)}}));
    }
}

} // namespace jg
