// SPDX-License-Identifier: GPL-3.0-or-later
// How often the intervals of all measures hold the truth.
#pragma once

#include "tests/bodies/scenario.h"

#include <map>
#include <string>

namespace jg {

using Maker = MadeBody (*)(std::uint64_t);

/// What one measure did over all deliveries of a scenario.
struct Tally {
    int asked = 0, within = 0, notVisible = 0;
    double sumScaled = 0; ///< of (value - truth) / sd
    double sumOff = 0;    ///< of value - truth
    double sumHalf95 = 0;
    double sumInSpace = 0; ///< of the same in space less the truth, where there is such a thing
    std::string unit;

    void add(const Tally& o) {
        asked += o.asked, within += o.within, notVisible += o.notVisible;
        sumScaled += o.sumScaled, sumOff += o.sumOff, sumHalf95 += o.sumHalf95, sumInSpace += o.sumInSpace;
        if (!o.unit.empty()) unit = o.unit;
    }
    double held() const { return 100.0 * within / asked; }
    double bias() const { return sumScaled / asked; }
    double half() const { return sumHalf95 / asked; }
};
using Tallies = std::map<std::string, Tally>;

/// `count` deliveries of a maker from the one numbered `first` on, seen from all views in turn, on every
/// core: all measures with points, each from the views that can show it.
Tallies tally(const Playbook& playbook, const Scenario& scenario, Maker maker, int count, int first = 0);

} // namespace jg
