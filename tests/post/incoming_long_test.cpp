// SPDX-License-Identifier: GPL-3.0-or-later
// Mails that are long, never end a sentence or nest without end: quick, and short where they are shown.
#include "post/incoming.h"
#include "post/pain_words.h"
#include "tests/support/fixtures.h"

#include <chrono>

namespace jg {
namespace {

std::string mailWith(const std::string& type, const std::string& body) {
    return "From: Ruth Brandt <ruth@example.org>\r\nSubject: films\r\nMIME-Version: 1.0\r\nContent-Type: " +
           type + "; charset=utf-8\r\n\r\n" + body + "\r\n";
}

double secondsOf(const std::function<void()>& work) {
    const auto begun = std::chrono::steady_clock::now();
    work();
    return std::chrono::duration<double>(std::chrono::steady_clock::now() - begun).count();
}

std::string times(std::size_t n, const std::string& what) {
    std::string all;
    all.reserve(n * what.size());
    for (std::size_t i = 0; i < n; ++i) all += what;
    return all;
}

TEST(IncomingLong, FourMegabytesOfEntitiesAreReadOnce) {
    const std::string small = mailWith("text/html", times(20000, "&amp;lt; ")),
                      large = mailWith("text/html", times(500000, "&amp;lt; "));
    std::string text;
    const double quick = secondsOf([&] { text = readIncoming(small)->text; });
    EXPECT_EQ(text.substr(0, 10), "&lt; &lt; "); // once, not twice
    const double whole = secondsOf([&] { (void)readIncoming(large); });
    EXPECT_LT(whole,
              25 * 8 * (quick + 0.005)); // 25 times as long a mail, linear with room for a busy machine
}

TEST(IncomingLong, AMailWithoutAFullStopIsShortWhereItIsShown) {
    const std::string endless = times(200000, "and then we filmed ") + "and her elbow hurts since Tuesday " +
                                times(1000, "and more ");
    std::string asked, pain;
    EXPECT_LT(secondsOf([&] { asked = askedIn(endless), pain = painIn(endless); }), 20.0);
    EXPECT_LT(asked.size(), 500U);
    EXPECT_LT(pain.size(), 500U);
    EXPECT_NE(pain.find("elbow hurts"), std::string::npos) << pain;
    const auto mail = readIncoming(mailWith("text/plain", endless));
    ASSERT_TRUE(mail);
    EXPECT_LE(mail->text.size(), (1U << 20) + 8);
}

TEST(IncomingLong, PartsWithoutEndAreRefused) {
    std::string nested;
    for (int i = 0; i < 5000; ++i) {
        const std::string b = "b" + std::to_string(i);
        nested += "Content-Type: multipart/mixed; boundary=" + b + "\r\n\r\n--" + b + "\r\n";
    }
    const auto mail = readIncoming("From: a@example.org\r\nMIME-Version: 1.0\r\n" + nested + "\r\n\r\nx");
    ASSERT_FALSE(mail);
    EXPECT_EQ(mail.error().code, ErrorCode::BadInput);
}

} // namespace
} // namespace jg
