// SPDX-License-Identifier: GPL-3.0-or-later
// How well repeated measurements agree: intraclass correlation, standard error of measurement, smallest
// change.
#pragma once

#include <optional>
#include <vector>

namespace jg {

/// Rows are what was measured, columns the repeats (or the coaches): at least 2 x 2, all rows as long.
using RepeatTable = std::vector<std::vector<double>>;

/// Mean squares of a two-way table, as Shrout and Fleiss, Psychological Bulletin 86 (1979) 420-428, name
/// them.
struct MeanSquares {
    double between = 0; ///< BMS: of rows
    double within = 0;  ///< WMS: inside rows
    double repeats = 0; ///< JMS: of columns
    double error = 0;   ///< EMS: what is left
};

/// Nothing when the table is smaller than 2 x 2 or its rows differ in length.
std::optional<MeanSquares> meanSquares(const RepeatTable& table);

/// Their six coefficients, by number of the model: 1 other judges for each row, 2 the same judges as a
/// sample, 3 just these judges; `mean` for the mean of all judges instead of one.
enum class IccModel { One, Two, Three };
std::optional<double> icc(const RepeatTable& table, IccModel model, bool mean = false);

/// Standard error of measurement, in the table's unit: root of the error mean square. Weir, Journal of
/// Strength and Conditioning Research 19 (2005) 231-240.
std::optional<double> standardErrorOfMeasurement(const RepeatTable& table);

} // namespace jg
