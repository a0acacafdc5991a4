// SPDX-License-Identifier: GPL-3.0-or-later
#include "coaching/agreement.h"

#include <cmath>
#include <numeric>

namespace jg {

std::optional<MeanSquares> meanSquares(const RepeatTable& table) {
    const std::size_t n = table.size(), k = n == 0 ? 0 : table.front().size();
    if (n < 2 || k < 2) return std::nullopt;
    std::vector<double> columns(k, 0), rows(n, 0);
    double all = 0;
    for (std::size_t i = 0; i < n; ++i) {
        if (table[i].size() != k) return std::nullopt;
        for (std::size_t j = 0; j < k; ++j) {
            rows[i] += table[i][j] / static_cast<double>(k);
            columns[j] += table[i][j] / static_cast<double>(n);
            all += table[i][j] / static_cast<double>(n * k);
        }
    }
    double between = 0, within = 0, repeats = 0;
    for (std::size_t i = 0; i < n; ++i) {
        between += static_cast<double>(k) * std::pow(rows[i] - all, 2);
        for (const double x : table[i]) within += std::pow(x - rows[i], 2);
    }
    for (const double c : columns) repeats += static_cast<double>(n) * std::pow(c - all, 2);
    const auto dn = static_cast<double>(n), dk = static_cast<double>(k);
    return MeanSquares{between / (dn - 1), within / (dn * (dk - 1)), repeats / (dk - 1),
                       (within - repeats) / ((dn - 1) * (dk - 1))};
}

std::optional<double> icc(const RepeatTable& table, IccModel model, bool mean) {
    const auto ms = meanSquares(table);
    if (!ms || ms->between == 0) return std::nullopt;
    const auto n = static_cast<double>(table.size()), k = static_cast<double>(table.front().size());
    const double noise = model == IccModel::One ? ms->within : ms->error;
    double below = mean ? ms->between : ms->between + (k - 1) * noise;
    if (model == IccModel::Two) below += (mean ? 1 : k) * (ms->repeats - ms->error) / n;
    return below == 0 ? std::nullopt : std::optional((ms->between - noise) / below);
}

std::optional<double> standardErrorOfMeasurement(const RepeatTable& table) {
    const auto ms = meanSquares(table);
    return ms ? std::optional(std::sqrt(std::max(0.0, ms->error))) : std::nullopt;
}

} // namespace jg
