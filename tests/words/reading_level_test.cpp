// SPDX-License-Identifier: GPL-3.0-or-later
// Against worked figures and against GNU style, which counts by other rules.
#include "words/jargon.h"
#include "words/reading_level.h"

#include <gtest/gtest.h>

#include <cstdio>
#include <fstream>
#include <regex>

namespace jg {
namespace {

TEST(ReadingLevel, CountsSyllables) {
    const std::pair<const char*, int> kEnglish[] = {
        {"knee", 1},    {"table", 2},   {"shoulders", 2}, {"comes", 1}, {"landed", 2}, {"leaned", 1},
        {"pitches", 2}, {"release", 2}, {"the", 1},       {"elbow", 2}, {"need", 1},   {"opposite", 3}};
    for (const auto& [word, count] : kEnglish) EXPECT_EQ(syllablesIn(word, "en"), count) << word;
    const std::pair<const char*, int> kSpanish[] = {
        {"rodilla", 3}, {"pie", 1},    {"queremos", 3}, {"línea", 3},   {"guante", 2}, {"tronco", 2},
        {"día", 2},     {"ciudad", 2}, {"aéreo", 4},    {"cuidado", 3}, {"y", 1},      {"distancia", 3}};
    for (const auto& [word, count] : kSpanish) EXPECT_EQ(syllablesIn(word, "es"), count) << word;
}

TEST(ReadingLevel, FollowsThePublishedFormulas) {
    // Six words and six syllables in one sentence: 0.39 x 6 + 11.8 x 1 - 15.59.
    const ReadingLevel en = readingLevel("The cat sat on the mat.", "en");
    EXPECT_EQ(en.words, 6);
    EXPECT_EQ(en.sentences, 1);
    EXPECT_EQ(en.syllables, 6);
    EXPECT_NEAR(en.schoolYear, -1.45, 1e-9);
    // Four words, nine syllables, one sentence: -0.205 x 25 + 0.049 x 225 - 3.407.
    const ReadingLevel es = readingLevel("Mi gato come pescado.", "es");
    EXPECT_EQ(es.words, 4);
    EXPECT_EQ(es.syllables, 8);
    EXPECT_NEAR(es.schoolYear, -0.205 * 25 + 0.049 * 200 - 3.407, 1e-9);
    EXPECT_EQ(readingLevel("", "en").schoolYear, 0);
    EXPECT_EQ(readingLevel("... !", "es").words, 0);
}

/// "style" of GNU diction reads English only.
TEST(ReadingLevel, AgreesWithGnuStyleOnALetter) {
    const std::string text =
        "Your front knee lands at a hundred and forty degrees. We want it to hold or to straighten. "
        "Land on a leg that can push back at you. A soft landing has nothing to straighten from. "
        "Keep the glove out over the front foot until you let the ball go. "
        "If anything hurts, stop throwing and tell a grown-up and a doctor before the next drill. "
        "The number of pitches and the days of rest follow the rules of your league.";
    const std::string file = testing::TempDir() + "letter.txt";
    std::ofstream(file) << text << "\n";
    FILE* pipe = popen(("style -L en " + file + " 2>/dev/null").c_str(), "r");
    ASSERT_NE(pipe, nullptr);
    std::string out;
    for (char block[4096]; std::size_t n = std::fread(block, 1, sizeof block, pipe);) out.append(block, n);
    pclose(pipe);
    std::smatch found;
    ASSERT_TRUE(std::regex_search(out, found, std::regex("Kincaid: *(-?[0-9.]+)"))) << out;
    EXPECT_NEAR(readingLevel(text, "en").schoolYear, std::stod(found[1]), 0.7);
}

TEST(Jargon, IsCountedByWholeWordsInBothLanguages) {
    EXPECT_EQ(jargonIn("When you land, your hand is already up. That is on time.", "en"), 0);
    EXPECT_EQ(jargonIn("At plant your trunk opens in the load; release late.", "en"), 4);
    EXPECT_EQ(jargonIn("The plants are loads of fun.", "en"), 0);
    EXPECT_EQ(jargonIn("En la carga tu tronco gira.", "es"), 2);
}

} // namespace
} // namespace jg
