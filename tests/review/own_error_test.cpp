// SPDX-License-Identifier: GPL-3.0-or-later
// The coach's own error from made-up hands whose scatter is known.
#include "review/record/own_error.h"

#include "tests/support/core.h"

#include <cmath>
#include <random>

namespace jg {
namespace {

using L = Landmark;

/// A hand that scatters by `sd` on each axis and leans, on generated pictures of a height.
ErrorRun runOf(double sd, ImagePoint lean, double heightPx, int pictures, unsigned seed,
               const char* coach = "Ilse") {
    std::mt19937 engine(seed);
    std::normal_distribution<double> scatter(0, sd);
    std::uniform_real_distribution<double> at(0.2 * heightPx, 0.8 * heightPx);
    std::mt19937 bodies(7); // the same pictures for every hand
    ErrorRun run{coach, test::today(), {}};
    for (int n = 0; n < pictures; ++n) {
        ErrorPicture p;
        p.name = "made-" + std::to_string(n);
        p.joints = {L::BackHip, L::BackKnee, L::BackAnkle};
        p.heightPx = heightPx;
        p.truth.emplace();
        for (ImagePoint& t : *p.truth) t = {at(bodies), at(bodies)};
        for (auto& round : p.clicks)
            for (std::size_t i = 0; i < 3; ++i)
                round[i] = (*p.truth)[i] + lean + ImagePoint{scatter(engine), scatter(engine)};
        run.pictures.push_back(p);
    }
    return run;
}

TEST(OwnError, FindsTheScatterOfAHandAndItsLean) {
    const OwnError e = ownErrorOf(runOf(3, {0, 0}, 720, 400, 1));
    EXPECT_NEAR(e.sdPx, 3, 0.15);
    ASSERT_EQ(e.landmarks.size(), 3U);
    for (const LandmarkError& l : e.landmarks) {
        EXPECT_NEAR(l.sdPx, 3, 0.25);
        EXPECT_EQ(l.clicks, 800);
        EXPECT_NEAR(l.lean.x, 0, 0.4);
    }
    const OwnError leaning = ownErrorOf(runOf(1, {4, -2}, 720, 400, 2));
    EXPECT_NEAR(leaning.landmarks[0].lean.x, 4, 0.2);
    EXPECT_NEAR(leaning.leanPx, std::sqrt((16 + 4) / 2.0), 0.2); // apart from the scatter
    EXPECT_LT(ownErrorOf(runOf(3, {0, 0}, 720, 400, 2)).leanPx, 0.4);
    EXPECT_NEAR(leaning.landmarks[0].lean.y, -2, 0.2);
    // A hand that always lies beside the joint is as wrong as one that scatters.
    EXPECT_NEAR(leaning.sdPx, std::sqrt(1 + (16 + 4) / 2.0), 0.2);
}

TEST(OwnError, RepeatsAloneTellTheScatterToo) {
    ErrorRun run = runOf(3, {5, 5}, 720, 400, 3);
    for (ErrorPicture& p : run.pictures) p.truth.reset();
    EXPECT_NEAR(ownErrorOf(run).sdPx, 3, 0.2); // the lean is not seen without a truth
}

TEST(OwnError, IsToldForOneHeightAndScaledToAnother) {
    const std::vector<ErrorRun> runs = {runOf(9, {0, 0}, 2160, 300, 4)};
    EXPECT_NEAR(ownErrorOf(runs[0]).sdPx, 3, 0.15);
    EXPECT_NEAR(clickSigmaPx(runs, "Ilse", L::BackKnee, 720), 3, 0.3);
    EXPECT_NEAR(clickSigmaPx(runs, "Ilse", L::BackKnee, 1080), 4.5, 0.4);
    EXPECT_NEAR(clickSigmaPx(runs, "Ilse", L::Glove, 720), 3, 0.2); // never clicked: the mean of all
    EXPECT_EQ(clickSigmaPx(runs, "another", L::BackKnee, 720), kDefaultClickSigmaPx);
    EXPECT_EQ(clickSigmaPx({}, "Ilse", L::BackKnee, 720), kDefaultClickSigmaPx);
    EXPECT_EQ(clickSigmaPx({runOf(0, {0, 0}, 720, 3, 5)}, "Ilse", L::BackKnee, 720), 0.5);
}

TEST(OwnError, TheSmallestChangeFollowsFromTheAngles) {
    const OwnError e = ownErrorOf(runOf(2, {0, 0}, 720, 200, 6));
    ASSERT_TRUE(e.semDeg && e.smallestChangeDeg && e.icc);
    EXPECT_NEAR(*e.smallestChangeDeg, 1.959963984540054 * std::sqrt(2.0) * *e.semDeg, 1e-9);
    EXPECT_GT(*e.icc, 0.9);
    EXPECT_FALSE(ownErrorOf({"Ilse", test::today(), {}}).semDeg);
}

TEST(OwnError, TwoCoachesAreComparedOnThePicturesTheyShare) {
    const ErrorRun one = runOf(1, {0, 0}, 720, 12, 8), other = runOf(1, {0, 0}, 720, 12, 9, "Bram");
    const auto both = agreementOf(one, other);
    ASSERT_TRUE(both);
    EXPECT_EQ(both->pictures, 12);
    EXPECT_GT(both->icc, 0.95);
    ErrorRun elsewhere = other;
    for (ErrorPicture& p : elsewhere.pictures) p.name += "-elsewhere";
    EXPECT_FALSE(agreementOf(one, elsewhere));
}

TEST(OwnError, ComesBackFromItsRecordAndABrokenRecordIsSaid) {
    std::vector<ErrorRun> runs = {runOf(2, {0, 0}, 720, 3, 10), runOf(1, {0, 0}, 720, 2, 11, "Bram")};
    runs[1].pictures[0].truth.reset();
    const auto back = errorRunsFromJson(toJson(runs));
    ASSERT_TRUE(back);
    EXPECT_EQ(*back, runs);
    EXPECT_TRUE(errorRunsFromJson("")->empty());
    EXPECT_EQ(errorRunsFromJson("[{\"coach\": 4}]").error().code, ErrorCode::Damaged);
}

} // namespace
} // namespace jg
