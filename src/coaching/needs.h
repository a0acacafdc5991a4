// SPDX-License-Identifier: GPL-3.0-or-later
// Why not yet: what keeps an athlete from doing it, and the simple screens that tell.
#pragma once

#include "coaching/playbook.h"

#include <array>
#include <map>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace jg {

/// What a correction needs: they do not understand it yet, can't reach the position, can't hold it, or are
/// not fast enough through it.
enum class Need { Teach, Reach, Hold, Speed };
inline constexpr std::array kNeeds = {Need::Teach, Need::Reach, Need::Hold, Need::Speed};

std::string_view idOf(Need need);
std::optional<Need> needFromId(std::string_view id);
Message nameOf(Need need);   ///< "does not understand it yet"
Message remedyOf(Need need); ///< "teaching"

/// Why a correction is not there yet: the coach's answer, or what the screens say.
struct WhyNot {
    std::string finding;
    std::optional<Need> need;            ///< said by the coach; counts before the screens
    std::map<std::string, bool> screens; ///< by screen: passed
    bool operator==(const WhyNot&) const = default;
};

/// The screens for a finding's part of the body, in the order to do them. They point into the playbook.
std::vector<const Screen*> screensFor(const Playbook& playbook, std::string_view finding);

/// What stands in the way: the coach's word, else the first failed screen in the order reach, hold, teach,
/// speed, since what a body can't reach can't be taught. Nothing while none is known. Pure. Source: own
/// choice of the order; the four questions are common practice, no source.
std::optional<Need> needOf(const Playbook& playbook, const WhyNot& whyNot);

} // namespace jg
