#include "words/name_veil.h"

#include "words/words.h"

#include <gtest/gtest.h>

namespace jg {
namespace {

const NameVeil kVeil({{{"Odalys", "Brandt"}, "Athlete A"},
                      {{"Wren", "Castellane"}, "Athlete B"},
                      {{"Zoë-Mai", "O'Dare"}, "Athlete C"},
                      {{"Wren", "Stoll"}, "Athlete D"},
                      {{"Runa"}, "guardian of A"}},
                     "somebody");

TEST(NameVeil, PutsEachNameOutOfSightInEverySpelling) {
    EXPECT_EQ(kVeil("Odalys Brandt, 11, left"), "Athlete A, 11, left");
    EXPECT_EQ(kVeil("BRANDT, Odalys"), "Athlete A, Athlete A");
    EXPECT_EQ(kVeil("Odalys's film and Odalys\u2019 letter"), "Athlete A's film and Athlete A\u2019 letter");
    EXPECT_EQ(kVeil("Dear Runa Brandt,"), "Dear guardian of A Athlete A,");
    EXPECT_EQ(kVeil("Zoë-Mai O'Dare"), "Athlete C");
    EXPECT_EQ(kVeil("zoë says Zoë"), "zoë says Athlete C");
}

TEST(NameVeil, AWordOfTwoPeopleIsNobodys) {
    EXPECT_EQ(kVeil("Wren Castellane and Wren Stoll"), "somebody Athlete B and somebody Athlete D");
}

TEST(NameVeil, LeavesTheRestAndTakesAddresses) {
    EXPECT_EQ(kVeil(""), "");
    EXPECT_EQ(kVeil("a wren in the shed"), "a wren in the shed"); // a bird
    EXPECT_EQ(kVeil("Brandtner threw"), "Brandtner threw");
    EXPECT_EQ(kVeil("to odalys.home@example.org, now"), "to \u2026@\u2026, now");
    EXPECT_EQ(kVeil("30 mph @ 4"), "30 mph @ 4");
}

TEST(NameVeil, ALanguageSaysNoneAndSaysThemAgain) {
    const Words hidden = english().hiding(std::make_shared<const NameVeil>(kVeil));
    EXPECT_EQ(hidden(asIs("Odalys Brandt")), "Athlete A");
    EXPECT_EQ(english()(asIs("Odalys Brandt")), "Odalys Brandt");
    EXPECT_EQ(hidden.hiding(nullptr)(asIs("Odalys")), "Odalys");
}

} // namespace
} // namespace jg
