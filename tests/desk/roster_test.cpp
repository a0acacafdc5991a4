// SPDX-License-Identifier: GPL-3.0-or-later
// A roster as spreadsheets write it: checked, compared, merged, and nothing kept that was not agreed to.
#include "desk/intake/roster.h"

#include "review/record/people_check.h"
#include "tests/support/mutate.h"
#include "tests/support/shelf.h"

#include <fstream>
#include <random>

namespace jg {
namespace {

using test::Shelf;

class Roster : public testing::Test {
protected:
    Result<std::vector<RosterRow>> read(const std::string& text) {
        std::ofstream(shelf.folder / "roster.csv", std::ios::binary) << text;
        return readRoster(*shelf.library, shelf.folder / "roster.csv", test::today());
    }
    std::string why(const std::string& text) {
        const auto rows = read(text);
        return rows ? std::string() : said(rows.error().text);
    }

    Shelf shelf;
};

const std::string kHead = "First name,Last name,Born,Throws,Height,Level,Mail,Guardian,Guardian mail\r\n";

TEST_F(Roster, AddsWhoIsNewAndChangesOnlyWhatIsFilled) {
    auto rows =
        read("\xEF\xBB\xBF" + kHead +
             "Noor,\"Ade, Jr.\",2011-03-09,left,162,school team,,\"Ada \"\"A\"\" Ade\",ada@example.org\r\n"
             "\r\n"
             "Ivo,Brand,9 March 2004,R,\"6 ft 1\",,ivo@example.org,,\r\n");
    ASSERT_TRUE(rows) << said(rows.error().text);
    ASSERT_EQ(rows->size(), 2U);
    for (const RosterRow& r : *rows) EXPECT_EQ(r.kind, RosterKind::New) << said(r.words);
    EXPECT_EQ(*keepRoster(*shelf.library, *rows), 2);
    const auto all = *shelf.library->athletes();
    ASSERT_EQ(all.size(), 2U);
    const Athlete& noor = all[0].firstName == "Noor" ? all[0] : all[1];
    EXPECT_EQ(noor.lastName, "Ade, Jr.");
    EXPECT_EQ(noor.guardianName, "Ada \"A\" Ade");
    EXPECT_EQ(noor.hand, Hand::Left);
    EXPECT_NEAR(*noor.heightM, 1.62, 1e-9);
    ASSERT_EQ(noor.heights.size(), 1U);

    // The same table again changes nobody; a shorter one with semicolons changes what it names.
    rows = read("Name;Surname;Birthday;Height;Team\nnoor;ade, jr.;9.3.2011;165;\nIvo;Brand;2004-03-09;;first "
                "season\n");
    ASSERT_TRUE(rows) << said(rows.error().text);
    EXPECT_EQ(rows->at(0).kind, RosterKind::Changed);
    EXPECT_NE(said(rows->at(0).words).find("165 cm"), std::string::npos) << said(rows->at(0).words);
    EXPECT_EQ(rows->at(1).kind, RosterKind::Changed);
    EXPECT_EQ(*keepRoster(*shelf.library, *rows), 2);
    const Athlete grown = *shelf.library->athlete(noor.id);
    EXPECT_EQ(grown.level, "school team"); // an empty field changes nothing
    EXPECT_EQ(grown.guardianEmail, "ada@example.org");
    EXPECT_EQ(grown.heights.size(), 2U);
    rows = read("Name;Surname;Birthday\nNoor;Ade, Jr.;2011-03-09\n");
    EXPECT_EQ(rows->at(0).kind, RosterKind::Same);
    EXPECT_EQ(*keepRoster(*shelf.library, *rows), 0);
    EXPECT_EQ(shelf.library->athletes()->size(), 2U);
}

TEST_F(Roster, RefusesARowInWordsAndKeepsTheOthers) {
    ASSERT_TRUE(keepRoster(*shelf.library, *read(kHead + "Noor,Ade,2011-03-09,R,,,,,\r\n")));
    const auto rows = read(kHead + "Ivo,Brand,3/9/2011,R,,,,,\r\n"
                                   "Noor,Ade,2012-03-09,R,,,,,\r\n"
                                   "Mira,Fenn,2010-01-02,both,,,,,\r\n"
                                   "Mira,Fenn,2010-01-02,R,900,,,,\r\n"
                                   "Mira,Fenn,2010-01-02,R,,,,,not an address\r\n"
                                   "Mira,Fenn,2010-01-02,R,,,m@example.org,Mo,m@example.org\r\n"
                                   "Lou,,2009-05-05,L,,,,,\r\n"
                                   "Lou,,2009-05-05,L,,,,,\r\n"
                                   ",Fenn,2010-01-02,R,,,,,\r\n");
    ASSERT_TRUE(rows) << said(rows.error().text);
    ASSERT_EQ(rows->size(), 9U);
    for (std::size_t i = 0; i < rows->size(); ++i) {
        EXPECT_EQ(rows->at(i).kind, i == 6 ? RosterKind::New : RosterKind::Refused) << i;
        EXPECT_EQ(said(rows->at(i).words).empty(), i == 6) << i;
    }
    EXPECT_NE(said(rows->at(1).words).find("2011"), std::string::npos); // who is here, and born when
    EXPECT_EQ(*keepRoster(*shelf.library, *rows), 1);
}

TEST_F(Roster, AFileThatIsNoRosterIsRefusedWithWhatItShouldBe) {
    EXPECT_NE(why("").find("first row"), std::string::npos);
    EXPECT_NE(why(kHead).find("no row"), std::string::npos);
    EXPECT_NE(why("Last name,Born\nAde,2011-03-09\n").find("first name"), std::string::npos);
    EXPECT_NE(why("First name,First,Born\na,b,2011-03-09\n").find("twice"), std::string::npos);
    EXPECT_NE(why(kHead + "\"Noor,Ade,2011-03-09\r\n").find("quotation mark"), std::string::npos);
    EXPECT_NE(why("First name,Born\nJos\xE9,2011-03-09\n").find("UTF-8"), std::string::npos);
    EXPECT_NE(why(std::string("First name,Born\nN\0or,2011-03-09\n", 31)).find("UTF-8"), std::string::npos);
    EXPECT_NE(why(kHead + std::string(5 << 20, 'a')).find("too large"), std::string::npos);
    EXPECT_FALSE(readRoster(*shelf.library, shelf.folder.path(), test::today()));
    EXPECT_FALSE(readRoster(*shelf.library, shelf.folder / "nowhere.csv", test::today()));
    EXPECT_TRUE(shelf.library->athletes()->empty());
}

TEST_F(Roster, ChangedBytesEndInRowsOrASentence) {
    std::mt19937_64 engine(29);
    const std::string whole = kHead + "Noor,\"Ade, Jr.\",2011-03-09,left,162,school,,Ada,ada@example.org\r\n"
                                      "Ivo,Brand,9 March 2004,R,\"6 ft 1\",,ivo@example.org,,\r\n";
    int read_ = 0, refused = 0;
    for (int i = 0; i < 2000; ++i) {
        const auto rows = read(test::mutatedBytes(whole, engine));
        rows ? ++read_ : ++refused;
        if (rows)
            for (const RosterRow& r : *rows)
                if (r.kind != RosterKind::Refused) {
                    EXPECT_TRUE(checkAthlete(r.athlete, test::today()));
                }
    }
    EXPECT_GT(read_, 100);
    EXPECT_GT(refused, 100);
}

TEST_F(Roster, ANameIsComparedByWhatItLooksLike) {
    Athlete zoe;
    zoe.id = {"ath-zoe"};
    zoe.firstName = "Zo\u00eb  Mai";
    zoe.lastName = "O\u2019Dare";
    zoe.born = *parseIsoDate("2011-03-09");
    ASSERT_TRUE(test::put(*shelf.library, zoe));
    // Decomposed, in capitals, with another space.
    const auto rows = read(kHead + "ZOE\u0308\u00a0MAI,O\u2019DARE,2011-03-09,left,,,,,\r\n");
    ASSERT_TRUE(rows);
    ASSERT_EQ(rows->size(), 1U);
    EXPECT_NE(rows->front().kind, RosterKind::New) << "the same child twice";
    EXPECT_EQ(rows->front().athlete.id, zoe.id);
}

TEST_F(Roster, OneNameWithTwoBirthDatesIsAskedAbout) {
    const auto rows = read(
        kHead + "Noor,Ade,2011-03-09,,,,,,\r\nnoor,ADE,2011-09-03,,,,,,\r\nIvo,Brand,2010-01-01,,,,,,\r\n");
    ASSERT_TRUE(rows);
    ASSERT_EQ(rows->size(), 3U);
    EXPECT_EQ((*rows)[0].kind, RosterKind::Refused);
    EXPECT_EQ((*rows)[1].kind, RosterKind::Refused);
    EXPECT_NE(said((*rows)[0].words).find("row 3"), std::string::npos) << said((*rows)[0].words);
    EXPECT_NE(said((*rows)[1].words).find("row 2"), std::string::npos) << said((*rows)[1].words);
    EXPECT_EQ((*rows)[2].kind, RosterKind::New);
}

TEST_F(Roster, AnotherChildsAddressIsNoGuardians) {
    const auto rows = read(
        kHead +
        "Noor,Ade,2011-03-09,,,,noor@example.org,,\r\nIvo,Brand,2012-01-01,,,,,Noor,NOOR@example.org\r\n");
    ASSERT_TRUE(rows);
    EXPECT_EQ((*rows)[0].kind, RosterKind::New);
    EXPECT_EQ((*rows)[1].kind, RosterKind::Refused);
    EXPECT_NE(said((*rows)[1].words).find("Noor Ade"), std::string::npos) << said((*rows)[1].words);
}

} // namespace
} // namespace jg
