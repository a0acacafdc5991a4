// SPDX-License-Identifier: GPL-3.0-or-later
#include "coaching/drill_gates.h"

#include "kinematics/answers.h"

#include <algorithm>
#include <cctype>
#include <set>
#include <tuple>

namespace jg {

std::string_view idOf(Season season) {
    constexpr std::string_view ids[] = {"unknown", "off", "before", "during"};
    return ids[static_cast<int>(season)];
}

std::optional<Season> seasonFromId(std::string_view id) {
    for (const Season s : {Season::Unknown, Season::Off, Season::Before, Season::During})
        if (idOf(s) == id) return s;
    return std::nullopt;
}

Message nameOf(Season season) {
    return msg("season." + std::string(idOf(season)));
}

namespace {

std::vector<std::string> splitAt(const std::string& text, const std::vector<std::string>& marks) {
    std::vector<std::string> parts = {text};
    for (const std::string& mark : marks) {
        std::vector<std::string> finer;
        for (const std::string& part : parts) {
            std::size_t from = 0, at = 0;
            while ((at = part.find(mark, from)) != part.npos) {
                finer.push_back(part.substr(from, at - from));
                from = at + mark.size();
            }
            finer.push_back(part.substr(from));
        }
        parts = std::move(finer);
    }
    std::erase_if(parts, [](const std::string& p) { return p.empty() || p == "none"; });
    return parts;
}

/// What a drill needs, each with what may stand in for it.
std::vector<std::vector<std::string>> needsOf(const Drill& drill) {
    std::vector<std::vector<std::string>> needs;
    for (const std::string& need : splitAt(drill.equipment, {", ", " and "}))
        needs.push_back(splitAt(need, {" or "}));
    return needs;
}

std::set<std::string> wordsIn(const std::string& text) {
    std::set<std::string> words;
    std::string word;
    for (const char c : text + " ") {
        const auto u = static_cast<unsigned char>(c);
        if (std::isalpha(u) || u >= 0x80) // accents are letters
            word += u < 0x80 ? static_cast<char>(std::tolower(u)) : c;
        else if (!word.empty())
            words.insert(std::exchange(word, {}));
    }
    return words;
}

/// A part of the body by the beginnings of its names, one or several, in both languages.
struct BodyPart {
    const char* name;
    std::initializer_list<const char*> beginnings;
};

/// The parts that a text names: the arm with each of its joints.
std::set<std::string> partsIn(const std::string& text) {
    static const BodyPart kParts[] = {
        {"knee", {"knee", "rodill", "patell", "meniscus", "acl"}},
        {"hip", {"hip", "cader", "groin", "ingle"}},
        {"heel", {"heel", "talon", "achill"}},
        {"ankle", {"ankle", "tobill"}},
        {"shoulder", {"shoulder", "hombro", "labrum", "rotator", "cuff", "manguit"}},
        {"elbow", {"elbow", "codo", "ucl"}},
        {"wrist", {"wrist", "mu\u00f1eca", "muneca"}},
        {"arm", {"arm", "brazo", "bicep", "b\u00edcep", "tricep", "tr\u00edcep", "forearm", "antebrazo"}},
        {"back", {"back", "espald", "spine"}},
        {"foot", {"foot", "feet", "toe", "pie", "dedo"}}};
    std::set<std::string> parts;
    for (const std::string& word : wordsIn(text))
        for (const BodyPart& part : kParts)
            for (const char* beginning : part.beginnings)
                if (word.starts_with(beginning)) parts.insert(part.name);
    for (const char* joint : {"shoulder", "elbow", "wrist"})
        if (parts.contains(joint)) parts.insert("arm");
    return parts;
}

/// Whether a text about pain or an injury and a drill's warning name one part of the body.
bool nameOnePart(const std::string& pain, const std::string& notFor) {
    const auto hurts = partsIn(pain), warned = partsIn(notFor);
    return std::any_of(hurts.begin(), hurts.end(),
                       [&](const std::string& part) { return warned.contains(part); });
}

} // namespace

std::vector<std::string> thingsOf(const Drill& drill) {
    return splitAt(drill.equipment, {", ", " and ", " or "});
}

std::vector<std::string> thingsOf(const Playbook& playbook) {
    std::set<std::string> things;
    for (const Drill& d : playbook.drills)
        for (std::string& thing : thingsOf(d)) things.insert(std::move(thing));
    return {things.begin(), things.end()};
}

Message blockedBy(const Drill& drill, const DrillGates& gates) {
    if (gates.pain && drill.throwing) return msg("week.throws-in-pain", {{"drill", drill.name}});
    if (gates.returning && drill.throwing) return msg("week.throws-without-plan", {{"drill", drill.name}});
    if (!gates.at.throwing && drill.throwing) return msg("week.no-throwing", {{"drill", drill.name}});
    if (gates.age < drill.ageFrom)
        return msg("week.too-young", {{"drill", drill.name}, {"age", drill.ageFrom}});
    const bool sore = gates.pain && nameOnePart(gates.painWords, drill.notFor);
    if (sore || nameOnePart(gates.backFrom, drill.notFor))
        return msg("week.not-for", {{"drill", drill.name}, {"whom", drill.notFor}});
    if (std::any_of(gates.chosen.begin(), gates.chosen.end(),
                    [&](const SidedRow& c) { return drill.trainsAgainst(c); }))
        return msg("week.against", {{"drill", drill.name}});
    for (const auto& stands : needsOf(drill))
        if (std::all_of(stands.begin(), stands.end(),
                        [&](const std::string& thing) { return isAmong(gates.at.without, thing); }))
            return msg("week.without", {{"drill", drill.name}, {"thing", stands.front()}});
    return {};
}

std::vector<DrillOffer> offersFor(const Playbook& playbook, std::string_view finding, const DrillGates& gates,
                                  std::optional<Need> need) {
    const SidedRow sought = sidedRowFrom(finding);
    const std::string group = playbook.groupOfFinding(sought.row);
    std::vector<DrillOffer> offers;
    for (const Drill& d : playbook.drills) {
        const bool made = d.trains(sought);
        if ((!made && !isAmong(d.supports, group)) || d.trainsAgainst(sought)) continue;
        const bool fits = !need || isAmong(d.needs, std::string(idOf(*need)));
        offers.push_back({&d, made, fits, blockedBy(d, gates)});
    }
    const auto rank = [&](const DrillOffer& o) {
        const auto& serves = o.drill->serves;
        const auto place = std::find_if(serves.begin(), serves.end(), [&](const std::string& text) {
            return meets(sidedRowFrom(text), sought);
        });
        return std::tuple(!o.blocked.empty(), !o.fitsNeed, !o.made, place - serves.begin());
    };
    std::stable_sort(offers.begin(), offers.end(),
                     [&](const DrillOffer& a, const DrillOffer& b) { return rank(a) < rank(b); });
    return offers;
}

std::vector<const Drill*> drillsFor(const Playbook& playbook, std::string_view finding,
                                    const DrillGates& gates, std::size_t most, std::optional<Need> need) {
    std::vector<const Drill*> found;
    bool made = false; // a fallback stands in only where nothing was made for it
    for (const DrillOffer& o : offersFor(playbook, finding, gates, need)) {
        made = made || (o.made && o.blocked.empty());
        if (o.blocked.empty() && found.size() < most && (o.made || !made)) found.push_back(o.drill);
    }
    return found;
}

Message whyNoDrill(const Playbook& playbook, std::string_view finding, const DrillGates& gates) {
    const auto offers = offersFor(playbook, finding, gates);
    if (offers.empty())
        return msg("week.none-serves", {{"finding", playbook.nameOfFinding(sidedRowFrom(finding).row)}});
    return offers.front().blocked;
}

} // namespace jg
