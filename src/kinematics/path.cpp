// SPDX-License-Identifier: GPL-3.0-or-later
#include "kinematics/path.h"

#include <algorithm>
#include <cmath>

namespace jg {

namespace {

/// A number of the two neighbours of each place, over the time between them.
template <typename Way>
std::vector<FrameValue> rates(std::span<const PathPlace> path, double captureFps, const Way& way) {
    std::vector<FrameValue> all;
    if (captureFps <= 0) return all;
    for (std::size_t i = 1; i + 1 < path.size(); ++i) {
        const PathPlace &a = path[i - 1], &b = path[i + 1];
        if (a.frame != path[i].frame - 1 || b.frame != path[i].frame + 1) continue;
        const double seconds = 2 / captureFps;
        all.push_back({path[i].frame, {way(b.at - a.at) / seconds, std::hypot(a.sdPx, b.sdPx) / seconds}});
    }
    return all;
}

std::span<const FrameValue>::iterator largest(std::span<const FrameValue> values) {
    return std::max_element(values.begin(), values.end(),
                            [](const auto& a, const auto& b) { return a.value.value < b.value.value; });
}

/// Of the places within its error of the best, the middle and half the span.
template <typename Height>
std::optional<PathEvent> extreme(std::span<const PathPlace> path, const Height& height) {
    if (path.empty()) return std::nullopt;
    const auto best = std::max_element(path.begin(), path.end(),
                                       [&](const auto& a, const auto& b) { return height(a) < height(b); });
    auto first = best, last = best;
    const auto alike = [&](const PathPlace& p) {
        return height(*best) - height(p) < std::hypot(p.sdPx, best->sdPx);
    };
    while (first != path.begin() && alike(*(first - 1))) --first;
    while (last + 1 != path.end() && alike(*(last + 1))) ++last;
    return PathEvent{best->frame, std::max<std::int64_t>(
                                      1, std::max(best->frame - first->frame, last->frame - best->frame))};
}

} // namespace

std::vector<FrameValue> speeds(std::span<const PathPlace> path, double captureFps) {
    return rates(path, captureFps, [](ImagePoint v) { return std::hypot(v.x, v.y); });
}

std::vector<FrameValue> speedsAlong(std::span<const PathPlace> path, ImagePoint direction,
                                    double captureFps) {
    return rates(path, captureFps, [&](ImagePoint v) { return v.x * direction.x + v.y * direction.y; });
}

std::optional<PathEvent> startOfMotion(std::span<const FrameValue> values, double part) {
    if (values.empty()) return std::nullopt;
    const auto peak = largest(values);
    if (peak->value.value <= peak->value.half95()) return std::nullopt;
    const double limit = part * peak->value.value;
    auto start = peak;
    while (start != values.begin() && start->value.value > limit) --start;
    if (start->value.value > limit) return std::nullopt; // it moves already where the path begins
    auto early = start, late = start;
    while (early != values.begin() && std::abs(early->value.value - limit) < early->value.sd) --early;
    while (late != peak && late->value.value - limit < late->value.sd) ++late;
    return PathEvent{start->frame, std::max<std::int64_t>(
                                       1, std::max(start->frame - early->frame, late->frame - start->frame))};
}

std::optional<PathEvent> highest(std::span<const PathPlace> path) {
    return extreme(path, [](const PathPlace& p) { return -p.at.y; });
}

std::optional<PathEvent> lowest(std::span<const PathPlace> path) {
    return extreme(path, [](const PathPlace& p) { return p.at.y; });
}

std::optional<std::pair<std::int64_t, std::int64_t>> longestStall(std::span<const FrameValue> values,
                                                                  double part) {
    if (values.empty()) return std::nullopt;
    const double limit = part * largest(values)->value.value;
    std::optional<std::pair<std::int64_t, std::int64_t>> best, run;
    for (const FrameValue& v : values) {
        if (v.value.value >= limit) {
            run.reset();
            continue;
        }
        run = {run && run->second + 1 == v.frame ? run->first : v.frame, v.frame};
        if (!best || run->second - run->first > best->second - best->first) best = run;
    }
    return best;
}

std::span<const PathPlace> between(std::span<const PathPlace> path, std::int64_t first, std::int64_t last) {
    const auto from = std::lower_bound(path.begin(), path.end(), first,
                                       [](const PathPlace& p, std::int64_t f) { return p.frame < f; });
    const auto to = std::upper_bound(from, path.end(), last,
                                     [](std::int64_t f, const PathPlace& p) { return f < p.frame; });
    return {from, to};
}

} // namespace jg
