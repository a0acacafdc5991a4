// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/own/own_rows.h"

#include "base/document.h"
#include "base/unfit.h"
#include "coaching/approach_rows.h"
#include "coaching/with_rows.h"
#include "kinematics/answers.h"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <set>

namespace jg {

using nlohmann::json;

namespace {

constexpr const char *kOwnItem = "own-item-", *kOwnDrill = "own-drill-";

using Rows = std::vector<std::pair<std::string, PlaybookRow>>;

RowEdition editionFrom(const json& kept) {
    const auto on = parseIsoDate(kept.at("on").get<std::string>());
    if (!on) throw Unfit(msg("playbook.date-unreadable", {{"date", kept["on"].dump()}}));
    return {kept.at("key"), kept.at("edition"), *on, rowFromJson(kept)};
}

json editionAsJson(const RowEdition& e) {
    json kept = rowAsJson(e.row);
    kept["key"] = e.key;
    kept["edition"] = e.edition;
    kept["on"] = isoDate(e.on);
    return kept;
}

/// The newest edition of each key, in the order they were first kept.
Rows newestOf(const std::vector<RowEdition>& editions) {
    Rows rows;
    for (const RowEdition& e : editions) {
        const auto at =
            std::find_if(rows.begin(), rows.end(), [&](const auto& known) { return known.first == e.key; });
        if (at == rows.end())
            rows.emplace_back(e.key, e.row);
        else
            at->second = e.row;
    }
    return rows;
}

/// Puts the rows of `joined` into the playbook that is in use; measures and approaches stay where they are.
void exchangeRows(Playbook& playbook, Playbook joined) {
    playbook.items = std::move(joined.items);
    playbook.causes = std::move(joined.causes);
    playbook.drills = std::move(joined.drills);
    playbook.text = std::move(joined.text);
}

Result<std::vector<RowEdition>> editionsIn(const std::vector<ListEntry>& rows) {
    try {
        std::vector<RowEdition> all;
        for (const ListEntry& row : rows) all.push_back(editionFrom(parseDocument(row.document)));
        return all;
    } catch (const std::exception& e) {
        return fail(ErrorCode::Damaged, msg("own-rows.unreadable", {{"why", whyUnfit(e)}}));
    }
}

std::string nameOf(const RowEdition& e) {
    return e.key + " " + std::to_string(e.edition);
}

/// Rows of the list as these editions make them; those that are kept already stay what they are.
std::vector<ListEntry> asRows(const std::vector<RowEdition>& editions, const std::vector<ListEntry>& was) {
    std::vector<ListEntry> rows;
    for (const RowEdition& e : editions) {
        const auto kept =
            std::find_if(was.begin(), was.end(), [&](const ListEntry& r) { return r.key == nameOf(e); });
        rows.push_back(kept != was.end() ? *kept : ListEntry{0, nameOf(e), editionAsJson(e).dump()});
    }
    return rows;
}

using ChangeEditions = std::function<Status(std::vector<RowEdition>&)>;

/// Changes the editions as they are kept now, and joins their rows, once the playbook they make `fits`.
Status changeEditions(Library& library, Playbook& playbook, const ChangeEditions& change,
                      const std::function<Status(const Playbook&)>& fits = {}) {
    std::optional<Playbook> made;
    const Status kept = library.changeRows(ListOf::OwnRows, [&](std::vector<ListEntry>& rows) -> Status {
        auto editions = editionsIn(rows);
        if (!editions) return editions.error();
        if (auto changed = change(*editions); !changed) return changed;
        auto joined = withRows(playbook, newestOf(*editions));
        if (!joined) return joined.error();
        if (fits)
            if (auto fit = fits(*joined); !fit) return fit;
        made = std::move(*joined);
        rows = asRows(*editions, rows);
        return Done{};
    });
    if (!kept) return kept;
    exchangeRows(playbook, std::move(*made));
    return Done{};
}

/// The next edition of the row with that key.
void addEdition(std::vector<RowEdition>& editions, const std::string& key, PlaybookRow row, Date today) {
    const auto before =
        std::count_if(editions.begin(), editions.end(), [&](const RowEdition& e) { return e.key == key; });
    editions.push_back({key, static_cast<int>(before) + 1, today, std::move(row)});
}

void giveId(PlaybookRow& row, IdSource& ids) {
    if (auto* item = std::get_if<GradedItem>(&row); item && item->id.empty())
        item->id = kOwnItem + ids.next<struct ItemTag>("i").value;
    if (auto* drill = std::get_if<Drill>(&row); drill && drill->id.empty())
        drill->id = kOwnDrill + ids.next<struct DrillTag>("d").value;
}

/// What still names an item or drill, or nothing.
std::optional<std::string> needs(const Playbook& p, const std::string& key) {
    for (const Approach& a : p.approaches)
        if (isAmong(a.graded, key)) return a.name;
    for (const Drill& d : p.drills)
        if (isAmong(d.serves, key)) return d.name;
    for (const Cause& c : p.causes)
        if (c.from == key || c.to == key) return p.nameOfFinding(c.from) + " > " + p.nameOfFinding(c.to);
    return std::nullopt;
}

/// Keys of what came with the program.
std::set<std::string> shippedKeys(const Playbook& playbook) {
    std::set<std::string> keys;
    const auto shipped = withRows(playbook, {});
    if (!shipped) return keys;
    for (const GradedItem& row : shipped->items) keys.insert(keyOf(row));
    for (const Cause& row : shipped->causes) keys.insert(keyOf(row));
    for (const Drill& row : shipped->drills) keys.insert(keyOf(row));
    return keys;
}

Status refuseShipped(const Playbook& playbook, const std::vector<PlaybookRow>& rows) {
    const auto shipped = shippedKeys(playbook);
    for (const PlaybookRow& row : rows)
        if (shipped.contains(keyOf(row)))
            return fail(ErrorCode::Refused, msg("own-rows.came-with-it", {{"name", nameOf(row)}}));
    return Done{};
}

/// With a next edition of each row that is not kept as it is.
std::vector<RowEdition> withEditionsOf(std::vector<RowEdition> editions, const std::vector<PlaybookRow>& rows,
                                       Date today) {
    for (const PlaybookRow& row : rows) {
        const std::string key = keyOf(row);
        const auto newest = std::find_if(editions.rbegin(), editions.rend(),
                                         [&](const RowEdition& e) { return e.key == key; });
        if (newest == editions.rend() || rowAsJson(newest->row) != rowAsJson(row))
            addEdition(editions, key, row, today);
    }
    return editions;
}

/// True for a row that an approach's judging uses.
bool belongsTo(const Approach& a, const PlaybookRow& row) {
    const auto asked = [&](const std::string& id) { return asksFor(a, id); };
    if (const auto* cause = std::get_if<Cause>(&row)) return asked(cause->from) && asked(cause->to);
    if (const auto* drill = std::get_if<Drill>(&row))
        return std::any_of(drill->serves.begin(), drill->serves.end(), asked);
    return asked(std::get<GradedItem>(row).id);
}

} // namespace

Result<std::vector<RowEdition>> ownRows(Library& library) {
    const auto rows = library.rows(ListOf::OwnRows);
    if (!rows) return rows.error();
    return editionsIn(*rows);
}

Status loadOwnRows(Library& library, Playbook& playbook) {
    const auto editions = ownRows(library);
    if (!editions) return editions.error();
    if (editions->empty()) return Done{};
    auto joined = withRows(playbook, newestOf(*editions));
    if (!joined) return joined.error();
    exchangeRows(playbook, std::move(*joined));
    return Done{};
}

Result<std::string> keepRow(Library& library, Playbook& playbook, PlaybookRow row, const std::string& key,
                            Date today, IdSource& ids) {
    if (auto fit = checkRow(playbook, row); !fit) return fit.error();
    giveId(row, ids);
    const std::string kept = key.empty() ? keyOf(row) : key;
    const Status done = changeEditions(library, playbook, [&](std::vector<RowEdition>& editions) -> Status {
        addEdition(editions, kept, row, today);
        return Done{};
    });
    if (!done) return done.error();
    return kept;
}

Status keepRows(Library& library, Playbook& playbook, const std::vector<PlaybookRow>& rows, Date today,
                const std::function<Status(const Playbook&)>& alsoFits) {
    if (rows.empty()) return alsoFits(playbook);
    if (auto fit = refuseShipped(playbook, rows); !fit) return fit;
    const auto add = [&](std::vector<RowEdition>& editions) -> Status {
        editions = withEditionsOf(std::move(editions), rows, today);
        return Done{};
    };
    return changeEditions(library, playbook, add, [&](const Playbook& joined) {
        for (const PlaybookRow& row : rows)
            if (auto fit = checkRow(joined, row); !fit) return fit;
        return alsoFits(joined);
    });
}

Result<std::vector<PlaybookRow>> ownRowsOf(Library& library, const Playbook& playbook,
                                           const Approach& approach) {
    const auto editions = ownRows(library);
    if (!editions) return editions.error();
    const auto shipped = shippedKeys(playbook);
    std::vector<PlaybookRow> rows;
    for (const auto& [key, row] : newestOf(*editions))
        if (!shipped.contains(key) && belongsTo(approach, row)) rows.push_back(row);
    return rows;
}

std::string keptKeyOf(const std::vector<RowEdition>& own, const PlaybookRow& row) {
    const json shown = rowAsJson(row);
    for (const auto& [key, newest] : newestOf(own))
        if (rowAsJson(newest) == shown) return key;
    return keyOf(row);
}

bool isShipped(const Playbook& playbook, const std::string& key) {
    return shippedKeys(playbook).contains(key);
}

Status removeRow(Library& library, Playbook& playbook, const std::string& key) {
    if (const auto user = needs(playbook, key); user && !isShipped(playbook, key))
        return fail(ErrorCode::Refused, msg("own-rows.still-needed", {{"by", *user}}));
    return changeEditions(library, playbook, [&](std::vector<RowEdition>& editions) -> Status {
        std::erase_if(editions, [&](const RowEdition& e) { return e.key == key; });
        return Done{};
    });
}

} // namespace jg
