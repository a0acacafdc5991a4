// SPDX-License-Identifier: GPL-3.0-or-later
// What to work on, and what the letter may say of it, on many random reviews.
#include "review/tell/plan_rules.h"

#include "coaching/row_order.h"
#include "coaching/teaching.h"
#include "review/tell/letter_model.h"
#include "tests/review/stops.h"

#include <random>
#include <set>

namespace jg {
namespace {

using test::athlete;
using test::clip;
using test::mentions;
using test::playbook;
using test::review;
using test::stopsOf;
using test::submission;

/// A review whose items are graded, and whose measures are judged by hand, as chance has it.
Review graded(std::mt19937& random) {
    Review r = review();
    const auto& book = playbook();
    r.judging().approach = book.approaches[random() % book.approaches.size()];
    r.judging().approach.graded.clear();
    for (const GradedItem& i : book.items)
        if (random() % 3 == 0 || r.approach().targetOf(i.measure))
            r.judging().approach.graded.push_back(i.id);
    const auto grade = [&]() -> Grade {
        if (random() % 5 == 0)
            return {random() % 2 ? GradeState::CannotTell : GradeState::FaultAbsent, 0, "", {}};
        return {GradeState::Graded, static_cast<int>(1 + random() % 5), "", {}};
    };
    for (const std::string& id : r.judging().approach.graded)
        if (random() % 5) r.judging().grades[{1, id}] = grade();
    for (const Target& t : r.judging().approach.targets)
        if (random() % 2) r.judging().grades[{1, t.measure}] = grade();
    return r;
}

std::set<std::string> goodIn(const Assessment& a) {
    std::set<std::string> good;
    for (const auto& [id, looked] : knownOf(a))
        if (looked == Looked::Good) good.insert(id);
    return good;
}

TEST(Letter, GivesNoReasonThatWasRuledOutOnAThousandRandomReviews) {
    std::mt19937 random(21);
    int reasons = 0;
    for (int round = 0; round < 1000; ++round) {
        Review r = graded(random);
        const Assessment a = assess(r, playbook(), clip(), Hand::Right);
        for (const Judged& j : a.findings)
            if (!j.strength && r.plan.corrections.size() < 3) r.plan.corrections.push_back(j.finding.id);
        const LetterModel m = writeLetter(r, playbook(), a, athlete(), submission(), {});
        const auto good = goodIn(a);
        for (const LetterCorrection& c : m.corrections) {
            if (c.why.empty()) continue;
            ++reasons;
            // Whichever links say this: one of them must hold on this athlete.
            bool holds = false; // or, where none is borne out, what the row itself says
            if (const GradedItem* item = playbook().item(c.finding)) holds = said(c.why) == item->parent;
            for (const GradedItem& item : playbook().items)
                holds = holds || (item.measure == c.finding && said(c.why) == item.parent);
            for (const Cause& cause : playbook().causes) {
                if (said(c.why).find(cause.why) == std::string::npos) continue;
                const bool asCause = cause.from == c.finding && !good.contains(cause.to);
                const auto found = std::any_of(a.findings.begin(), a.findings.end(), [&](const Judged& j) {
                    return j.finding.id == cause.from && !j.strength && !j.cannotTell;
                });
                holds = holds || asCause || (cause.to == c.finding && found);
            }
            EXPECT_TRUE(holds) << "round " << round << ": " << c.finding << ": " << said(c.why);
        }
    }
    EXPECT_GT(reasons, 500);
}

TEST(Letter, ACorrectionWhoseNumberIsGoodSaysSoOnAThousandRandomReviews) {
    std::mt19937 random(22);
    int said_ = 0, numbers = 0;
    for (int round = 0; round < 1000; ++round) {
        Review r = graded(random);
        Assessment a = assess(r, playbook(), clip(), Hand::Right);
        // Numbers as chance has them: the letter is written from the assessment alone.
        for (MeasureRow& row : a.measures) {
            if (row.target.asksNothing() || row.target.type == TargetType::Options || random() % 2) continue;
            const double value = row.target.x + static_cast<double>(random() % 41) - 20;
            row.value.value = value, row.value.sd = 1, row.value.unit = row.target.unit;
            row.value.state = MeasureState::Measured;
            row.judgement = judge(row.target, test::plusMinus(value, 1), false);
        }
        for (const ItemRow& item : a.items)
            if (r.plan.corrections.size() < 3 && item.grade && item.grade->step == 1)
                r.plan.corrections.push_back(item.id);
        const LetterModel m = writeLetter(r, playbook(), a, athlete(), submission(), {});
        for (const LetterCorrection& c : m.corrections) {
            const GradedItem* item = playbook().item(c.finding);
            const MeasureRow* row = item ? a.measure(item->measure) : nullptr;
            if (!row || !row->value.value || c.number.empty()) continue;
            ++numbers;
            const bool tells = said(c.number).find("is where we want it") != std::string::npos;
            EXPECT_EQ(tells, row->judgement.verdict == Verdict::Keep) << c.finding << " in round " << round;
            said_ += tells;
        }
    }
    EXPECT_GT(numbers, 100);
    EXPECT_GT(said_, 20);
}

TEST(Proposal, KeepsToItsRuleOnAThousandRandomReviews) {
    std::mt19937 random(23);
    for (int round = 0; round < 1000; ++round) {
        const Review r = graded(random);
        const Assessment a = assess(r, playbook(), clip(), Hand::Right);
        const int age = static_cast<int>(8 + random() % 14);
        const CauseReport causes = causesOf(playbook(), a, r.plan);
        const Proposal p = proposePriorities(playbook(), r, a, causes, age);
        ASSERT_LE(p.work.size(), mostCorrections(age));
        const auto faults = a.faults();
        ASSERT_EQ(p.work.size() + p.later.size(), faults.size())
            << "something is neither proposed nor logged";
        ASSERT_EQ(p.work.empty(), faults.empty());
        bool other = false;
        for (const Proposed& w : p.work) {
            ASSERT_FALSE(w.reasons.empty() && p.work.size() > 1) << w.finding;
            const auto f = std::find_if(faults.begin(), faults.end(),
                                        [&](const Finding& x) { return x.id == w.finding; });
            const bool protects = f->verdict == Verdict::Protect;
            ASSERT_FALSE(protects && other) << "the arm comes first";
            other = other || !protects;
        }
        const bool anyGood = std::any_of(a.findings.begin(), a.findings.end(), [&](const Judged& j) {
            return j.strength && !j.cannotTell &&
                   std::none_of(p.work.begin(), p.work.end(), [&](const Proposed& w) {
                       const auto* item = playbook().item(w.finding);
                       const auto* mine = playbook().item(j.finding.id);
                       const std::string one = item ? item->measure : w.finding,
                                         two = mine ? mine->measure : j.finding.id;
                       return !one.empty() && one == two;
                   });
        });
        ASSERT_EQ(p.keep.empty(), !anyGood) << round;
    }
}

// The same things are chosen; only their order is the school's.
TEST(Proposal, IsTakenUpAsTheSchoolTeaches) {
    std::mt19937 random(36);
    int turned = 0;
    for (int round = 0; round < 300; ++round) {
        Review r = graded(random);
        const Assessment a = assess(r, playbook(), clip(), Hand::Right);
        const CauseReport causes = causesOf(playbook(), a, r.plan);
        const auto workBy = [&](Teaching teaching) {
            r.judging().approach.teaching = teaching;
            std::vector<std::string> ids;
            for (const Proposed& w : proposePriorities(playbook(), r, a, causes, 15).work)
                ids.push_back(w.finding);
            return ids;
        };
        const auto byWeight = workBy(Teaching::ByWeight), fromEnd = workBy(Teaching::FromTheEnd);
        ASSERT_TRUE(std::is_permutation(byWeight.begin(), byWeight.end(), fromEnd.begin(), fromEnd.end()));
        turned += byWeight != fromEnd;
        for (std::size_t i = 1; i < fromEnd.size(); ++i) {
            const auto verdict = [&](std::size_t n) { return a.judged(fromEnd[n])->finding.verdict; };
            if (verdict(i - 1) == Verdict::Protect || verdict(i) == Verdict::Protect) continue;
            const auto place = [&](std::size_t n) { return placeInTime(*playbook().shownAt(fromEnd[n])); };
            ASSERT_GE(place(i - 1), place(i)) << round;
        }
    }
    EXPECT_GT(turned, 20);
}

TEST(SendCheck, NobodyComingBackGetsALetterBeforeTheCliniciansPlanIsSeen) {
    Review r = review();
    r.plan.corrections = {"trunk-forward"};
    r.plan.drills = {{"rock-and-throw", "trunk-forward", {1, 25, 1}, false}};
    Athlete back = athlete();
    back.comingBack = ComingBack{"elbow, in June", std::nullopt};
    EXPECT_TRUE(mentions(stopsOf(r, submission(), back), "clinician's plan"));
    EXPECT_TRUE(mentions(stopsOf(r, submission(), back), "Rock back and throw"));
    back.comingBack->planSeen = test::today();
    EXPECT_FALSE(mentions(stopsOf(r, submission(), back), "clinician's plan"));
    EXPECT_FALSE(mentions(stopsOf(r, submission(), back), "Rock back and throw"));
    const LetterModel m = writeLetter(r, playbook(), {}, back, submission(), {});
    ASSERT_EQ(m.cautions.size(), 1U);
    EXPECT_NE(said(m.cautions[0]).find("comes before everything"), std::string::npos);
}

TEST(SendCheck, AChildGetsTwoCorrectionsAtMost) {
    Review r = review();
    r.judging().age = 10;
    r.plan.corrections = {"trunk-forward", "back-knee", "stride"};
    EXPECT_TRUE(mentions(stopsOf(r, submission(), athlete(10)), "More than 2 corrections"));
    r.judging().age = 11;
    EXPECT_FALSE(mentions(stopsOf(r, submission(), athlete(11)), "More than"));
}

TEST(SendCheck, ALetterWithWorkNamesAStrengthWhenThereIsOne) {
    Review r = review();
    r.judging().grades[{1, "load-shared"}] = {GradeState::Graded, 5, "", {}};
    r.judging().grades[{1, "knee-holds"}] = {GradeState::Graded, 1, "", {}};
    r.plan.corrections = {"knee-holds"};
    EXPECT_TRUE(mentions(stopsOf(r, submission(), athlete()), "names no strength"));
    r.plan.keeps = {"load-shared"}; // unspoken, and named all the same
    EXPECT_FALSE(mentions(stopsOf(r, submission(), athlete()), "names no strength"));
    const LetterModel m =
        writeLetter(r, playbook(), assess(r, playbook(), clip(), Hand::Right), athlete(), submission(), {});
    ASSERT_EQ(m.keeps.size(), 1U);
    EXPECT_NE(said(m.keeps[0]).find("share the work as you sit"), std::string::npos);
    r.judging().grades[{1, "load-shared"}].step = 2; // graded otherwise since
    EXPECT_TRUE(mentions(stopsOf(r, submission(), athlete()), "is none by its grade"));
}

} // namespace
} // namespace jg
