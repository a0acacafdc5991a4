// SPDX-License-Identifier: GPL-3.0-or-later
// Letters made from the program's own proposal: title, why, cue, drill and number stand on one side, by their
// tags and by words of their own.
#include "tests/letter/random_letters.h"

#include "letter/number_line_painter.h"
#include "letter/school_year.h"
#include "review/tell/plan_rules.h"

#include <cstdlib>
#include <regex>
#include <set>

namespace jg {
namespace {

/// JUXTAGRAPH_LONG asks for three thousand.
int letters() {
    return std::getenv("JUXTAGRAPH_LONG") ? 3000 : 60;
}

/// The review with what the program itself would work on, keep and train.
test::FinishedReview proposed(int n) {
    test::FinishedReview f = test::finishedReview(n);
    Plan& plan = f.review.plan;
    plan.whyNot.clear();
    plan.drills.clear();
    const CauseReport causes = causesOf(test::playbook(), f.assessment, plan);
    const Proposal p =
        proposePriorities(test::playbook(), f.review, f.assessment, causes, f.review.judging().age);
    plan.corrections.clear();
    plan.keeps.clear();
    for (const Proposed& w : p.work) plan.corrections.push_back(w.finding);
    for (const Proposed& k : p.keep) plan.keeps.push_back(k.finding);
    const DrillGates gates = gatesFor(plan, f.assessment, f.athlete, f.submission, test::today(), false);
    for (const std::string& id : plan.corrections)
        for (const Drill* d : drillsFor(test::playbook(), textOf(f.assessment.sided(id)), gates, 1))
            plan.drills.push_back({d->id, id, d->dose, false});
    return f;
}

/// Words that belong to one side of what a title asks for, and must not stand beside a title of the other.
struct Opposites {
    const char *title, *never;
};
constexpr Opposites kEnglish[] = {{"Keep the stride shorter", "open less|land shorter|short landing"},
                                  {"Take a shorter stride", "land shorter|stays short"},
                                  {"Open the legs further", "too long"},
                                  {"Sit less deep", "sit less|as deep"},
                                  {"Stay taller into release", "stays back|stay back"},
                                  {"at or below the shoulders", "float up|Bring the (upper arm|elbow) up"},
                                  {"Bring the elbow up", "no higher"},
                                  {"Bring the hand up later", "bring the hand up late|is late"},
                                  {"Land with the front knee unlocked", "very bent"}};

TEST(SidesInLetters, NothingOfACorrectionSpeaksForTheOtherSide) {
    int corrections = 0, why = 0, numbers = 0, wrong = 0;
    for (int n = 0; n < letters(); ++n) {
        const test::FinishedReview f = proposed(n);
        const Playbook& book = test::playbook();
        for (const Audience reader : allAudiences()) {
            const LetterModel letter = f.letter(reader);
            for (const LetterCorrection& c : letter.corrections) {
                ++corrections;
                why += !c.why.empty();
                numbers += !c.number.empty();
                const SidedRow finding = f.assessment.sided(c.finding);
                const std::string title = said(c.title), reason = said(c.why), feel = said(c.feel);
                EXPECT_EQ(title, goalOf(book, f.assessment, c.finding));
                // By tags: the reason is an edge of its side, or the row's own.
                bool own = reason.empty();
                if (const GradedItem* item = book.item(c.finding)) own = own || reason == item->parent;
                for (const GradedItem& item : book.items)
                    own = own || (item.measure == c.finding &&
                                  meets({c.finding, item.measureSide}, finding) && reason == item.parent);
                bool edge = false;
                for (const Cause& cause : book.causes)
                    edge =
                        edge || (reason.find(cause.why) != reason.npos &&
                                 (meets(finding, cause.cause()) || meets(finding, cause.consequence())) &&
                                 (cause.says == kSeveralSchools || cause.says == f.review.approach().name));
                EXPECT_TRUE(own || edge) << n << " " << textOf(finding) << ": " << reason;
                // By words.
                for (const Opposites& o : kEnglish)
                    if (title.find(o.title) != title.npos &&
                        std::regex_search(reason + " " + feel, std::regex(o.never))) {
                        ++wrong;
                        ADD_FAILURE() << n << " " << title << " / " << reason << " / " << feel;
                    }
            }
            for (const PlannedDrill& d : f.review.plan.drills)
                for (const std::string& id : f.review.plan.corrections)
                    EXPECT_FALSE(book.drill(d.drill)->trainsAgainst(f.assessment.sided(id)))
                        << n << " " << d.drill << " against " << id;
        }
    }
    std::printf("%d corrections, %d with a why, %d with a number, %d wrong\n", corrections, why, numbers,
                wrong);
    EXPECT_GT(why, corrections / 2);
}

TEST(SidesInLetters, NoMinusSignNoDoubledWordNoFaultAsPraise) {
    const std::regex minus("(^|[^0-9A-Za-z])[-\u2212][0-9]"), doubled("\\b([A-Za-z]+) \\1\\b");
    std::set<std::string> faults;
    for (const GradedItem& i : test::playbook().items) faults.insert({i.fault, i.parent});
    int keeps = 0;
    for (int n = 0; n < letters(); ++n) {
        const test::FinishedReview f = proposed(n);
        for (const Audience reader : allAudiences())
            for (const Words* words : {&english(), &spanish()}) {
                const LetterModel letter = f.letter(reader);
                for (const Message& m : readersSentences(letter)) {
                    const std::string text = (*words)(m);
                    EXPECT_FALSE(std::regex_search(text, minus)) << n << ": " << text;
                    EXPECT_FALSE(std::regex_search(text, doubled)) << n << ": " << text;
                }
                for (const LetterCorrection& c : letter.corrections) {
                    if (!c.line) continue;
                    EXPECT_FALSE(std::regex_search((*words)(numberLineInWords(*c.line)), minus))
                        << n << ": " << (*words)(numberLineInWords(*c.line));
                }
                for (std::size_t k = 0; k < letter.keeps.size(); ++k) {
                    ++keeps;
                    for (const std::string& fault : faults)
                        EXPECT_EQ(english()(letter.keeps[k]).find(fault), std::string::npos)
                            << english()(letter.keeps[k]);
                    if (const MeasureRow* row = f.assessment.measure(letter.kept[k])) {
                        EXPECT_TRUE(isSurelyGood(*row)) << n << " " << letter.kept[k];
                    }
                }
            }
    }
    EXPECT_GT(keeps, 0);
}

// A reading formula takes "load" for an easy word.
TEST(SidesInLetters, AChildsLetterHasFewWordsOfTheTrade) {
    for (const Words* words : {&english(), &spanish()}) {
        std::vector<int> counts;
        for (int n = 0; n < letters() / 3; ++n)
            counts.push_back(jargonOf(proposed(n).letter(Audience::Young), *words));
        std::nth_element(counts.begin(), counts.begin() + counts.size() / 2, counts.end());
        std::printf("%s: median %d words of the trade in a child's letter\n",
                    std::string(words->tag()).c_str(), counts[counts.size() / 2]);
        EXPECT_LT(counts[counts.size() / 2], 3);
    }
}

} // namespace
} // namespace jg
