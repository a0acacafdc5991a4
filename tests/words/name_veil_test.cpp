// SPDX-License-Identifier: GPL-3.0-or-later
#include "words/name_veil.h"

#include "words/words.h"

#include <gtest/gtest.h>
#include <unicode/normalizer2.h>
#include <unicode/translit.h>
#include <unicode/unistr.h>

#include <array>
#include <memory>
#include <random>

namespace jg {
namespace {

const NameVeil kVeil({{{"Odalys", "Brandt"}, "Athlete A"},
                      {{"Wren", "Castellane"}, "Athlete B"},
                      {{"Zoë-Mai", "O'Dare"}, "Athlete C"},
                      {{"Wren", "Stoll"}, "Athlete D"},
                      {{"ludo", "de la Quen"}, "Athlete E"},
                      {{"Runa"}, "guardian of A"}},
                     "somebody");

TEST(NameVeil, PutsEachNameOutOfSightInEverySpelling) {
    EXPECT_EQ(kVeil("Odalys Brandt, 11, left"), "Athlete A, 11, left");
    EXPECT_EQ(kVeil("BRANDT, Odalys"), "Athlete A, Athlete A");
    EXPECT_EQ(kVeil("Odalys's film and Odalys\u2019 letter"), "Athlete A's film and Athlete A\u2019 letter");
    EXPECT_EQ(kVeil("Dear Runa Brandt,"), "Dear guardian of A Athlete A,");
    EXPECT_EQ(kVeil("Zoë-Mai O'Dare"), "Athlete C");
    EXPECT_EQ(kVeil("zoë says Zoe\u0308"), "Athlete C says Athlete C"); // small, and decomposed
    EXPECT_EQ(kVeil("Ludo de la Quen, LUDO QUEN"), "Athlete E de la Athlete E, Athlete E");
}

TEST(NameVeil, JoinedInflectedAndInOtherScriptsToo) {
    for (const char* text :
         {"OdalysBrandt", "odalysbrandt", "odalys_brandt_2026", "IMG-Odalys12", "filmodalys", "Brandts",
          "Brandtova", "Odalysita", "О\u0434\u0430\u043b\u0438\u0441", "Οδαλυς", "DelaQuen",
          "\uFF2F\uFF44\uFF41\uFF4C\uFF59\uFF53"}) {
        const std::string hidden = kVeil(text);
        EXPECT_TRUE(hidden.find("Athlete") != hidden.npos) << text << " -> " << hidden;
    }
    const NameVeil others({{{"\u0414\u0430\u0440\u044c\u044f"}, "Athlete A"},
                           {{"\u5c0f\u6797", "\u660e"}, "Athlete B"},
                           {{"\u0627\u0644\u062d\u0633\u0646"}, "Athlete C"}},
                          "somebody");
    EXPECT_EQ(others("\u0414\u0430\u0440\u044c\u0438 12"), "Athlete A 12"); // of Darya
    EXPECT_EQ(others("Darya"), "Athlete A");
    EXPECT_EQ(others("\u4eca\u65e5\u5c0f\u6797\u660e\u304c"), "\u4eca\u65e5Athlete BAthlete B\u304c");
    EXPECT_EQ(others("\u062d\u0633\u0646"), "Athlete C"); // without its article
}

TEST(NameVeil, AWordOfTwoPeopleIsNobodys) {
    EXPECT_EQ(kVeil("Wren Castellane and Wren Stoll"), "somebody Athlete B and somebody Athlete D");
}

TEST(NameVeil, LeavesTheRestAndTakesAddresses) {
    EXPECT_EQ(kVeil(""), "");
    EXPECT_EQ(kVeil("the stride is 92 % of the height, as wanted"),
              "the stride is 92 % of the height, as wanted");
    EXPECT_EQ(kVeil("to odalys.home@example.org, now"), "to \u2026@\u2026, now");
    EXPECT_EQ(kVeil("30 mph @ 4"), "30 mph @ 4");
    EXPECT_EQ(kVeil("de la, von"), "de la, von");
}

TEST(NameVeil, ALanguageSaysNoneAndSaysThemAgain) {
    const Words hidden = english().hiding(std::make_shared<const NameVeil>(kVeil));
    EXPECT_EQ(hidden(asIs("Odalys Brandt")), "Athlete A");
    EXPECT_EQ(english()(asIs("Odalys Brandt")), "Odalys Brandt");
    EXPECT_EQ(hidden.hiding(nullptr)(asIs("Odalys")), "Odalys");
}

// What the program says itself names nobody, were an athlete called as one of its words.
TEST(NameVeil, TheProgramsOwnWordsStay) {
    const NameVeil send({{{"Send"}, "Athlete A"}}, "somebody");
    const Words hidden = english().hiding(std::make_shared<const NameVeil>(send));
    EXPECT_EQ(hidden(msg("send-bench.send-the-letter")), english()(msg("send-bench.send-the-letter")));
    EXPECT_EQ(hidden(asIs("send")), "Athlete A");
}

using icu::UnicodeString;

std::string utf8(const UnicodeString& text) {
    std::string out;
    text.toUTF8String(out);
    return out;
}

/// Made of syllables of several languages, some with marks.
std::string madeName(std::mt19937& dice) {
    constexpr std::array kSyllables = {"ka", "lo", "mi",  "ren", "sö", "tá", "vel", "dri", "ño",  "çe",
                                       "ja", "ut", "bra", "gwe", "ly", "os", "zé",  "fi",  "han", "ský"};
    std::string name;
    for (auto i = 2 + dice() % 3; i > 0; --i) name += kSyllables[dice() % kSyllables.size()];
    return utf8(UnicodeString::fromUTF8(name).toTitle(nullptr));
}

std::string otherScript(const std::string& name, const char* script) {
    UErrorCode error = U_ZERO_ERROR;
    const std::unique_ptr<icu::Transliterator> to(
        icu::Transliterator::createInstance(script, UTRANS_FORWARD, error));
    UnicodeString text = UnicodeString::fromUTF8(name);
    if (to) to->transliterate(text);
    return utf8(text);
}

// Three thousand made names, each as it may be written: none is seen.
TEST(NameVeil, NoneOfThreeThousandMadeNamesIsSeen) {
    std::mt19937 dice(36);
    UErrorCode error = U_ZERO_ERROR;
    const icu::Normalizer2* nfd = icu::Normalizer2::getNFDInstance(error);
    ASSERT_TRUE(U_SUCCESS(error));
    int seen = 0, tried = 0;
    for (int i = 0; i < 3000; ++i) {
        const std::string first = madeName(dice), last = madeName(dice);
        const NameVeil veil({{{first, last}, "Athlete"}}, "somebody");
        const UnicodeString wide = UnicodeString::fromUTF8(first);
        const std::vector<std::string> spellings = {
            first,
            utf8(UnicodeString(wide).toUpper()),
            utf8(UnicodeString(wide).toLower()),
            utf8(nfd->normalize(wide, error)),
            first + last,
            utf8(UnicodeString::fromUTF8(first + last).toLower()),
            first + "_" + last + "-3.mp4",
            first + "2026",
            first + "s",
            first + "\u2019s",
            otherScript(first, "Latin-ASCII"),
            otherScript(first, i % 2 ? "Latin-Cyrillic" : "Latin-Greek")};
        for (const std::string& spelling : spellings) {
            ++tried;
            const std::string shown = veil("by " + spelling + " today");
            const bool hidden =
                shown.find("Athlete") != shown.npos &&
                UnicodeString::fromUTF8(shown).toLower().indexOf(UnicodeString(wide).toLower()) < 0;
            seen += !hidden;
            if (!hidden && seen < 10) ADD_FAILURE() << first << " seen in " << spelling << ": " << shown;
        }
    }
    EXPECT_EQ(seen, 0) << "of " << tried;
}

} // namespace
} // namespace jg
