// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/assess/reasons.h"

#include <algorithm>
#include <array>

namespace jg {

std::span<const std::string_view> usualReasons() {
    static constexpr std::array<std::string_view, 6> all = {
        "wrong view", "hidden by the body", "cut off", "blurred", "frame missing", "too slow a film"};
    return all;
}

Message reasonInWords(const std::string& reason) {
    const auto usual = usualReasons();
    if (reason != kSetAside && std::find(usual.begin(), usual.end(), reason) == usual.end())
        return asIs(reason);
    std::string id = "reason." + reason;
    std::replace(id.begin(), id.end(), ' ', '-');
    return msg(id);
}

} // namespace jg
