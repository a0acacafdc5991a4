// SPDX-License-Identifier: GPL-3.0-or-later
// Documents damaged at every byte: what still reads is kept, and what is lost falls to the careful side.
#include "review/record/salvage.h"

#include "review/record/review_json.h"
#include "tests/review/made_review.h"

namespace jg {
namespace {

const Date kToday = *parseIsoDate("2026-11-25");

Athlete whole() {
    Athlete a = test::athlete();
    a.lastName = "Varga";
    a.hand = Hand::Left;
    a.comingBack = ComingBack{"elbow", std::nullopt};
    return a;
}

Athlete bare(const Athlete& a) {
    Athlete known;
    known.id = a.id;
    known.firstName = a.firstName;
    known.lastName = a.lastName;
    return known;
}

Submission sentIn() {
    Submission s = test::submission();
    s.received = kToday;
    s.pain = "the elbow since Monday";
    s.clips.clear();
    for (const char* id : {"clip-1", "clip-2"}) {
        Clip c = test::clip();
        c.id.value = id;
        c.mediaHash = std::string(64, id[5]);
        c.extension = ".mp4";
        c.frames = 900;
        s.clips.push_back(c);
    }
    return s;
}

Submission bare(const Submission& s) {
    Submission known;
    known.id = s.id;
    known.athlete = s.athlete;
    known.received = s.received;
    for (const Clip& c : s.clips) {
        Clip own;
        own.id = c.id;
        own.athlete = c.athlete;
        own.mediaHash = c.mediaHash;
        own.extension = c.extension;
        known.clips.push_back(own);
    }
    return known;
}

/// Every text with one byte changed, and every beginning of it.
std::vector<std::string> damaged(const std::string& text) {
    std::vector<std::string> all;
    for (std::size_t i = 0; i < text.size(); ++i) {
        all.push_back(text.substr(0, i));
        for (const char c : {'\0', '"', '}', '\xff', 'x'}) {
            all.push_back(text);
            all.back()[i] = c;
        }
    }
    return all;
}

TEST(Salvage, AWholeDocumentIsKeptWhole) {
    EXPECT_EQ(*salvagedAthlete(toJson(whole()), bare(whole()), kToday), whole());
    EXPECT_EQ(*salvagedSubmission(toJson(sentIn()), bare(sentIn()), "lost"), sentIn());
}

TEST(Salvage, AnAthleteIsNeverOlderThanTheyAreNorAnybodyElse) {
    int kept = 0;
    for (const std::string& text : damaged(toJson(whole()))) {
        const Athlete a = *salvagedAthlete(text, bare(whole()), kToday);
        ASSERT_EQ(a.id, whole().id);
        if (athleteFromJson(text)) continue; // it reads: whether it is true is the checksum's question
        EXPECT_TRUE(a.born == whole().born || a.born == kToday) << text;
        EXPECT_TRUE(a.email.empty() || a.email == whole().email) << text;
        kept += a.born == whole().born;
    }
    EXPECT_GT(kept, 100);
}

TEST(Salvage, AReportOfPainIsNeverLostAndTheFilmsStay) {
    int whole = 0, unseen = 0;
    for (const std::string& text : damaged(toJson(sentIn()))) {
        const Submission s = *salvagedSubmission(text, bare(sentIn()), "lost");
        ASSERT_EQ(s.id, sentIn().id);
        ASSERT_EQ(s.athlete, sentIn().athlete);
        if (submissionFromJson(text)) continue;
        EXPECT_TRUE(s.painOpen()) << text;
        ASSERT_EQ(s.clips.size(), 2U) << text;
        for (const Clip& c : s.clips) {
            EXPECT_EQ(c.athlete, sentIn().athlete);
            EXPECT_TRUE(c.frames == 900 || c.unseen()) << text;
            unseen += c.unseen();
        }
        whole += s.clips == sentIn().clips;
    }
    EXPECT_GT(whole, 100);
    EXPECT_GT(unseen, 100);
}

} // namespace
} // namespace jg
