// SPDX-License-Identifier: GPL-3.0-or-later
// How a school teaches: the order, where power comes from, the parts of its card; a drill's link.
#include "coaching/teaching.h"

#include "coaching/approach_json.h"
#include "coaching/compare.h"
#include "coaching/playbook_rows.h"
#include "tests/support/core.h"

#include <nlohmann/json.hpp>

#include <algorithm>

namespace jg {
namespace {

using test::playbook;

TEST(Teaching, EachOrderIsItsOwn) {
    const std::vector<std::string> byWeight = {"elbow-loose", "load-shared", "no-side-fall", "knee-holds"};
    EXPECT_EQ(inTeachingOrder(playbook(), Teaching::ByWeight, byWeight), byWeight);
    EXPECT_EQ(inTeachingOrder(playbook(), Teaching::FromTheFeet, byWeight),
              (std::vector<std::string>{"load-shared", "knee-holds", "no-side-fall", "elbow-loose"}));
    EXPECT_EQ(inTeachingOrder(playbook(), Teaching::FromTheEnd, byWeight),
              (std::vector<std::string>{"elbow-loose", "no-side-fall", "knee-holds", "load-shared"}));
    EXPECT_EQ(inTeachingOrder(playbook(), Teaching::FromTheStart, byWeight),
              (std::vector<std::string>{"load-shared", "no-side-fall", "knee-holds", "elbow-loose"}));
}

TEST(Teaching, AnApproachIsReadAsItWasWritten) {
    for (const Approach& a : playbook().approaches) EXPECT_EQ(approachFromJson(approachAsJson(a)), a) << a.id;
    for (const Teaching t : allTeachings()) EXPECT_EQ(teachingFromId(idOf(t)), t);
    nlohmann::json other = approachAsJson(playbook().approaches.front());
    other["teaching"] = "sideways";
    EXPECT_THROW(approachFromJson(other), std::exception);
}

TEST(Teaching, AnEditionSaysWhatChanged) {
    const Approach before = *playbook().approach("load-and-drive");
    Approach after = before;
    after.teaching = Teaching::FromTheEnd, after.power = "the front leg";
    const auto changes = changesOf(playbook(), before, after);
    ASSERT_EQ(changes.size(), 2U);
    EXPECT_NE(said(changes[0]).find("from the end backwards"), std::string::npos);
}

TEST(CardOfParts, HoldsEachOfItsRowsInOnePart) {
    const Approach& a = *playbook().approach("card-of-parts");
    std::vector<std::string> inParts;
    for (const CardPart& part : a.parts) inParts.insert(inParts.end(), part.rows.begin(), part.rows.end());
    EXPECT_EQ(a.parts.size(), 7U); // common practice, no source
    EXPECT_TRUE(std::is_permutation(inParts.begin(), inParts.end(), a.graded.begin(), a.graded.end()));
}

TEST(DrillLink, LeadsWhereItSays) {
    Drill drill = playbook().drills.front();
    const auto keeps = [&](const std::string& link) {
        drill.link = link;
        return static_cast<bool>(checkRow(playbook(), drill));
    };
    for (const char* good : {"", "https://films.example.org/wall", "https://example.org:8443/a?b=c#d"})
        EXPECT_TRUE(keeps(good)) << good;
    for (const char* bad :
         {"http://example.org", "javascript:alert(1)", "https://", "https:///etc", "https://a b", "HTTPS",
          "https://example.org@evil.example", "https://a.example/\"><script>", "https://ex\u00e4mple.org",
          "https://a.example/\nhttps://b.example", "file:///etc/passwd"})
        EXPECT_FALSE(keeps(bad)) << bad;
    EXPECT_FALSE(keeps("https://" + std::string(300, 'a')));
    drill.link = "javascript:alert(1)"; // from a file of a stranger's
    EXPECT_THROW(rowFromJson(rowAsJson(drill)), std::exception);
}

} // namespace
} // namespace jg
