// SPDX-License-Identifier: GPL-3.0-or-later
// Numbers over a season and within an outing, against published tables, another library, and chance itself.
#include "coaching/season.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>

namespace jg {
namespace {

std::vector<Dated> daily(const std::vector<double>& values, double sd = 1) {
    std::vector<Dated> points;
    for (std::size_t i = 0; i < values.size(); ++i) points.push_back({static_cast<double>(i), values[i], sd});
    return points;
}

TEST(Season, WeirsExampleOfTheSmallestRealChange) {
    // Weir 2005, from memory: SEM 53.23 W of peak power gives a minimal difference of 147.5 W.
    EXPECT_NEAR(smallestRealChange(53.23, 53.23), 147.5, 0.1);
}

TEST(Season, PooledSpreadOfTwoReviews) {
    const OwnSpread spread = OwnSpread{}.with(2, 3).with(4, 5); // (2 x 4 + 4 x 16) / 6 = 12
    EXPECT_NEAR(spread.sd, std::sqrt(12.0), 1e-12);
    EXPECT_EQ(spread.freedom, 6U);
    EXPECT_NEAR(spread.between(), 2.447 * std::sqrt(24.0), 1e-9); // t of 6, as Student's table has it
    EXPECT_EQ(OwnSpread{}.with(9, 1).freedom, 0U);
    EXPECT_EQ(OwnSpread{}.between(), 0);
}

TEST(Season, BeyondTheErrorButInsideTheAthletesOwnSpread) {
    Target target;
    target.type = TargetType::AtLeast;
    target.x = 106;
    EXPECT_EQ(trendOf(target, 90, 1, 97, 1), Trend::Better);
    EXPECT_EQ(trendOf(target, 90, 1, 97, 1, OwnSpread{}.with(3, 6)), Trend::InsideSpread);
    EXPECT_EQ(trendOf(target, 90, 1, 110, 1, OwnSpread{}.with(3, 6)), Trend::Better);
    EXPECT_EQ(trendOf(target, 90, 4, 97, 4, OwnSpread{}.with(3, 6)), Trend::InsideError);
}

TEST(Season, TheRobustLineIsThatOfAnotherLibrary) {
    // scipy 1.10.1: stats.theilslopes(y, x, 0.95) gives these.
    const std::vector<double> x = {0, 3, 8, 12, 20, 25, 31, 40},
                              y = {100, 102.1, 103, 90, 108, 111, 113.2, 116.4};
    std::vector<Dated> points;
    for (std::size_t i = 0; i < x.size(); ++i) points.push_back({x[i], y[i], 1});
    const auto line = robustLine(points);
    ASSERT_TRUE(line);
    EXPECT_NEAR(line->perDay, 0.413333333, 1e-6);
    EXPECT_NEAR(line->low95, 0.355555556, 1e-6);
    EXPECT_NEAR(line->high95, 0.600000000, 1e-6);
    EXPECT_TRUE(line->sure());
    EXPECT_FALSE(robustLine(daily({1, 2, 3})));
}

/// Numbers about `level` with the error that is said, and from `from` on `by` more.
std::vector<Dated> season(std::mt19937& dice, std::size_t n, double by, std::size_t from) {
    std::normal_distribution<double> error(0, 1);
    std::vector<double> values;
    for (std::size_t i = 0; i < n; ++i) values.push_back(100 + error(dice) + (i >= from ? by : 0));
    return daily(values);
}

TEST(Season, WithoutAChangeAtMostOneSeasonInTwentySeemsChanged) {
    std::mt19937 dice(11);
    int wrong = 0, all = 0;
    for (const std::size_t n : {2U, 3U, 5U, 8U, 12U})
        for (int i = 0; i < 2000; ++i, ++all)
            if (firstSureChange(season(dice, n, 0, n))) ++wrong;
    EXPECT_EQ(all, 10000);
    EXPECT_LE(wrong, 0.05 * all + 3 * std::sqrt(0.05 * 0.95 * all));
    RecordProperty("wrong", wrong);
}

TEST(Season, ARealChangeIsFoundAndItsFirstDayIsNearlyRight) {
    std::mt19937 dice(12);
    constexpr int kSeasons = 2000;
    double power[2];
    int exact = 0;
    for (const auto& [place, by] : {std::pair{0, 4.0}, {1, 8.0}}) {
        int found = 0;
        for (int i = 0; i < kSeasons; ++i) {
            const auto first = firstSureChange(season(dice, 8, by, 4));
            if (!first) continue;
            ++found;
            if (place == 1 && *first == 4) ++exact;
        }
        power[place] = static_cast<double>(found) / kSeasons;
    }
    EXPECT_GT(power[0], 0.75); // four errors: the smallest real change is 2.8
    EXPECT_GT(power[1], 0.99);
    EXPECT_GT(exact, 0.97 * kSeasons);
    RecordProperty("power at four errors, percent", static_cast<int>(100 * power[0]));
}

TEST(Season, TheLinesIntervalHoldsTheTruth) {
    std::mt19937 dice(13);
    std::normal_distribution<double> error(0, 3);
    std::uniform_real_distribution<double> gap(3, 30);
    int held = 0;
    constexpr int kSeasons = 2000;
    for (int i = 0; i < kSeasons; ++i) {
        std::vector<Dated> points;
        double day = 0;
        for (int k = 0; k < 10; ++k, day += gap(dice))
            points.push_back({day, 100 + 0.1 * day + error(dice), 3});
        const auto line = robustLine(points);
        ASSERT_TRUE(line);
        held += line->low95 <= 0.1 && 0.1 <= line->high95;
    }
    EXPECT_GE(held, 0.93 * kSeasons);
    EXPECT_LE(held, 0.985 * kSeasons);
}

std::vector<double> outing(std::mt19937& dice, std::size_t n, double by, std::size_t from) {
    std::vector<double> values;
    for (const Dated& d : season(dice, n, by, from)) values.push_back(d.value);
    return values;
}

TEST(ChangePoint, ItsIntervalHoldsTheTruth) {
    std::mt19937 dice(21);
    int found = 0, held = 0;
    double width = 0;
    constexpr int kOutings = 400;
    for (int i = 0; i < kOutings; ++i) {
        const std::size_t n = 16 + dice() % 20, at = 4 + dice() % (n - 8);
        const double by = std::uniform_real_distribution<double>(1, 2.5)(dice);
        const auto c = changePoint(outing(dice, n, by, at));
        if (!c) continue;
        ++found;
        held += c->low <= at && at <= c->high;
        width += static_cast<double>(c->high - c->low + 1);
    }
    ASSERT_GT(found, kOutings / 2);
    EXPECT_GE(held, 0.92 * found);
    RecordProperty("held of found", std::to_string(held) + " of " + std::to_string(found));
    RecordProperty("mean width", std::to_string(width / found));
}

TEST(ChangePoint, NoneIsFoundWhereThereIsNone) {
    std::mt19937 dice(22);
    int wrong = 0;
    constexpr int kOutings = 400;
    for (int i = 0; i < kOutings; ++i) wrong += changePoint(outing(dice, 20, 0, 20)).has_value();
    EXPECT_LE(wrong, 0.05 * kOutings + 3 * std::sqrt(0.05 * 0.95 * kOutings));
    EXPECT_FALSE(changePoint({1, 1, 1, 1, 9, 9, 9, 9})); // too few
}

TEST(Association, RanksAsSpearmanDoes) {
    // scipy 1.10.1: stats.spearmanr gives this.
    const auto a = associationOf({1, 2, 3, 4, 5, 5, 7, 8}, {2, 1, 4, 3, 9, 1, 2, 3});
    ASSERT_TRUE(a);
    EXPECT_NEAR(a->rank, 0.201234477, 1e-6);
    EXPECT_GT(a->chance, 0.3);
    EXPECT_EQ(a->pairs, 8U);
    EXPECT_LT(associationOf({1, 2, 3, 4, 5, 6, 7, 8}, {10, 20, 30, 40, 50, 60, 70, 80})->chance, 0.01);
    EXPECT_FALSE(associationOf({1, 2, 3, 4, 5}, {3, 3, 3, 3, 3}));
}

} // namespace
} // namespace jg
