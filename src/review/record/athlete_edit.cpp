// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/record/athlete_edit.h"

#include "review/record/review_json.h"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <set>

namespace jg {

using nlohmann::json;

namespace {

json fieldOf(const json& document, const std::string& field) {
    return document.contains(field) ? document[field] : json();
}

bool holds(const json& list, const json& entry) {
    return std::find(list.begin(), list.end(), entry) != list.end();
}

/// Entries that came and went, put into the list as it is now; by day where they have one.
json joinedLists(const json& shown, const json& typed, const json& now) {
    json out = json::array();
    for (const json& entry : now)
        if (!holds(shown, entry) || holds(typed, entry)) out.push_back(entry);
    for (const json& entry : typed)
        if (!holds(shown, entry) && !holds(out, entry)) out.push_back(entry);
    const bool dated =
        std::all_of(out.begin(), out.end(), [](const json& e) { return e.is_object() && e.contains("on"); });
    if (dated)
        std::stable_sort(out.begin(), out.end(), [](const json& a, const json& b) {
            return a["on"].get<std::string>() < b["on"].get<std::string>();
        });
    return out;
}

bool isList(const json& value) {
    return value.is_array();
}

Message asWords(const json& value) {
    if (value.is_null() || (value.is_string() && value.get<std::string>().empty()))
        return msg("athlete-edit.empty");
    if (value.is_string()) return asIs(value.get<std::string>());
    if (value.is_number()) return msg("athlete-edit.number", {{"number", Decimal{value.get<double>(), 2}}});
    return msg("athlete-edit.else");
}

Error changedElsewhere(const std::string& field, const json& now, const json& typed) {
    return fail(
        ErrorCode::Stale,
        msg("athlete-edit.changed-elsewhere",
            {{"field", msg("athlete-field." + field)}, {"theirs", asWords(now)}, {"mine", asWords(typed)}}));
}

} // namespace

Status applyEdit(const AthleteEdit& edit, Athlete& now) {
    const json shown = json::parse(toJson(edit.shown)), typed = json::parse(toJson(edit.typed));
    json document = json::parse(toJson(now));
    std::set<std::string> fields;
    for (const json* d : {&shown, &typed})
        for (const auto& [field, value] : d->items()) fields.insert(field);
    fields.erase("id");
    for (const std::string& field : fields) {
        const json was = fieldOf(shown, field), mine = fieldOf(typed, field), is = fieldOf(document, field);
        if (mine == was || mine == is) continue;
        const bool lists = isList(mine) || isList(was);
        const json next = lists ? joinedLists(was, mine, is) : mine;
        if (!lists && is != was && !edit.mineStands) return changedElsewhere(field, is, mine);
        if (next.is_null() || (lists && next.empty()))
            document.erase(field);
        else
            document[field] = next;
    }
    auto joined = athleteFromJson(document.dump());
    if (!joined) return joined.error();
    now = std::move(*joined);
    return Done{};
}

} // namespace jg
