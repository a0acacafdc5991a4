// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/tell/take_cuts.h"

#include "review/record/review_json.h"
#include "tests/review/made_review.h"

#include <gtest/gtest.h>

#include <random>

namespace jg {
namespace {

constexpr std::int64_t kSecond = 48000;

Take takeOf(double seconds) {
    Take take;
    take.samples = static_cast<std::int64_t>(seconds * kSecond);
    return take;
}

std::vector<SampleSpan> spokenAt(std::initializer_list<std::pair<double, double>> seconds) {
    std::vector<SampleSpan> spans;
    for (const auto& [from, to] : seconds)
        spans.push_back({static_cast<std::int64_t>(from * kSecond), static_cast<std::int64_t>(to * kSecond)});
    return spans;
}

TEST(TakeCuts, EndsKeepALittleAndPausesStayUnlessAskedFor) {
    Take take = takeOf(12);
    const auto spoken = spokenAt({{2, 4}, {7, 10}});
    EXPECT_TRUE(cutsOf(take, spoken, Shortening::None).empty());
    take.cuts = cutsOf(take, spoken, Shortening::Ends);
    ASSERT_EQ(take.cuts.size(), 2U);
    EXPECT_EQ(take.cuts[0], (SampleSpan{0, 7 * kSecond / 4}));
    EXPECT_EQ(take.cuts[1], (SampleSpan{21 * kSecond / 2, 12 * kSecond}));
    EXPECT_NEAR(take.seconds(), 12 - 1.75 - 1.5, 1e-9);
    take.cuts = cutsOf(take, spoken, Shortening::Pauses);
    ASSERT_EQ(take.cuts.size(), 3U);
    EXPECT_NEAR(take.seconds(), 0.25 + 2 + kPauseS + 3 + 0.5, 1e-4);
    EXPECT_TRUE(cutsOf(take, {}, Shortening::Pauses).empty()); // nothing heard: nothing taken away
}

TEST(TakeCuts, WhereSomethingIsShownInAPauseItStays) {
    Take take = takeOf(12);
    take.events = {{.sample = 0, .kind = TakeEventKind::Frame},
                   {.sample = 11 * kSecond / 2, .kind = TakeEventKind::Frame, .frame = 4},
                   {.sample = 5 * kSecond, .kind = TakeEventKind::Pointer}};
    const auto cuts = cutsOf(take, spokenAt({{0, 4}, {7, 12}}), Shortening::Pauses);
    ASSERT_EQ(cuts.size(), 2U);
    for (const SampleSpan& cut : cuts)
        EXPECT_FALSE(cut.from <= 11 * kSecond / 2 && 11 * kSecond / 2 < cut.to);
    EXPECT_EQ(cuts[0].to, 11 * kSecond / 2 - 3 * kSecond / 10);
    EXPECT_EQ(cuts[1].from, 11 * kSecond / 2 + 3 * kSecond / 10);
}

TEST(TakeCuts, EachSampleThatIsHeardIsTheOneOfTheFile) {
    std::mt19937 engine(5);
    for (int round = 0; round < 200; ++round) {
        Take take = takeOf(3);
        std::int64_t at = 0;
        while (true) {
            const auto from = at + 2000 + static_cast<std::int64_t>(engine() % 20000),
                       to = from + 1000 + static_cast<std::int64_t>(engine() % 30000);
            if (to > take.samples) break;
            take.cuts.push_back({from, to});
            at = to;
        }
        std::vector<float> file(static_cast<std::size_t>(take.samples));
        for (std::size_t i = 0; i < file.size(); ++i) file[i] = static_cast<float>(i);
        const auto heard = heardOf(take, file);
        ASSERT_EQ(static_cast<std::int64_t>(heard.size()), take.kept());
        for (std::int64_t i = 0; i < take.kept(); i += 777) {
            const std::int64_t place = inFile(take, i);
            for (const SampleSpan& cut : take.cuts) ASSERT_FALSE(cut.from <= place && place < cut.to);
            // Faded within five milliseconds of a cut, else the file's own.
            const bool nearCut = std::any_of(take.cuts.begin(), take.cuts.end(), [&](const SampleSpan& c) {
                return std::abs(place - c.from) <= 241 || std::abs(place - c.to) <= 241;
            });
            if (!nearCut) {
                ASSERT_EQ(heard[static_cast<std::size_t>(i)], static_cast<float>(place));
            }
        }
        EXPECT_EQ(inFile(take, take.kept() + 5), take.samples);
    }
}

TEST(TakeCuts, ADocumentWithImpossibleOnesIsRefused) {
    Review review = test::review();
    Take take = takeOf(2);
    take.file = "a.wav";
    take.cuts = {{100, 200}, {300, 96000}};
    review.takes[{"s"}] = take;
    Take spare = take;
    spare.file = "b.wav";
    spare.cuts.clear();
    spare.atUnix = 1780000000;
    review.spareTakes[{"s"}] = {spare};
    const auto back = reviewFromJson(toJson(review));
    ASSERT_TRUE(back);
    EXPECT_EQ(back->takes, review.takes);
    EXPECT_EQ(back->spareTakes, review.spareTakes);
    EXPECT_EQ(back->takeFiles(), (std::vector<std::string>{"a.wav", "b.wav"}));
    for (const std::vector<SampleSpan>& wrong :
         {std::vector<SampleSpan>{{200, 100}}, std::vector<SampleSpan>{{0, 96001}},
          std::vector<SampleSpan>{{300, 400}, {350, 500}}, std::vector<SampleSpan>{{-5, 100}}}) {
        review.takes[{"s"}].cuts = wrong;
        EXPECT_FALSE(reviewFromJson(toJson(review)));
    }
}

} // namespace
} // namespace jg
