// SPDX-License-Identifier: GPL-3.0-or-later
// What any review becomes for each reader in each language. Reading level: Kincaid et al. 1975, Crawford
// 1989.
#include "letter/fonts.h"
#include "letter/letter_pages.h"
#include "letter/school_year.h"
#include "tests/letter/random_letters.h"

#include <cstdlib>
#include <set>

namespace jg {
namespace {

/// JUXTAGRAPH_LONG asks for a thousand.
int howMany() {
    return std::getenv("JUXTAGRAPH_LONG") ? 1000 : 40;
}

bool hasLetters(const std::string& text) {
    return std::any_of(text.begin(), text.end(), [](unsigned char c) { return std::isalpha(c); });
}

/// All of a message that Spanish has no words for.
void gatherEnglish(const Message& m, const std::set<std::string>& names, std::set<std::string>& left) {
    if (!m.id.empty()) {
        const bool known = m.id.front() == '=' ? spanish().sentences().contains(m.id.substr(1))
                                               : spanish().catalogue().contains(m.id);
        if (!known) left.insert(m.id);
    }
    for (const MessageArg& arg : m.args) {
        if (const auto* text = std::get_if<std::string>(&arg.value)) {
            if (hasLetters(*text) && !names.contains(*text) && !spanish().sentences().contains(*text))
                left.insert(*text);
        } else if (const auto* inner = std::get_if<Message>(&arg.value)) {
            gatherEnglish(*inner, names, left);
        } else if (const auto* list = std::get_if<MessageList>(&arg.value)) {
            for (const Message& item : list->items) gatherEnglish(item, names, left);
        }
    }
}

std::vector<Message> allOf(const LetterModel& letter) {
    std::vector<Message> all = readersSentences(letter);
    for (const auto* more : {&letter.cautions, &letter.weekNotes, &letter.notSeen, &letter.forGrownUps})
        all.insert(all.end(), more->begin(), more->end());
    for (const Message* m : {&letter.about, &letter.foreword, &letter.nextLook}) all.push_back(*m);
    for (const LetterCorrection& c : letter.corrections) all.push_back(c.caption);
    for (const LetterWeekRow& row : letter.week)
        for (const Message* m : {&row.what, &row.how, &row.dose, &row.days, &row.body}) all.push_back(*m);
    return all;
}

TEST(Readers, NothingOfALetterIsLeftInEnglish) {
    std::set<std::string> left;
    for (int n = 0; n < howMany(); ++n) {
        const test::FinishedReview f = test::finishedReview(n);
        for (const Audience reader : allAudiences())
            for (const Message& m : allOf(f.letter(reader))) {
                gatherEnglish(m, {"Ludo", "Shed", "Ilse Varnholt"}, left);
                EXPECT_EQ(spanish()(m).find("\u2039"), std::string::npos) << spanish()(m);
            }
    }
    EXPECT_TRUE(left.empty()) << left.size() << " left, the first: " << *left.begin();
    for (const std::string& sentence : left) ADD_FAILURE() << sentence;
}

TEST(Readers, ReadWithEaseWhatIsWrittenForThem) {
    for (const Words& words : {english(), spanish()})
        for (const Audience reader : allAudiences()) {
            std::vector<double> years;
            for (int n = 0; n < howMany(); ++n) {
                const LetterModel letter = test::finishedReview(n).letter(reader);
                years.push_back(schoolYearOf(letter, words));
            }
            const auto easy = std::count_if(years.begin(), years.end(),
                                            [&](double y) { return y <= mostSchoolYear(reader); });
            std::sort(years.begin(), years.end());
            EXPECT_GE(easy, 0.95 * static_cast<double>(years.size()))
                << words.tag() << " " << idOf(reader) << ": median " << years[years.size() / 2]
                << ", highest " << years.back();
        }
}

TEST(Readers, AChildIsToldNoErrorsAndGrownUpsAreToldTheRest) {
    for (int n = 0; n < howMany(); ++n) {
        const LetterModel letter = test::finishedReview(n).letter(Audience::Young);
        for (const LetterCorrection& c : letter.corrections)
            EXPECT_EQ(said(c.number).find("give or take"), std::string::npos) << said(c.number);
        EXPECT_TRUE(letter.weekNotes.empty());
        ASSERT_FALSE(letter.forGrownUps.empty());
        EXPECT_NE(said(letter.forGrownUps.back()).find("rules of your league"), std::string::npos);
        EXPECT_NE(said(letter.closing).find("doctor"), std::string::npos);
    }
}

TEST(Readers, NoReaderIsToldMilliseconds) {
    for (int n = 0; n < howMany(); ++n)
        for (const Audience reader : allAudiences())
            for (const Message& m : readersSentences(test::finishedReview(n).letter(reader)))
                EXPECT_EQ(said(m).find(" ms"), std::string::npos) << said(m);
}

/// A page less than a third full but the last, a line beyond the edge.
TEST(Readers, PagesAreFullAndNothingIsCutOff) {
    ASSERT_TRUE(loadFonts(std::filesystem::path(JG_SOURCE_DIR) / "data/fonts"));
    QImage still(1280, 720, QImage::Format_RGB32);
    still.fill(Qt::gray);
    for (int n = 0; n < howMany() / 4; ++n)
        for (const Words& words : {english(), spanish()})
            for (const Paper paper : {Paper::A4, Paper::Letter}) {
                const LetterModel letter =
                    test::finishedReview(n).letter(allAudiences()[static_cast<std::size_t>(n % 3)]);
                std::map<std::string, QImage> stills;
                for (const LetterCorrection& c : letter.corrections) stills[c.finding] = still;
                const LetterPages pages(letter, stills, words, paper);
                for (int page = 0; page < pages.count(); ++page) {
                    double lowest = 0;
                    for (const LetterPages::Block& b : pages.blocks(page)) {
                        lowest = std::max(lowest, b.rect.bottom());
                        EXPECT_LE(b.rect.bottom(), pages.size().height()) << n;
                        EXPECT_LE(b.rect.right(), pages.size().width()) << n;
                    }
                    if (page + 1 < pages.count()) {
                        EXPECT_GE(lowest, pages.size().height() / 3) << n << " page " << page;
                    }
                }
            }
}

} // namespace
} // namespace jg
