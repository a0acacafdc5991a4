// SPDX-License-Identifier: GPL-3.0-or-later
#include "coaching/season.h"

#include "kinematics/estimate.h"

#include <algorithm>
#include <cmath>
#include <numeric>
#include <random>

namespace jg {

namespace {

constexpr std::size_t kFewestForLine = 4;
constexpr int kOrders = 999;
constexpr double kOneInTwenty = 0.05;
constexpr std::size_t kShortest = 2; ///< numbers on either side of a change

double medianOf(std::vector<double> v) {
    std::sort(v.begin(), v.end());
    const std::size_t half = v.size() / 2;
    return v.size() % 2 == 1 ? v[half] : (v[half - 1] + v[half]) / 2;
}

/// Squares about the two means when the level changes at `at`.
double squaresAbout(const std::vector<double>& v, std::size_t at) {
    const auto about = [&](std::size_t from, std::size_t to) {
        const double n = static_cast<double>(to - from);
        double sum = 0, squares = 0;
        for (std::size_t i = from; i < to; ++i) sum += v[i];
        for (std::size_t i = from; i < to; ++i) squares += (v[i] - sum / n) * (v[i] - sum / n);
        return squares;
    };
    return about(0, at) + about(at, v.size());
}

double leastSquares(const std::vector<double>& v) {
    double least = squaresAbout(v, kShortest);
    for (std::size_t at = kShortest; at + kShortest <= v.size(); ++at)
        least = std::min(least, squaresAbout(v, at));
    return least;
}

/// How often a shuffled row gives a statistic at least as large.
template <typename Statistic>
double chanceOf(std::vector<double> row, double seen, Statistic statistic) {
    std::mt19937 dice(1); // the same orders every time
    int asLarge = 0;
    for (int i = 0; i < kOrders; ++i) {
        std::shuffle(row.begin(), row.end(), dice);
        if (statistic(row) >= seen) ++asLarge;
    }
    return static_cast<double>(asLarge + 1) / (kOrders + 1);
}

/// Ranks from 1 on; equal numbers share the mean of theirs.
std::vector<double> ranksOf(const std::vector<double>& v) {
    std::vector<std::size_t> order(v.size());
    std::iota(order.begin(), order.end(), std::size_t{0});
    std::sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) { return v[a] < v[b]; });
    std::vector<double> ranks(v.size());
    for (std::size_t i = 0; i < order.size();) {
        std::size_t end = i + 1;
        while (end < order.size() && v[order[end]] == v[order[i]]) ++end;
        const double shared = (static_cast<double>(i + 1) + static_cast<double>(end)) / 2;
        for (; i < end; ++i) ranks[order[i]] = shared;
    }
    return ranks;
}

double correlation(const std::vector<double>& a, const std::vector<double>& b) {
    const auto n = static_cast<double>(a.size());
    const double ma = std::accumulate(a.begin(), a.end(), 0.0) / n,
                 mb = std::accumulate(b.begin(), b.end(), 0.0) / n;
    double ab = 0, aa = 0, bb = 0;
    for (std::size_t i = 0; i < a.size(); ++i) {
        ab += (a[i] - ma) * (b[i] - mb);
        aa += (a[i] - ma) * (a[i] - ma);
        bb += (b[i] - mb) * (b[i] - mb);
    }
    return aa <= 0 || bb <= 0 ? 0 : ab / std::sqrt(aa * bb);
}

} // namespace

std::optional<RobustLine> robustLine(const std::vector<Dated>& points) {
    if (points.size() < kFewestForLine) return std::nullopt;
    std::vector<double> slopes, days, values;
    for (std::size_t i = 0; i < points.size(); ++i) {
        days.push_back(points[i].day);
        values.push_back(points[i].value);
        for (std::size_t j = i + 1; j < points.size(); ++j)
            if (points[j].day != points[i].day)
                slopes.push_back((points[j].value - points[i].value) / (points[j].day - points[i].day));
    }
    if (slopes.size() < kFewestForLine) return std::nullopt;
    std::sort(slopes.begin(), slopes.end());
    const auto n = static_cast<double>(points.size()), all = static_cast<double>(slopes.size());
    const double spread = kSdsOf95 * std::sqrt(n * (n - 1) * (2 * n + 5) / 18);
    const auto rank = [&](double r) {
        return slopes[static_cast<std::size_t>(std::clamp(std::round(r), 0.0, all - 1))];
    };
    return RobustLine{medianOf(days), medianOf(values), medianOf(slopes), rank((all - spread) / 2 - 1),
                      rank((all + spread) / 2)};
}

std::optional<std::size_t> firstSureChange(const std::vector<Dated>& points, const OwnSpread& spread) {
    const auto beyond = [&](const Dated& p) {
        const double by = p.value - points.front().value;
        const double least = std::hypot(smallestRealChange(points.front().sd, p.sd), spread.between());
        return std::abs(by) <= least ? 0 : by > 0 ? 1 : -1;
    };
    std::optional<std::size_t> first;
    for (std::size_t k = points.size(); k-- > 1;) {
        const int way = beyond(points[k]);
        if (way == 0 || way != beyond(points.back())) break;
        first = k;
    }
    return first;
}

std::optional<ChangePoint> changePoint(const std::vector<double>& values) {
    const std::size_t n = values.size();
    if (n < kFewestForChangePoint) return std::nullopt;
    const double least = leastSquares(values);
    const double chance = chanceOf(values, -least, [](const auto& row) { return -leastSquares(row); });
    if (chance > kOneInTwenty) return std::nullopt;
    std::vector<double> weights;
    for (std::size_t at = kShortest; at + kShortest <= n; ++at) {
        const double squares = std::max(squaresAbout(values, at), 1e-300);
        const auto sides = static_cast<double>(at * (n - at));
        weights.push_back(std::exp(-0.5 * std::log(sides) - (static_cast<double>(n) - 2) / 2 *
                                                                std::log(squares / std::max(least, 1e-300))));
    }
    const double sum = std::accumulate(weights.begin(), weights.end(), 0.0);
    const auto best =
        static_cast<std::size_t>(std::max_element(weights.begin(), weights.end()) - weights.begin());
    // Grown from the most likely place on, always to the likelier side.
    std::size_t low = best, high = best;
    double held = weights[best] / sum;
    while (held < 1 - kOneInTwenty) {
        const double below = low > 0 ? weights[low - 1] : -1;
        const double above = high + 1 < weights.size() ? weights[high + 1] : -1;
        if (below < 0 && above < 0) break;
        held += (below > above ? weights[--low] : weights[++high]) / sum;
    }
    ChangePoint c{best + kShortest, low + kShortest, high + kShortest, 0, 0};
    for (std::size_t i = 0; i < n; ++i)
        (i < c.at ? c.before : c.after) += values[i] / static_cast<double>(i < c.at ? c.at : n - c.at);
    return c;
}

std::optional<Association> associationOf(const std::vector<double>& a, const std::vector<double>& b) {
    constexpr std::size_t kFewest = 5;
    if (a.size() != b.size() || a.size() < kFewest) return std::nullopt;
    const auto ra = ranksOf(a), rb = ranksOf(b);
    const auto constant = [](const std::vector<double>& r) {
        return std::all_of(r.begin(), r.end(), [&](double v) { return v == r.front(); });
    };
    if (constant(ra) || constant(rb)) return std::nullopt;
    const double rank = correlation(ra, rb);
    const double chance =
        chanceOf(ra, std::abs(rank), [&](const auto& row) { return std::abs(correlation(row, rb)); });
    return Association{rank, chance, a.size()};
}

} // namespace jg
