// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/own/own_measures.h"

#include "base/document.h"

namespace jg {

using nlohmann::json;

namespace {

/// As a file of the playbook has them.
std::string asFile(const std::vector<ListEntry>& rows) {
    json measures = json::array();
    for (const ListEntry& row : rows) measures.push_back(parseDocumentOrNone(row.document));
    return json{{"measures", std::move(measures)}}.dump();
}

} // namespace

Status loadOwnMeasures(Library& library, Playbook& playbook) {
    const auto rows = library.rows(ListOf::OwnMeasures);
    if (!rows) return rows.error();
    auto own = parseMeasures(asFile(*rows));
    if (!own) return fail(ErrorCode::Damaged, msg("own-measures.unreadable", {{"why", own.error().text}}));
    for (MeasureDefinition& m : *own)
        if (!playbook.measure(m.id)) playbook.measures.push_back(std::move(m));
    return Done{};
}

Result<std::string> keepOwnMeasure(Library& library, Playbook& playbook, const OwnMeasureOrder& order,
                                   const Words& words) {
    const auto row = ownMeasureRow(order, words);
    if (!row) return row.error();
    const std::string id = parseDocument(*row).at("id");
    const Status kept = library.changeRows(ListOf::OwnMeasures, [&](std::vector<ListEntry>& rows) -> Status {
        const bool known =
            std::any_of(rows.begin(), rows.end(), [&](const ListEntry& r) { return r.key == id; });
        if (known || playbook.measure(id)) return fail(ErrorCode::Refused, msg("own-measures.name-taken"));
        rows.push_back({0, id, *row});
        if (auto readable = parseMeasures(asFile(rows)); !readable) return readable.error();
        return Done{};
    });
    if (!kept) return kept.error();
    if (auto joined = loadOwnMeasures(library, playbook); !joined) return joined.error();
    return id;
}

} // namespace jg
