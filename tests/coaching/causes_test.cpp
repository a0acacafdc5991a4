// SPDX-License-Identifier: GPL-3.0-or-later
// Causes: the search for roots against brute force, evidence, competing causes, the coach's own word.
#include "coaching/cause_graph.h"
#include "coaching/hypotheses.h"
#include "tests/support/core.h"

#include <bit>
#include <chrono>
#include <random>
#include <set>

namespace jg {
namespace {

using Arrows = std::vector<std::pair<std::size_t, std::size_t>>;

Arrows randomArrows(std::mt19937& random, std::size_t nodes, double each) {
    std::bernoulli_distribution there(each);
    Arrows arrows;
    for (std::size_t a = 0; a < nodes; ++a)
        for (std::size_t b = 0; b < nodes; ++b)
            if (a != b && there(random)) arrows.emplace_back(a, b);
    return arrows;
}

/// What a set of nodes reaches, itself included; by another way than the search: rounds over all arrows.
unsigned reachedBy(unsigned set, const Arrows& arrows) {
    for (unsigned before = 0; before != set;) {
        before = set;
        for (const auto& [from, to] : arrows)
            if (set >> from & 1U) set |= 1U << to;
    }
    return set;
}

TEST(CauseGraph, FindsAsFewRootsAsBruteForceOnAThousandRandomGraphs) {
    std::mt19937 random(16);
    int circles = 0;
    for (int round = 0; round < 1000; ++round) {
        const std::size_t nodes = 1 + random() % 14;
        const Arrows arrows = randomArrows(random, nodes, 0.02 + 0.01 * static_cast<double>(random() % 20));
        const RootSearch found = findRoots(nodes, arrows);
        const unsigned all = (1U << nodes) - 1;
        int fewest = 15;
        for (unsigned set = 1; set <= all; ++set)
            if (std::popcount(set) < fewest && reachedBy(set, arrows) == all) fewest = std::popcount(set);
        ASSERT_EQ(static_cast<int>(found.roots.size()), fewest) << "graph " << round;
        unsigned roots = 0;
        for (const std::size_t circle : found.roots) roots |= 1U << found.circles[circle].front();
        ASSERT_EQ(reachedBy(roots, arrows), all) << "graph " << round;
        for (const auto& circle : found.circles) circles += circle.size() > 1;
    }
    EXPECT_GT(circles, 100); // else the graphs hold too few circles to prove anything
}

/// A playbook of nothing but items and random causes between them.
Playbook randomBook(std::mt19937& random, std::size_t items, double each) {
    Playbook book;
    for (std::size_t i = 0; i < items; ++i) {
        GradedItem item;
        item.id = "i" + std::to_string(i), item.name = item.id, item.group = i % 2 ? "lower" : "arm";
        book.items.push_back(std::move(item));
    }
    for (const auto& [from, to] : randomArrows(random, items, each))
        book.causes.push_back({book.items[from].id, book.items[to].id, "somebody", "", "Because."});
    return book;
}

TEST(Causes, TwoHundredFindingsTakeLittle) {
    std::mt19937 random(17);
    const Playbook book = randomBook(random, 200, 0.01);
    std::vector<Finding> findings;
    for (const GradedItem& i : book.items) findings.push_back({i.id, Verdict::Change, 1});
    std::vector<double> took;
    for (int round = 0; round < 5; ++round) {
        const auto begun = std::chrono::steady_clock::now();
        const CauseReport report = explain(book, findings);
        took.push_back(
            std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - begun).count());
        EXPECT_EQ(report.order.size(), 200U);
    }
    // Shown here only; the figure stands in docs/performance.md, from causes_bench.
    RecordProperty("ms", std::to_string(*std::min_element(took.begin(), took.end())));
}

TEST(Causes, ReportsHoldOnAThousandRandomPlaybooks) {
    std::mt19937 random(18);
    for (int round = 0; round < 1000; ++round) {
        const Playbook book = randomBook(random, 14, 0.12);
        std::vector<Finding> findings;
        Known known;
        for (const GradedItem& i : book.items) {
            if (random() % 2)
                findings.push_back({i.id, Verdict::Change, static_cast<double>(random() % 9)});
            else if (random() % 2)
                known[i.id] = Looked::Good;
        }
        const CauseReport report = explain(book, findings, known);
        std::set<std::string> explained;
        for (const Root& r : report.roots) {
            explained.insert(r.id);
            explained.insert(r.explains.begin(), r.explains.end());
        }
        ASSERT_EQ(explained.size(), findings.size());
        ASSERT_EQ(std::set(report.order.begin(), report.order.end()), explained);
        for (const CauseLink& link : report.links)
            for (const std::string& between : link.through)
                ASSERT_FALSE(known.contains(between)) << "a good one is given as a reason";
    }
}

TEST(Causes, NoChainGoesThroughWhatIsGood) {
    Playbook book = test::playbook();
    book.causes = {{"back-knee", "leg-spread", "one", "", "A."},
                   {"leg-spread", "trunk-forward", "one", "", "B."}};
    const std::vector<Finding> findings = {{"back-knee", Verdict::Change, 1},
                                           {"trunk-forward", Verdict::Change, 1}};
    const CauseReport unknown = explain(book, findings);
    ASSERT_EQ(unknown.roots.size(), 1U);
    EXPECT_TRUE(unknown.roots[0].evidence.empty()); // nothing speaks for it that was found
    ASSERT_FALSE(unknown.roots[0].unknown.empty());
    EXPECT_EQ(unknown.links.at(0).through, std::vector<std::string>{"leg-spread"});
    const CauseReport good = explain(book, findings, {{"leg-spread", Looked::Good}});
    EXPECT_EQ(good.roots.size(), 2U);
    EXPECT_TRUE(good.links.empty());
}

TEST(Causes, ACircleIsOneRootWithItsMembers) {
    Playbook book = test::playbook();
    book.causes = {{"leg-spread", "trunk-forward", "one", "", "A."},
                   {"trunk-forward", "leg-spread", "two", "", "B."},
                   {"trunk-forward", "elbow-height", "two", "", "C."}};
    const CauseReport r = explain(book, {{"leg-spread", Verdict::Change, 1},
                                         {"trunk-forward", Verdict::Change, 1},
                                         {"elbow-height", Verdict::Change, 1}});
    ASSERT_EQ(r.roots.size(), 1U);
    EXPECT_EQ(r.roots[0].circle, std::vector<std::string>{"trunk-forward"});
    EXPECT_EQ(r.rootOf("elbow-height"), &r.roots[0]);
}

TEST(Causes, TheCoachRefusesALinkAndAddsOne) {
    Playbook book = test::playbook();
    book.causes = {{"back-knee", "leg-spread", "one", "", "A."}};
    const std::vector<Finding> findings = {
        {"back-knee", Verdict::Change, 1}, {"leg-spread", Verdict::Change, 1}, {"hunch", Verdict::Change, 1}};
    const CauseReport r = explain(book, findings, {},
                                  {{"back-knee", "leg-spread", Stance::Refused, ""},
                                   {"hunch", "leg-spread", Stance::Agreed, "The back is round first."}});
    EXPECT_EQ(r.roots.size(), 2U);
    ASSERT_NE(r.root("hunch"), nullptr);
    EXPECT_EQ(r.root("hunch")->explains, std::vector<std::string>{"leg-spread"});
    ASSERT_EQ(r.links.size(), 1U);
    EXPECT_TRUE(r.links[0].own);
    EXPECT_EQ(r.links[0].why, "The back is round first.");
}

TEST(Hypotheses, ComeFoundFirstWithWhatWouldTellTheOthersApart) {
    const auto all = competingCauses(test::playbook(), {"trunk-forward", "front-knee-change"},
                                     {{"front-knee-release", Looked::Good},
                                      {"glove-firm", Looked::NotVisible},
                                      {"back-foot-off", Looked::CannotTell}});
    const auto it =
        std::find_if(all.begin(), all.end(), [](const auto& c) { return c.sign == "trunk-forward"; });
    ASSERT_NE(it, all.end());
    EXPECT_EQ(it->causes.front().cause, "front-knee-change");
    EXPECT_TRUE(it->causes.front().tells.empty());
    EXPECT_EQ(it->causes.back().cause, "front-knee-release");
    EXPECT_NE(said(it->causes.back().standing).find("ruled out"), std::string::npos);
    for (const Hypothesis& h : it->causes) {
        if (h.cause == "glove-firm") {
            EXPECT_NE(said(h.tells).find("open side"), std::string::npos);
        }
        if (h.cause == "back-foot-off") {
            EXPECT_NE(said(h.tells).find("Another delivery"), std::string::npos);
        }
    }
    EXPECT_FALSE(it->screens.empty());
}

TEST(Needs, WhatTheBodyCantReachComesBeforeWhatItWasNotTaught) {
    const Playbook& book = test::playbook();
    WhyNot w{"back-knee", std::nullopt, {}};
    EXPECT_EQ(needOf(book, w), std::nullopt);
    w.screens = {{"show-slowly", false}, {"one-leg", false}};
    EXPECT_EQ(needOf(book, w), Need::Hold);
    w.screens["hip-turn"] = false;
    EXPECT_EQ(needOf(book, w), Need::Reach);
    w.need = Need::Speed; // the coach's own word
    EXPECT_EQ(needOf(book, w), Need::Speed);
    w = {"back-knee", std::nullopt, {{"show-slowly", true}, {"full-speed", true}}};
    EXPECT_EQ(needOf(book, w), std::nullopt);
}

TEST(Needs, EveryGroupHasAScreenForEachQuestion) {
    for (const MeasureGroup& group : measureGroups())
        for (const Need need : kNeeds) {
            const auto& all = test::playbook().screens;
            EXPECT_TRUE(std::any_of(all.begin(), all.end(),
                                    [&](const Screen& s) {
                                        return s.tells == idOf(need) &&
                                               std::find(s.groups.begin(), s.groups.end(), group.id) !=
                                                   s.groups.end();
                                    }))
                << group.id << " " << idOf(need);
        }
}

} // namespace
} // namespace jg
