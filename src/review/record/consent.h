// SPDX-License-Identifier: GPL-3.0-or-later
// What an athlete, or who looks after them, allowed: to be filmed, to be shown to others, to be a model.
#pragma once

#include "base/date.h"

#include <optional>
#include <string>

namespace jg {

enum class Use { Filming, Showing, Model };

struct Consent {
    bool filming = false, showing = false, model = false;
    std::string by;                ///< who said so
    bool byGuardian = false;       ///< it ends at 18: then it is theirs to give
    Date on{};                     ///< when it was given
    std::optional<Date> until;     ///< the last day; nothing = until it is taken back
    std::optional<Date> takenBack; ///< from that day on nothing is allowed
    bool allows(Use use) const;
    bool operator==(const Consent&) const = default;
};

} // namespace jg
