// SPDX-License-Identifier: GPL-3.0-or-later
// Which few nodes of a directed graph reach all others.
#pragma once

#include <cstddef>
#include <utility>
#include <vector>

namespace jg {

/// Nodes that reach each other form one circle; a node on no circle is one by itself.
struct RootSearch {
    std::vector<std::size_t> circleOf;             ///< of each node
    std::vector<std::vector<std::size_t>> circles; ///< nodes of each, rising
    std::vector<std::size_t> roots;                ///< circles that no other reaches, rising
    std::vector<std::vector<bool>> reaches;        ///< [from][to] by one arrow or more
};

/// The smallest set of circles from which every node can be reached: exactly those that none leads to, so one
/// node of each is the smallest set of roots. `arrows` are (from, to), each below `nodes`. Quadratic in the
/// nodes. Pure. Source: condensation of a directed graph, Tarjan 1972 (from memory); here by closure.
RootSearch findRoots(std::size_t nodes, const std::vector<std::pair<std::size_t, std::size_t>>& arrows);

} // namespace jg
