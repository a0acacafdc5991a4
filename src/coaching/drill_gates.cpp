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
        if (std::isalpha(static_cast<unsigned char>(c)))
            word += static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
        else if (!word.empty())
            words.insert(std::exchange(word, {}));
    }
    return words;
}

/// Whether a text about pain and a drill's warning name one part of the body.
bool nameOnePart(const std::string& pain, const std::string& notFor) {
    constexpr const char* kParts[] = {"knee",  "hip",   "heel", "ankle", "shoulder",
                                      "elbow", "wrist", "arm",  "back"};
    constexpr const char* kArm[] = {"shoulder", "elbow", "wrist", "forearm"};
    auto hurts = wordsIn(pain);
    const auto warned = wordsIn(notFor);
    for (const char* part : kArm)
        if (hurts.contains(part)) hurts.insert("arm");
    return std::any_of(std::begin(kParts), std::end(kParts),
                       [&](const char* part) { return hurts.contains(part) && warned.contains(part); });
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
    if (gates.pain && nameOnePart(gates.painWords, drill.notFor))
        return msg("week.not-for", {{"drill", drill.name}, {"whom", drill.notFor}});
    for (const auto& stands : needsOf(drill))
        if (std::all_of(stands.begin(), stands.end(),
                        [&](const std::string& thing) { return isAmong(gates.at.without, thing); }))
            return msg("week.without", {{"drill", drill.name}, {"thing", stands.front()}});
    return {};
}

std::vector<DrillOffer> offersFor(const Playbook& playbook, std::string_view finding, const DrillGates& gates,
                                  std::optional<Need> need) {
    const std::string group = playbook.groupOfFinding(finding);
    std::vector<DrillOffer> offers;
    for (const Drill& d : playbook.drills) {
        const bool made = std::find(d.serves.begin(), d.serves.end(), finding) != d.serves.end();
        if (!made && !isAmong(d.supports, group)) continue;
        const bool fits = !need || isAmong(d.needs, std::string(idOf(*need)));
        offers.push_back({&d, made, fits, blockedBy(d, gates)});
    }
    const auto rank = [&](const DrillOffer& o) {
        const auto& serves = o.drill->serves;
        return std::tuple(!o.blocked.empty(), !o.fitsNeed, !o.made,
                          std::find(serves.begin(), serves.end(), finding) - serves.begin());
    };
    std::stable_sort(offers.begin(), offers.end(),
                     [&](const DrillOffer& a, const DrillOffer& b) { return rank(a) < rank(b); });
    return offers;
}

std::vector<const Drill*> drillsFor(const Playbook& playbook, std::string_view finding,
                                    const DrillGates& gates, std::size_t most, std::optional<Need> need) {
    std::vector<const Drill*> found;
    for (const DrillOffer& o : offersFor(playbook, finding, gates, need))
        if (o.blocked.empty() && found.size() < most) found.push_back(o.drill);
    return found;
}

Message whyNoDrill(const Playbook& playbook, std::string_view finding, const DrillGates& gates) {
    const auto offers = offersFor(playbook, finding, gates);
    if (offers.empty()) return msg("week.none-serves", {{"finding", playbook.nameOfFinding(finding)}});
    return offers.front().blocked;
}

} // namespace jg
