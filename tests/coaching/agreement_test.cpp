// SPDX-License-Identifier: GPL-3.0-or-later
// Agreement against the published table and an independent package.
#include "coaching/agreement.h"

#include "coaching/change.h"

#include <gtest/gtest.h>

#include <cmath>

namespace jg {
namespace {

// Six targets by four judges: Shrout and Fleiss, Psychological Bulletin 86 (1979), table 2.
const RepeatTable kPublished = {{9, 2, 5, 8}, {6, 1, 3, 2},  {8, 4, 6, 8},
                                {7, 1, 2, 6}, {10, 5, 6, 9}, {6, 2, 4, 7}};

TEST(Agreement, IsAsPublishedByShroutAndFleiss) {
    // Their table 4, two decimals, from memory.
    EXPECT_NEAR(*icc(kPublished, IccModel::One), 0.17, 0.005);
    EXPECT_NEAR(*icc(kPublished, IccModel::Two), 0.29, 0.005);
    EXPECT_NEAR(*icc(kPublished, IccModel::Three), 0.71, 0.005);
    EXPECT_NEAR(*icc(kPublished, IccModel::One, true), 0.44, 0.005);
    EXPECT_NEAR(*icc(kPublished, IccModel::Two, true), 0.62, 0.005);
    EXPECT_NEAR(*icc(kPublished, IccModel::Three, true), 0.91, 0.005);
    const auto ms = meanSquares(kPublished);
    EXPECT_NEAR(ms->between, 11.24, 0.005);
    EXPECT_NEAR(ms->repeats, 32.49, 0.005);
    EXPECT_NEAR(ms->error, 1.02, 0.005);
}

TEST(Agreement, IsAsTheRPackagePsychComputesIt) {
    // psych 2.2.9, ICC(x, lmer = FALSE)$results, on the published table and on six knees measured twice.
    EXPECT_NEAR(*icc(kPublished, IccModel::One), 0.1657417684, 1e-9);
    EXPECT_NEAR(*icc(kPublished, IccModel::Two), 0.2897637795, 1e-9);
    EXPECT_NEAR(*icc(kPublished, IccModel::Three), 0.7148407148, 1e-9);
    EXPECT_NEAR(*icc(kPublished, IccModel::Two, true), 0.6200505476, 1e-9);
    const RepeatTable knees = {{129.4, 131.0}, {98.2, 101.5},  {110.3, 107.9},
                               {135.8, 136.2}, {120.1, 117.3}, {104.7, 106.6}};
    EXPECT_NEAR(*icc(knees, IccModel::One), 0.9875185986, 1e-9);
    EXPECT_NEAR(*icc(knees, IccModel::Two), 0.9875050272, 1e-9);
    EXPECT_NEAR(*icc(knees, IccModel::Three), 0.9853621990, 1e-9);
    EXPECT_NEAR(*icc(knees, IccModel::Three, true), 0.9926271383, 1e-9);
}

TEST(Agreement, TheErrorOfMeasurementGivesTheSmallestChange) {
    // Two repeats: the error's square is half the variance of their differences, by hand.
    const RepeatTable twice = {{100, 102}, {110, 108}, {120, 124}, {130, 130}};
    const double differences[] = {2, -2, 4, 0};
    double mean = 1, variance = 0;
    for (const double d : differences) variance += (d - mean) * (d - mean) / 3;
    EXPECT_NEAR(*standardErrorOfMeasurement(twice), std::sqrt(variance / 2), 1e-12);
    // Weir 2005: 1.96 x root 2 x SEM.
    const double sem = 3;
    EXPECT_NEAR(smallestRealChange(sem, sem), 1.959963984540054 * std::sqrt(2.0) * 3, 1e-12);
}

TEST(Agreement, TooLittleGivesNothing) {
    EXPECT_FALSE(icc({}, IccModel::Two));
    EXPECT_FALSE(icc({{1, 2}}, IccModel::Two));
    EXPECT_FALSE(icc({{1}, {2}}, IccModel::Two));
    EXPECT_FALSE(icc({{1, 2}, {3}}, IccModel::Two));
    EXPECT_FALSE(icc({{4, 4}, {4, 4}}, IccModel::Two)); // nothing differs: no correlation
    EXPECT_FALSE(standardErrorOfMeasurement({{1}, {2}}));
}

} // namespace
} // namespace jg
