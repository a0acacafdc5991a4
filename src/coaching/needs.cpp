// SPDX-License-Identifier: GPL-3.0-or-later
#include "coaching/needs.h"

#include <algorithm>

namespace jg {

std::string_view idOf(Need need) {
    constexpr std::string_view ids[] = {"teach", "reach", "hold", "speed"};
    return ids[static_cast<int>(need)];
}

std::optional<Need> needFromId(std::string_view id) {
    for (const Need need : kNeeds)
        if (idOf(need) == id) return need;
    return std::nullopt;
}

Message nameOf(Need need) {
    return msg("need." + std::string(idOf(need)));
}

Message remedyOf(Need need) {
    return msg("need-remedy." + std::string(idOf(need)));
}

std::vector<const Screen*> screensFor(const Playbook& playbook, std::string_view finding) {
    const std::string group = playbook.groupOfFinding(finding);
    std::vector<const Screen*> screens;
    for (const Screen& s : playbook.screens)
        if (std::find(s.groups.begin(), s.groups.end(), group) != s.groups.end()) screens.push_back(&s);
    return screens;
}

std::optional<Need> needOf(const Playbook& playbook, const WhyNot& whyNot) {
    if (whyNot.need) return whyNot.need;
    for (const Need need : {Need::Reach, Need::Hold, Need::Teach, Need::Speed})
        for (const Screen& s : playbook.screens) {
            const auto done = whyNot.screens.find(s.id);
            if (s.tells == idOf(need) && done != whyNot.screens.end() && !done->second) return need;
        }
    return std::nullopt;
}

} // namespace jg
