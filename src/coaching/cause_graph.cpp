// SPDX-License-Identifier: GPL-3.0-or-later
#include "coaching/cause_graph.h"

namespace jg {

namespace {

using Arrows = std::vector<std::vector<std::size_t>>;

std::vector<bool> reachedFrom(std::size_t start, const Arrows& out) {
    std::vector<bool> reached(out.size());
    std::vector<std::size_t> open = {start};
    while (!open.empty()) {
        const std::size_t at = open.back();
        open.pop_back();
        for (const std::size_t to : out[at])
            if (!reached[to]) {
                reached[to] = true;
                open.push_back(to);
            }
    }
    return reached;
}

} // namespace

RootSearch findRoots(std::size_t nodes, const std::vector<std::pair<std::size_t, std::size_t>>& arrows) {
    Arrows out(nodes);
    for (const auto& [from, to] : arrows) out[from].push_back(to);
    RootSearch s;
    for (std::size_t n = 0; n < nodes; ++n) s.reaches.push_back(reachedFrom(n, out));
    const auto together = [&](std::size_t a, std::size_t b) { return s.reaches[a][b] && s.reaches[b][a]; };
    for (std::size_t n = 0; n < nodes; ++n) {
        std::size_t circle = 0;
        while (circle < s.circles.size() && !together(s.circles[circle].front(), n)) ++circle;
        if (circle == s.circles.size()) s.circles.emplace_back();
        s.circles[circle].push_back(n);
        s.circleOf.push_back(circle);
    }
    std::vector<bool> led(s.circles.size());
    for (const auto& [from, to] : arrows)
        if (s.circleOf[from] != s.circleOf[to]) led[s.circleOf[to]] = true;
    for (std::size_t c = 0; c < s.circles.size(); ++c)
        if (!led[c]) s.roots.push_back(c);
    return s;
}

} // namespace jg
