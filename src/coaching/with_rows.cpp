// SPDX-License-Identifier: GPL-3.0-or-later
#include "coaching/with_rows.h"

#include "base/document.h"
#include "base/unfit.h"
#include "coaching/playbook_reader.h"

#include <nlohmann/json.hpp>

#include <algorithm>

namespace jg {

using nlohmann::json;

namespace {

constexpr const char* kFiles[] = {"items", "causes", "drills"}; // in the order of PlaybookRow

/// "leg-spread:below > stride:below : X" as older versions knew it: "leg-spread > stride : X".
std::string withoutSides(const std::string& key) {
    std::string bare;
    for (std::size_t i = 0; i < key.size(); ++i) {
        const bool side = key[i] == ':' && i > 0 && key[i - 1] != ' ';
        if (side)
            while (i + 1 < key.size() && key[i + 1] != ' ') ++i;
        else
            bare += key[i];
    }
    return bare;
}

/// A row that the coach wrote before rows had sides gets those of the row in whose place it stands.
void bringOver(json& written, const json& known) {
    const auto sided = [](const std::string& mine, const std::string& theirs) {
        return theirs.starts_with(mine + ":") ? theirs : mine;
    };
    for (const char* end : {"from", "to", "measure"})
        if (written.contains(end) && known.contains(end)) written[end] = sided(written[end], known[end]);
    if (written.contains("serves"))
        for (json& mine : written["serves"])
            for (const json& theirs : known.at("serves")) mine = sided(mine, theirs);
    for (const char* field : {"praise", "sides", "against", "minutes", "stages"})
        if (!written.contains(field) && known.contains(field)) written[field] = known[field];
}

/// Puts a row in a file's list in place of the one with that key, or at its end.
void place(json& list, const std::string& key, const PlaybookRow& row) {
    const json document = rowAsJson(row), &kind = document.at("kind");
    const auto keyIn = [&](const json& known) {
        return keyOf(rowFromJson({{"kind", kind}, {"row", known}}));
    };
    json written = document.at("row");
    auto at = std::find_if(list.begin(), list.end(), [&](const json& known) { return keyIn(known) == key; });
    if (at == list.end())
        at = std::find_if(list.begin(), list.end(),
                          [&](const json& known) { return withoutSides(keyIn(known)) == key; });
    if (at == list.end()) {
        list.push_back(written);
        return;
    }
    bringOver(written, *at);
    *at = written;
}

} // namespace

Result<Playbook> withRows(const Playbook& playbook,
                          const std::vector<std::pair<std::string, PlaybookRow>>& rows) {
    try {
        auto files =
            parseDocument(playbook.shipped ? *playbook.shipped : std::string("{}")).get<PlaybookFiles>();
        for (std::size_t kind = 0; kind < std::size(kFiles); ++kind) {
            std::string& text = files.at(std::string(kFiles[kind]) + ".json");
            json document = parseDocument(text);
            for (const auto& [key, row] : rows)
                if (row.index() == kind) place(document.at(kFiles[kind]), key, row);
            text = document.dump(2);
        }
        Playbook joined = parsePlaybook(files, playbook.measures);
        joined.shipped = playbook.shipped;
        joined.depths = playbook.depths;
        joined.lengths = playbook.lengths;
        joined.approaches = playbook.approaches;
        for (const Approach& a : joined.approaches)
            if (auto fit = checkApproach(joined, a); !fit) return fit.error();
        return joined;
    } catch (const std::exception& e) {
        return fail(ErrorCode::BadInput, msg("playbook.unreadable", {{"why", whyUnfit(e)}}));
    }
}

} // namespace jg
