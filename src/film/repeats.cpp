// SPDX-License-Identifier: GPL-3.0-or-later
#include "film/repeats.h"

#include "film/median.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace jg {

namespace {
constexpr double kMoved = 3.0; // own choice, grey levels: coding noise of a held picture stays below it
constexpr double kGap = 1.6;   // own choice: rounding to a coarse clock stays below it
// Own choice, from generated films: whole ones stay below 1.22 where everything moves fast.
constexpr double kJump = 1.28;
constexpr double kFastEnough = 0.3;

} // namespace

int heldTimes(const FilmSurvey& survey) {
    std::vector<std::size_t> moved;
    for (std::size_t i = 1; i < survey.frames.size(); ++i)
        if (survey.frames[i].largestChange > kMoved) moved.push_back(i);
    if (moved.size() < 8) return 1;
    for (const std::size_t k : {8U, 5U, 4U, 3U, 2U}) {
        for (std::size_t phase = 0; phase < k; ++phase) {
            const auto onBeat = static_cast<std::size_t>(
                std::count_if(moved.begin(), moved.end(), [&](std::size_t i) { return i % k == phase; }));
            // Within the moving stretch most beats must bring a change, else it is only a slow film.
            const std::size_t beats = (moved.back() - moved.front()) / k + 1;
            if (onBeat == moved.size() && onBeat * 10 >= beats * 6) return static_cast<int>(k);
        }
    }
    return 1;
}

bool isBlended(const FilmSurvey& survey) {
    std::array<std::vector<double>, 2> byParity;
    for (std::size_t i = 0; i < survey.frames.size(); ++i)
        if (survey.frames[i].blend < 1) byParity[i % 2].push_back(survey.frames[i].blend);
    if (byParity[0].size() < 8 || byParity[1].size() < 8) return false;
    const auto [mixed, own] = std::minmax({medianOf(byParity[0]), medianOf(byParity[1])});
    return mixed < 0.12 && mixed < own * 0.4; // own choice: a mix is never exact after coding
}

std::vector<std::int64_t> gapsInTime(const FilmInfo& info) {
    std::vector<double> steps;
    for (std::size_t i = 1; i < info.pts.size(); ++i)
        steps.push_back(static_cast<double>(info.pts[i].value - info.pts[i - 1].value));
    if (steps.size() < 8) return {};
    const double usual = medianOf(steps);
    std::vector<std::int64_t> gaps;
    std::size_t uneven = 0;
    for (std::size_t i = 0; i < steps.size(); ++i) {
        if (steps[i] > kGap * usual) gaps.push_back(static_cast<std::int64_t>(i) + 1);
        uneven += std::abs(steps[i] - usual) > 0.25 * usual + 1;
    }
    // Where most steps differ the film simply has no even rate.
    return uneven > steps.size() / 5 ? std::vector<std::int64_t>{} : gaps;
}

std::vector<std::int64_t> jumpsInMotion(const FilmSurvey& survey) {
    const auto& f = survey.frames;
    double most = 0;
    for (const FrameFacts& x : f) most = std::max(most, x.motion);
    std::vector<std::int64_t> jumps;
    for (std::size_t i = 3; i + 2 < f.size() && most > kLeastMotion; ++i) {
        const auto [least, largest] =
            std::minmax({f[i - 2].motion, f[i - 1].motion, f[i + 1].motion, f[i + 2].motion});
        if (least > kFastEnough * most && f[i].motion > kJump * largest)
            jumps.push_back(static_cast<std::int64_t>(i));
    }
    return jumps;
}

} // namespace jg
