// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/accuracy/trial_table.h"

#include "tests/bodies/tally.h"

#include <algorithm>
#include <cmath>

namespace jg {

namespace {

constexpr int kFirst = 1'000'000; // of the deliveries' numbers: far from those of the tables
constexpr int kFewest = 100;      // answers of which a share is kept
constexpr double kTurnedDeg = 25;

struct Worst {
    Trial trial;
    double sumHalf95 = 0, sumInSpace = 0;
    int asked = 0;
};

void addTallies(const Tallies& tallies, std::map<std::string, Worst>& all) {
    for (const auto& [id, t] : tallies) {
        if (t.asked < kFewest) continue;
        Worst& w = all[id];
        if (w.asked == 0 || t.held() < w.trial.heldPercent) {
            w.trial.heldPercent = t.held();
            w.trial.tried = t.asked;
        }
        const double lean = t.sumOff / t.asked;
        w.trial.leastLean = w.asked == 0 ? lean : std::min(w.trial.leastLean, lean);
        w.trial.mostLean = w.asked == 0 ? lean : std::max(w.trial.mostLean, lean);
        w.trial.unit = t.unit;
        w.sumHalf95 += t.sumHalf95;
        w.sumInSpace += t.sumInSpace;
        w.asked += t.asked;
    }
}

} // namespace

Trials tryMeasures(const Playbook& playbook, int count) {
    Trials trials;
    for (const bool turned : {false, true})
        for (const bool fast : {false, true}) {
            std::map<std::string, Worst> all;
            for (const bool leans : {false, true})
                for (const Maker maker : {demoBody, linkedBody}) {
                    const Scenario scenario{"", turned ? kTurnedDeg : 0,
                                            turned ? TurnSaid::Degrees : TurnSaid::Square, leans,
                                            fast ? 240.0 : 60.0};
                    addTallies(tally(playbook, scenario, maker, count, kFirst), all);
                }
            for (auto& [id, w] : all) {
                if (std::abs(w.sumInSpace) > w.sumHalf95) w.trial.inSpace = w.sumInSpace / w.asked;
                trials.set({turned, fast}, id, w.trial);
            }
        }
    return trials;
}

} // namespace jg
