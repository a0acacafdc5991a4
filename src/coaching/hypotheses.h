// SPDX-License-Identifier: GPL-3.0-or-later
// Several possible causes of one sign, and what would tell them apart.
#pragma once

#include "coaching/causes.h"
#include "coaching/needs.h"

#include <string>
#include <vector>

namespace jg {

/// One possible cause of a sign.
struct Hypothesis {
    std::string cause;
    Looked state = Looked::NotLookedAt;
    std::string why, says;
    Message standing; ///< what is known of it: "found on this athlete", "looked at, and good"
    Message tells;    ///< what would tell: a view, a look, another delivery; empty when it is known
};

/// A sign with more than one cause that is not ruled out.
struct CompetingCauses {
    std::string sign;
    std::vector<Hypothesis> causes;     ///< found ones first, ruled out ones last
    std::vector<const Screen*> screens; ///< simple tests that part wrong movement from what the body can't do
};

/// Every finding with all that may cause it, be it one or several.
std::vector<CompetingCauses> possibleCauses(const Playbook& playbook,
                                            const std::vector<std::string>& findings, const Known& known,
                                            const std::vector<CauseChoice>& choices = {});

/// All signs among the findings that two causes or more may explain, in the findings' order. The screens
/// point into the playbook. Pure. Source: common practice, no source.
std::vector<CompetingCauses> competingCauses(const Playbook& playbook,
                                             const std::vector<std::string>& findings, const Known& known,
                                             const std::vector<CauseChoice>& choices = {});

} // namespace jg
