// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/own/own_approaches.h"

#include "base/document.h"
#include "base/unfit.h"
#include "coaching/approach_json.h"
#include "coaching/playbook_reader.h"
#include "desk/own/own_rows.h"

#include <nlohmann/json.hpp>

#include <algorithm>

namespace jg {

using nlohmann::json;

namespace {

constexpr const char* kOwn = "own-";

Result<std::vector<Approach>> approachesIn(const std::vector<ListEntry>& rows) {
    try {
        std::vector<Approach> all;
        for (const ListEntry& row : rows) all.push_back(approachFromJson(parseDocument(row.document)));
        return all;
    } catch (const std::exception& e) {
        return fail(ErrorCode::Damaged, msg("own-approaches.unreadable", {{"why", whyUnfit(e)}}));
    }
}

/// All editions of all own approaches, as they were kept.
Result<std::vector<Approach>> keptIn(Library& library) {
    const auto rows = library.rows(ListOf::OwnApproaches);
    if (!rows) return rows.error();
    return approachesIn(*rows);
}

void join(Playbook& playbook, const Approach& approach) {
    const auto at = std::find_if(playbook.approaches.begin(), playbook.approaches.end(),
                                 [&](const Approach& a) { return a.id == approach.id; });
    if (at == playbook.approaches.end())
        playbook.approaches.push_back(approach);
    else
        *at = approach;
}

bool nameTaken(const Playbook& playbook, const std::string& name, const std::string& but) {
    return std::any_of(playbook.approaches.begin(), playbook.approaches.end(),
                       [&](const Approach& a) { return a.name == name && a.id != but; });
}

std::string freeName(const Playbook& playbook, const std::string& name) {
    std::string free = name;
    for (int n = 2; nameTaken(playbook, free, ""); ++n) free = name + " " + std::to_string(n);
    return free;
}

/// Keeps the next edition of an approach: by what is kept now, for another window may have kept one
/// meanwhile.
Status keepNew(Library& library, Playbook& playbook, Approach approach) {
    const Status kept =
        library.changeRows(ListOf::OwnApproaches, [&](std::vector<ListEntry>& rows) -> Status {
            const auto all = approachesIn(rows);
            if (!all) return all.error();
            for (const Approach& a : *all)
                if (a.id == approach.id) approach.version = std::max(approach.version, a.version + 1);
            rows.push_back(
                {0, approach.id + " " + std::to_string(approach.version), approachAsJson(approach).dump()});
            return Done{};
        });
    if (!kept) return kept;
    join(playbook, approach);
    return Done{};
}

/// Keeps an approach as one of the coach's own, edition 1 under a free name; returns its id.
Result<std::string> keepAsOwn(Library& library, Playbook& playbook, Approach a, const std::string& name,
                              IdSource& ids) {
    a.basedOn = a.name + ", " + std::to_string(a.version);
    a.id = kOwn + ids.next<struct ApproachTag>("approach").value;
    a.name = freeName(playbook, name);
    a.version = 1;
    if (auto kept = keepNew(library, playbook, a); !kept) return kept.error();
    return a.id;
}

/// Where a text breaks, as a person counts lines.
std::size_t lineAt(std::string_view text, std::size_t byte) {
    const auto end = text.begin() + static_cast<std::ptrdiff_t>(std::min(byte, text.size()));
    return 1 + static_cast<std::size_t>(std::count(text.begin(), end, '\n'));
}

/// What a file of an approach holds.
struct ApproachFile {
    Approach approach;
    std::vector<PlaybookRow> rows;
};

ApproachFile fileFrom(const json& document) {
    ApproachFile file{approachFromJson(document), {}};
    for (const json& row : document.value("rows", json::array())) file.rows.push_back(rowFromJson(row));
    return file;
}

Result<ApproachFile> approachIn(std::string_view text) {
    constexpr std::size_t kMost = 1 << 20; // bytes; own choice
    if (text.size() > kMost) return fail(ErrorCode::BadInput, msg("own-approaches.too-large"));
    try {
        const json document = parseDocument(text);
        if (!document.is_object() || document.value("format", "") != kApproachFormat)
            return fail(ErrorCode::BadInput, msg("own-approaches.no-approach"));
        return fileFrom(document);
    } catch (const json::parse_error& e) {
        return fail(ErrorCode::BadInput, msg("own-approaches.broken", {{"line", lineAt(text, e.byte)}}));
    } catch (const std::exception& e) {
        return fail(ErrorCode::BadInput, msg("own-approaches.unfit", {{"why", whyUnfit(e)}}));
    }
}

} // namespace

bool isOwnApproach(const Approach& approach) {
    return approach.id.starts_with(kOwn);
}

Status loadOwnApproaches(Library& library, Playbook& playbook) {
    auto all = keptIn(library);
    if (!all) return all.error();
    for (const Approach& a : *all) join(playbook, a); // the newest comes last
    return Done{};
}

Result<std::string> copyApproach(Library& library, Playbook& playbook, const std::string& id, IdSource& ids,
                                 const Words& words) {
    const Approach* from = playbook.approach(id);
    if (!from) return fail(ErrorCode::NotFound, msg("review-session.no-such-approach", {{"approach", id}}));
    return keepAsOwn(library, playbook, *from, words(msg("own-approaches.copy-of", {{"name", from->name}})),
                     ids);
}

Result<std::string> keepFocus(Library& library, Playbook& playbook, const std::string& id,
                              const FocusCard& focus, IdSource& ids) {
    const Approach* from = playbook.approach(id);
    if (!from) return fail(ErrorCode::NotFound, msg("review-session.no-such-approach", {{"approach", id}}));
    if (focus.name.empty() || nameTaken(playbook, focus.name, {}))
        return fail(ErrorCode::BadInput, msg("own-approaches.name-taken", {{"name", focus.name}}));
    if (focus.rows.empty()) return fail(ErrorCode::BadInput, msg("own-approaches.no-row"));
    return keepAsOwn(library, playbook, focused(*from, focus), focus.name, ids);
}

Status keepApproach(Library& library, Playbook& playbook, Approach changed) {
    if (!isOwnApproach(changed) || !playbook.approach(changed.id))
        return fail(ErrorCode::Refused, msg("own-approaches.not-own", {{"name", changed.name}}));
    if (changed.name.empty() || nameTaken(playbook, changed.name, changed.id))
        return fail(ErrorCode::BadInput, msg("own-approaches.name-taken", {{"name", changed.name}}));
    if (auto fit = checkApproach(playbook, changed); !fit) return fit;
    changed.version = playbook.approach(changed.id)->version + 1;
    return keepNew(library, playbook, changed);
}

Status removeApproach(Library& library, Playbook& playbook, const std::string& id) {
    const Approach* approach = playbook.approach(id);
    if (!approach || !isOwnApproach(*approach))
        return fail(ErrorCode::Refused,
                    msg("own-approaches.not-own", {{"name", approach ? approach->name : id}}));
    const Status kept =
        library.changeRows(ListOf::OwnApproaches, [&](std::vector<ListEntry>& rows) -> Status {
            std::erase_if(rows, [&](const ListEntry& row) { return row.key.starts_with(id + " "); });
            return Done{};
        });
    if (!kept) return kept;
    std::erase_if(playbook.approaches, [&](const Approach& a) { return a.id == id; });
    return Done{};
}

Result<std::vector<Approach>> editionsOf(Library& library, const std::string& id) {
    auto all = keptIn(library);
    if (!all) return all.error();
    std::erase_if(*all, [&](const Approach& a) { return a.id != id; });
    return all;
}

Result<std::string> approachFile(Library& library, const Playbook& playbook, const Approach& approach) {
    const auto rows = ownRowsOf(library, playbook, approach);
    if (!rows) return rows.error();
    json document = approachAsJson(approach);
    for (const PlaybookRow& row : *rows) document["rows"].push_back(rowAsJson(row));
    return document.dump(2) + "\n";
}

Result<std::string> importApproach(Library& library, Playbook& playbook, std::string_view text, Date today,
                                   IdSource& ids) {
    auto read = approachIn(text);
    if (!read) return read.error();
    const Approach& a = read->approach;
    const Status kept = keepRows(library, playbook, read->rows, today,
                                 [&](const Playbook& joined) { return checkApproach(joined, a); });
    if (!kept) return kept.error();
    return keepAsOwn(library, playbook, a, a.name, ids);
}

} // namespace jg
