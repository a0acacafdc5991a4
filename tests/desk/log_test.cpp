// SPDX-License-Identifier: GPL-3.0-or-later
// What became of findings over the reviews, against grades and numbers set by hand.
#include "desk/pages/group.h"
#include "desk/pages/log.h"
#include "desk/pages/season.h"
#include "tests/support/walk.h"

namespace jg {
namespace {

using test::Walk;

/// A judged item of a hand-made assessment.
void judge(ReviewOfAthlete& r, const std::string& id, Verdict verdict) {
    r.results->findings.push_back({{id, verdict, 2}, verdict == Verdict::Keep, false});
}

ReviewOfAthlete reviewOn(int days) {
    ReviewOfAthlete r;
    r.summary.id = {"rev-" + std::to_string(days)};
    r.summary.date = addDays(test::today(), days);
    r.results.emplace();
    return r;
}

Fate fateOf(const std::vector<LogLine>& lines, const std::string& finding, std::size_t review) {
    for (const LogLine& l : lines)
        if (l.finding == finding) return l.dots.at(review).fate;
    ADD_FAILURE() << finding;
    return Fate::NotAsked;
}

TEST(Log, AFindingIsFoundWorkedOnGoodAndComesBack) {
    AthletePage page;
    for (const int days : {0, 7, 14, 21, 28}) page.reviews.push_back(reviewOn(days));
    judge(page.reviews[0], "whole-foot", Verdict::Change);
    judge(page.reviews[1], "whole-foot", Verdict::Change);
    page.reviews[1].summary.corrections = {"whole-foot"};
    judge(page.reviews[2], "whole-foot", Verdict::Keep);
    page.reviews[3].results->items.push_back({"whole-foot", std::nullopt, true, 1});
    judge(page.reviews[4], "whole-foot", Verdict::Adjust);
    judge(page.reviews[4], "head-in-box", Verdict::Keep);
    const auto lines = logLines(page, test::playbook());
    ASSERT_FALSE(lines.empty());
    EXPECT_EQ(lines.front().finding, "whole-foot"); // worked on comes first
    const Fate wanted[] = {Fate::Found, Fate::WorkedOn, Fate::Good, Fate::Open, Fate::CameBack};
    for (std::size_t i = 0; i < 5; ++i) EXPECT_EQ(fateOf(lines, "whole-foot", i), wanted[i]) << i;
    EXPECT_EQ(fateOf(lines, "head-in-box", 0), Fate::NotAsked);
    EXPECT_EQ(fateOf(lines, "head-in-box", 4), Fate::Good);
}

TEST(FollowUp, WhatWasKeptIsCheckedThatItDidNotGetWorse) {
    JuxtaEntry before, now;
    const auto judged = [](JuxtaEntry& e, const std::string& id, Verdict v) {
        e.results.findings.push_back({{id, v, 2}, v == Verdict::Keep, false});
    };
    judged(before, "kept-a", Verdict::Keep), judged(now, "kept-a", Verdict::Keep);
    judged(before, "kept-b", Verdict::Keep), judged(now, "kept-b", Verdict::Nearly);
    judged(before, "work-a", Verdict::Change), judged(now, "work-a", Verdict::Adjust);
    judged(before, "work-b", Verdict::Change), judged(now, "work-b", Verdict::Keep);
    judged(before, "work-c", Verdict::Adjust), judged(now, "work-c", Verdict::Change);
    judged(before, "work-d", Verdict::Adjust);
    const auto all = followUp({before, {"work-a", "work-b", "work-c", "work-d"}, {"kept-a", "kept-b"}}, now);
    const Became wanted[] = {Became::Better,    Became::Good, Became::Worse,
                             Became::NotLooked, Became::Kept, Became::Worse};
    ASSERT_EQ(all.size(), std::size(wanted));
    for (std::size_t i = 0; i < all.size(); ++i) EXPECT_EQ(all[i].became, wanted[i]) << all[i].finding;
    EXPECT_TRUE(all[5].wasKept);
}

TEST(Log, TheNewestIsComparedWithTheBaselineThatTheCoachNamed) {
    Walk walk(Stage::Send);
    ASSERT_TRUE(walk.library->markSent(*walk.library->review(walk.review.id), nullptr,
                                       {test::today(), "a@example.org"}));
    for (const int days : {30, 60}) {
        Review later = *walk.library->review(walk.review.id);
        later.id = {"rev-" + std::to_string(days)};
        later.revision = 0;
        later.sent.reset();
        later.stage = Stage::Judge;
        later.date = addDays(later.date, days);
        ASSERT_TRUE(walk.library->save(later));
    }
    auto log = readLog(*walk.library, test::playbook(), walk.athlete.id);
    ASSERT_TRUE(log) << said(log.error().text);
    ASSERT_TRUE(log->since);
    EXPECT_EQ(log->since->review, walk.review.id); // the last letter
    EXPECT_EQ(log->since->name, "");
    EXPECT_EQ(log->before.lastTime, walk.review.plan.corrections);
    EXPECT_TRUE(log->before.letter);
    for (const FindingSince& f : log->since->followed) // the very same numbers and grades
        EXPECT_TRUE(f.became == Became::Kept || f.became == Became::Same || f.became == Became::CantTell)
            << f.finding;
    Athlete athlete = walk.athlete;
    athlete.baselines = {{"in the autumn", {"rev-30"}, 0}};
    ASSERT_TRUE(test::put(*walk.library, athlete));
    log = readLog(*walk.library, test::playbook(), walk.athlete.id);
    ASSERT_TRUE(log);
    EXPECT_EQ(log->since->name, "in the autumn");
    EXPECT_EQ(log->since->review.value, "rev-30");
    EXPECT_EQ(walk.library->athlete(walk.athlete.id)->baselines, athlete.baselines);
}

/// A review of one day with a leg spread on each of these pitches.
ReviewOfAthlete outingOn(int days, const std::vector<double>& values) {
    ReviewOfAthlete r = reviewOn(days);
    r.deliveries.clear();
    MeasureRow row{"leg-spread", {}, {}, {}, 1, {}, {}, {}};
    for (std::size_t i = 0; i < values.size(); ++i) {
        DeliveryMarks d;
        d.number = static_cast<int>(i) + 1;
        d.conditions.numberInOuting = d.number;
        d.conditions.went = i % 2 == 0 ? Went::Target : Went::High;
        r.deliveries.push_back(d);
        MeasureValue v;
        v.value = values[i];
        v.unit = "deg";
        row.deliveries.push_back({d.number, d.number, View::Open, v, Verdict::Keep, false});
    }
    r.results->measures.push_back(row);
    return r;
}

TEST(Outing, TellsThePitchFromWhichALevelChangedOrThatThereAreTooFew) {
    const std::vector<double> steady = {105, 106, 104, 105, 106, 105, 95, 94, 96, 95, 94, 95};
    const auto all = newestOutings({outingOn(0, {100, 90}), outingOn(7, steady)}, test::playbook());
    ASSERT_EQ(all.size(), 1U); // the newest day only
    ASSERT_TRUE(all[0].change);
    EXPECT_EQ(all[0].pitches[all[0].change->at].number, 7);
    EXPECT_EQ(all[0].inWords.id, "outing.change");
    ASSERT_EQ(all[0].went.size(), 2U);
    EXPECT_EQ(all[0].went[0].count + all[0].went[1].count, 12);
    const auto few = newestOutings({outingOn(0, {100, 90})}, test::playbook());
    ASSERT_EQ(few.size(), 1U);
    EXPECT_FALSE(few[0].change);
    EXPECT_EQ(few[0].inWords.id, "outing.too-few");
    EXPECT_TRUE(newestOutings({}, test::playbook()).empty());
}

TEST(Log, TheSeasonIsPrintedAsPopplerReadsItAndWithoutAddresses) {
    Walk walk(Stage::Send);
    test::keepEarlier(walk, "earlier", 40);
    Athlete athlete = walk.athlete;
    athlete.outings = {{addDays(test::today(), -3), 54, "arm heavy at the end"}};
    ASSERT_TRUE(test::put(*walk.library, athlete));
    const auto log = readLog(*walk.library, test::playbook(), athlete.id);
    ASSERT_TRUE(log) << said(log.error().text);
    const SeasonPage page = seasonPageOf(*log, test::playbook(), test::today());
    ASSERT_FALSE(page.findings.empty());
    ASSERT_FALSE(page.measures.empty());
    const auto path = walk.folder / "season.pdf";
    ASSERT_TRUE(writeSeason(*walk.library, test::playbook(), athlete.id, test::today(), english(), path));
    const std::string read = test::squeezed(test::shell("pdftotext -layout '" + path.string() + "' -"));
    for (const std::string& name :
         {page.name, page.findings.front().first, page.measures.front().name, page.measures.back().name,
          std::string("54 pitches. It felt: arm heavy at the end")})
        EXPECT_NE(read.find(test::squeezed(name)), std::string::npos) << name;
    EXPECT_EQ(read.find('@'), std::string::npos);
    EXPECT_EQ(read.find(test::squeezed(athlete.guardianName)), std::string::npos);
}

TEST(Log, ASeasonOfNothingIsRefused) {
    Walk walk(Stage::Look);
    Athlete nobody = walk.athlete;
    nobody.id = {"ath-new"};
    ASSERT_TRUE(test::put(*walk.library, nobody));
    const auto path = walk.folder / "season.pdf";
    const Status done =
        writeSeason(*walk.library, test::playbook(), nobody.id, test::today(), english(), path);
    ASSERT_FALSE(done);
    EXPECT_EQ(done.error().code, ErrorCode::Refused);
    EXPECT_FALSE(std::filesystem::exists(path));
}

TEST(Group, IsFilteredAndLeavesWithoutNames) {
    Walk walk(Stage::Judge);
    const auto older =
        readGroup(*walk.library, test::playbook(), test::today()); // nothing in its summary yet
    ASSERT_TRUE(older);
    const Review r = *walk.library->review(walk.review.id);
    const Assessment told = assess(r, test::playbook(), walk.submission.clips, walk.athlete.hand);
    ASSERT_TRUE(walk.library->save(r, &told));
    const auto rows = readGroup(*walk.library, test::playbook(), test::today());
    ASSERT_TRUE(rows);
    ASSERT_EQ(rows->size(), 1U);
    EXPECT_EQ(rows->front().findings, older->front().findings);
    EXPECT_TRUE(rows->front().lastLook);
    ASSERT_FALSE(rows->front().findings.empty());
    // The largest gap, beside the error that is shown with its number, whatever protects the arm.
    const auto faults = faultsInShort(told);
    const auto largest =
        std::max_element(faults.begin(), faults.end(), [](const FaultInShort& a, const FaultInShort& b) {
            return a.gapInSds < b.gapInSds;
        });
    EXPECT_EQ(rows->front().worst, largest->finding);
    EXPECT_GT(rows->front().worstInErrors, 0);
    EXPECT_NEAR(rows->front().worstInErrors * 1.96, largest->gapInSds, 1e-9);
    EXPECT_EQ(filtered(*rows, {.ageFrom = 16}).size(), 0U);
    EXPECT_EQ(filtered(*rows, {.ageFrom = 15, .ageTo = 15}).size(), 1U);
    EXPECT_EQ(filtered(*rows, {.finding = rows->front().worst}).size(), 1U);
    EXPECT_EQ(filtered(*rows, {.finding = "no-such"}).size(), 0U);
    // From the summaries alone, and the same from what an older version kept.
    const auto summaries = walk.library->reviews();
    ASSERT_TRUE(summaries);
    ASSERT_TRUE(summaries->front().faults);
    EXPECT_EQ(*summaries->front().faults, faultsInShort(told));
    ReviewSummary silent = summaries->front();
    silent.faults.reset();
    ReviewSummary read;
    ASSERT_TRUE(readSummary(toJson(silent), read));
    EXPECT_FALSE(read.faults);
    const std::string without = groupAsCsv(*rows, test::playbook(), false);
    EXPECT_EQ(without.find(walk.athlete.lastName), std::string::npos);
    EXPECT_NE(groupAsCsv(*rows, test::playbook(), true).find(walk.athlete.lastName), std::string::npos);
}

} // namespace
} // namespace jg
