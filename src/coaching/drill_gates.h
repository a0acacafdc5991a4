// SPDX-License-Identifier: GPL-3.0-or-later
// Who may do which drill, and which drill serves a finding.
#pragma once

#include "coaching/needs.h"
#include "coaching/playbook.h"

#include <optional>
#include <string>
#include <vector>

namespace jg {

enum class Season { Unknown, Off, Before, During };
std::string_view idOf(Season season);
std::optional<Season> seasonFromId(std::string_view id);
Message nameOf(Season season);

/// What a week has to fit into, by the coach's word. Bit 0 of a set of days is Monday.
struct Circumstances {
    unsigned days = 0x7F;  ///< that are free for drills
    unsigned gameDays = 0; ///< with a game or a pitching practice: no drills, no throwing before
    Season season = Season::Unknown;
    bool throwing = true;             ///< false: no throws now, whatever the reason
    std::vector<std::string> without; ///< equipment that is not there (thingsOf)
    bool operator==(const Circumstances&) const = default;
};

/// What decides whether a drill may be given.
struct DrillGates {
    int age = 0;
    bool pain = false;      ///< an open report: nothing whose motion is a throw
    std::string painWords;  ///< where it hurts, in the sender's words
    bool returning = false; ///< back from injury without the clinician's plan on record: no throws either
    Circumstances at;
    std::vector<SidedRow> chosen = {}; ///< what is worked on: nothing that trains against it is given
    std::string backFrom = {};         ///< the injury they come back from, until the plan was seen
};

/// A drill for a finding.
struct DrillOffer {
    const Drill* drill = nullptr;
    bool made = false;     ///< made for this finding; else only a fallback for the part of the body
    bool fitsNeed = false; ///< is of the kind that is needed; true while no need is known
    Message blocked;       ///< why it may not be given; empty = it may
};

/// The single things that a drill's equipment names, "a partner or a net" as two.
std::vector<std::string> thingsOf(const Drill& drill);
/// All things of a playbook's drills, sorted.
std::vector<std::string> thingsOf(const Playbook& playbook);

/// Why a drill may not be given; empty when it may. Pure. Source: cautions are common practice, no source.
Message blockedBy(const Drill& drill, const DrillGates& gates);

/// Every drill that trains a finding ("row:side") or supports its part of the body, but those that train
/// against it: allowed ones first, then made for it, of the kind that is needed, and nearer the front of
/// their own list. They point into the playbook. Pure.
std::vector<DrillOffer> offersFor(const Playbook& playbook, std::string_view finding, const DrillGates& gates,
                                  std::optional<Need> need = std::nullopt);

/// The allowed ones of them, never more than `most`.
std::vector<const Drill*> drillsFor(const Playbook& playbook, std::string_view finding,
                                    const DrillGates& gates, std::size_t most,
                                    std::optional<Need> need = std::nullopt);

/// Why there is no drill for a finding: the first reason, or that the playbook has none. Empty when there is.
Message whyNoDrill(const Playbook& playbook, std::string_view finding, const DrillGates& gates);

} // namespace jg
