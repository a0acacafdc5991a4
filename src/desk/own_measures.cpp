#include "desk/own_measures.h"

#include <nlohmann/json.hpp>

namespace jg {

using nlohmann::json;

namespace {
constexpr const char* kMeasuresKey = "playbook.ownMeasures";
constexpr const char* kNone = R"({"measures": []})";
} // namespace

Status loadOwnMeasures(Library& library, Playbook& playbook) {
    auto own = parseMeasures(library.setting(kMeasuresKey, kNone));
    if (!own) return fail(ErrorCode::Damaged, msg("own-measures.unreadable", {{"why", own.error().text}}));
    for (MeasureDefinition& m : *own)
        if (!playbook.measure(m.id)) playbook.measures.push_back(std::move(m));
    return Done{};
}

Result<std::string> keepOwnMeasure(Library& library, Playbook& playbook, const OwnMeasureOrder& order,
                                   const Words& words) {
    const auto row = ownMeasureRow(order, words);
    if (!row) return row.error();
    const std::string stored = library.setting(kMeasuresKey, kNone);
    if (auto readable = parseMeasures(stored); !readable) return readable.error();
    json document = json::parse(stored);
    const json parsed = json::parse(*row);
    const std::string id = parsed.at("id");
    if (playbook.measure(id)) return fail(ErrorCode::Refused, msg("own-measures.there-is-a-measure-of-that"));
    document["measures"].push_back(parsed);
    if (auto kept = library.setSetting(kMeasuresKey, document.dump()); !kept) return kept.error();
    if (auto joined = loadOwnMeasures(library, playbook); !joined) return joined.error();
    return id;
}

} // namespace jg
