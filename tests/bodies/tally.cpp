// SPDX-License-Identifier: GPL-3.0-or-later
#include "tests/bodies/tally.h"

#include "review/assess/assess.h"
#include "tests/bodies/truth.h"

#include <array>
#include <thread>
#include <vector>

namespace jg {

namespace {

constexpr std::array kViews = {View::Open, View::Closed, View::Front, View::Rear};

void addMeasure(const MeasureDefinition& m, const MeasureValue& v, std::optional<double> truth,
                std::optional<double> inSpace, Tallies& all) {
    if (!truth || v.state == MeasureState::NotLookedAt) return;
    Tally& t = all[m.id];
    if (!v.value) {
        ++t.notVisible;
        return;
    }
    t.unit = v.unit;
    ++t.asked;
    t.within += v.low95 <= *truth && *truth <= v.high95;
    if (v.sd > 0) t.sumScaled += (*v.value - *truth) / v.sd;
    t.sumOff += *v.value - *truth;
    t.sumHalf95 += v.half95();
    if (inSpace) t.sumInSpace += *inSpace - *truth;
}

/// One delivery of a body, with all measures that its view can show.
void addDelivery(const Playbook& playbook, const Scenario& scenario, Maker maker, int n, Tallies& all) {
    const MadeBody body = maker(static_cast<std::uint64_t>(n));
    const View view = kViews[static_cast<std::size_t>(n) % kViews.size()];
    std::mt19937_64 engine(static_cast<std::uint64_t>(n) * 31 + 5);
    double afterFrameS = 0;
    const PointsDocument d = clickedBy(scenario, body, view, playbook, engine, afterFrameS);
    const Assessment told = assess(d.review, playbook, d.clips, d.hand);
    for (const MeasureRow& row : told.measures) {
        const MeasureDefinition& m = *playbook.measure(row.id);
        if (!m.hasPoints() || !m.seenFrom(view)) continue;
        addMeasure(m, row.value,
                   m.kind == MeasureKind::ReleaseInstant ? 1000 * afterFrameS
                                                         : truthOf(m, body, view, scenario.fps),
                   inSpaceOf(m, body, scenario.fps), all);
    }
}

} // namespace

Tallies tally(const Playbook& playbook, const Scenario& scenario, Maker maker, int count, int first) {
    const auto threads = static_cast<int>(std::max(1U, std::thread::hardware_concurrency()));
    std::vector<Tallies> parts(static_cast<std::size_t>(threads));
    std::vector<std::jthread> workers;
    for (int k = 0; k < threads; ++k)
        workers.emplace_back([&, k] {
            for (int n = k; n < count; n += threads)
                addDelivery(playbook, scenario, maker, first + n, parts[static_cast<std::size_t>(k)]);
        });
    workers.clear();
    Tallies all;
    for (const Tallies& part : parts)
        for (const auto& [id, t] : part) all[id].add(t);
    return all;
}

} // namespace jg
