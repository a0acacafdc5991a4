// SPDX-License-Identifier: GPL-3.0-or-later
// Mails that bring films: who, what was asked, what hurts; and hostile ones.
#include "post/incoming.h"
#include "post/pain_words.h"
#include "tests/support/fixtures.h"
#include "tests/support/mails.h"

#include <gtest/gtest.h>

#include <random>

namespace jg {
namespace {

using test::mailFrom;

constexpr const char* kHome = "Ludo.Home@Example.org";

IncomingMail readBack(const Mail& mail) {
    const auto bytes = toBytes(mail);
    EXPECT_TRUE(bytes);
    const auto in = readIncoming(*bytes);
    EXPECT_TRUE(in) << said(in.error().text);
    return in ? *in : IncomingMail{};
}

TEST(Incoming, TellsSenderTextAndFilmsOfAnyNameEachOnce) {
    const auto in = readBack(mailFrom(kHome, "Hello Ilse,\n\nhere they are.\n",
                                      {{"IMG_1.MOV", "application/octet-stream", "one"},
                                       {"again.mp4", "video/mp4", "one"},
                                       {"../../etc/passwd.mp4", "video/mp4", "two"},
                                       {"notes.pdf", "application/pdf", "%PDF"}}));
    EXPECT_EQ(in.senderName, "Ruth Merrick");
    EXPECT_EQ(in.senderAddress, "ludo.home@example.org");
    EXPECT_EQ(in.subject, "Ludo's pitches");
    ASSERT_EQ(in.films.size(), 2U); // the doubled one is one
    EXPECT_EQ(in.films[0].bytes, "one");
    EXPECT_EQ(in.films[1].bytes, "two");
    EXPECT_EQ(in.leftOut, std::vector<std::string>{"notes.pdf"});
}

TEST(Incoming, WhatItAnswersAndTheSignatureAreNotTheSendersWords) {
    const auto in =
        readBack(mailFrom(kHome,
                          "Is his arm late?\n\nOn Monday Ilse wrote:\n> Does the elbow hurt?\n> Ilse\n"
                          "-- \nRuth, sore knees society\n",
                          {}));
    EXPECT_EQ(in.text, "Is his arm late?");
    EXPECT_EQ(painIn(in.text), "");
}

TEST(Incoming, AMailInHtmlAloneIsReadWithoutItsMarkup) {
    Mail m = mailFrom(kHome, "", {});
    m.text = " ";
    m.html =
        "<html><head><style>p{color:red}</style></head><body><p>Hello,</p><p>his elbow hurts &amp; swells."
        "<br>Is it late?</p><script>steal()</script></body></html>";
    const auto in = readBack(m);
    EXPECT_EQ(in.text.find("steal"), std::string::npos) << in.text;
    EXPECT_EQ(in.text.find("color"), std::string::npos) << in.text;
    EXPECT_NE(in.text.find("elbow hurts & swells."), std::string::npos) << in.text;
    EXPECT_EQ(askedIn(in.text), "Is it late?");
    EXPECT_EQ(painIn(in.text), "his elbow hurts & swells.");
}

TEST(Incoming, WhatWasAskedIsTheQuestionElseTheFirstThatIsNoGreeting) {
    EXPECT_EQ(askedIn("Hi Ilse,\n\nWe filmed today. Does he open too soon? Thanks!"),
              "Does he open too soon?");
    EXPECT_EQ(askedIn("Hello Ilse.\n\nPlease look at his front knee. Thanks."),
              "Please look at his front knee.");
    EXPECT_EQ(askedIn(""), "");
    const std::string longOne(500, 'a');
    EXPECT_EQ(askedIn("Why? " + longOne + "?"), "Why?");
}

TEST(Incoming, PainIsNoticedAndADenialIsNot) {
    struct Row {
        const char *text, *found;
    };
    for (const Row& row :
         {Row{"His elbow is sore since Sunday. It was fine before.", "His elbow is sore since Sunday."},
          Row{"No pain at all. See you.", ""}, Row{"It doesn't hurt any more.", ""},
          Row{"He is pain free.", ""},
          Row{"No pain in the elbow, but the shoulder is sore.",
              "No pain in the elbow, but the shoulder is sore."},
          Row{"Two fingers go numb.", "Two fingers go numb."}, Row{"Le duele el codo.", "Le duele el codo."},
          Row{"Sin dolor.", ""},
          Row{"He painted the shed.", "He painted the shed."}, // too much is read by a coach
          Row{"All good.", ""}})
        EXPECT_EQ(painIn(row.text), row.found) << row.text;
}

TEST(Incoming, WhatIsNoMailIsRefusedInWords) {
    for (const std::string& bytes : {std::string(), std::string("hello"), std::string(4000, '\0')}) {
        const auto in = readIncoming(bytes);
        ASSERT_FALSE(in);
        EXPECT_EQ(in.error().code, ErrorCode::BadInput);
    }
}

TEST(IncomingFuzz, TwoThousandMutatedMailsCrashNothing) {
    const auto whole = toBytes(mailFrom(kHome, "Does his elbow hurt? It is sore.",
                                        {{"a.mp4", "video/mp4", std::string(3000, 'x')},
                                         {"b.mov", "video/quicktime", std::string(200, 'y')}}));
    ASSERT_TRUE(whole);
    std::mt19937 engine(20261130);
    int read = 0;
    constexpr int kMails = 2000;
    for (int i = 0; i < kMails; ++i) {
        std::string bytes = *whole;
        for (unsigned k = 0; k < 1 + engine() % 30; ++k)
            bytes[engine() % bytes.size()] = static_cast<char>(engine());
        if (engine() % 4 == 0) bytes.resize(engine() % bytes.size());
        if (engine() % 5 == 0) bytes.insert(engine() % (bytes.size() + 1), bytes.substr(0, engine() % 400));
        const auto in = readIncoming(bytes);
        if (!in) continue;
        ++read;
        EXPECT_LE(in->films.size(), kMostFilmsInMail);
        EXPECT_LE(askedIn(in->text).size(), bytes.size());
        EXPECT_LE(painIn(in->text).size(), bytes.size());
    }
    EXPECT_GT(read, kMails / 4); // they were mails, most of them
}

} // namespace
} // namespace jg
