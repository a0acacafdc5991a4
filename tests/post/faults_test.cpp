// SPDX-License-Identifier: GPL-3.0-or-later
// What is told of a mail against what the server holds, wherever the talk breaks off: never "sent" for one it
// does not have, never "not sent" for one it has.
#include "post/smtp.h"
#include "tests/post/scripted_server.h"
#include "tests/support/fixtures.h"

#include <chrono>
#include <cstdlib>
#include <functional>
#include <map>
#include <optional>

namespace jg {
namespace {

using test::Failing;
using test::ScriptedServer;
using test::ServerFault;

enum class Told { Sent, NotSent, Unsure };

std::string mailBytes() {
    std::string bytes = "Subject: Hello\r\n\r\n";
    for (int i = 0; i < 12; ++i) bytes += "Line " + std::to_string(i) + " of a letter that is told of.\r\n";
    return bytes;
}

struct Ended {
    Told told;
    bool has;
};

MailServer addressOf(const ScriptedServer& office, bool encrypted, long timeoutS) {
    MailServer server;
    server.url = (encrypted ? "smtps://127.0.0.1:" : "smtp://127.0.0.1:") + std::to_string(office.port());
    server.requireTls = encrypted;
    server.timeoutS = timeoutS;
    return server;
}

Ended send(const ServerFault& fault, const std::optional<test::Certificate>& certificate) {
    ScriptedServer office(fault, certificate);
    MailServer server = addressOf(office, certificate.has_value(), 3);
    if (certificate) server.caFile = certificate->certificate.string();
    const Status sent = sendMail(server, "ilse@example.org", "ludo.home@example.org", mailBytes());
    const Told told = sent                                     ? Told::Sent
                      : sent.error().code == ErrorCode::Unsure ? Told::Unsure
                                                               : Told::NotSent;
    return {told, office.has()};
}

/// Right for what the server has; and unsure only once the mail was on its way.
void expectTrue(const ServerFault& fault, const std::optional<test::Certificate>& certificate) {
    const Ended e = send(fault, certificate);
    const std::string where = fault.at + " " + std::to_string(static_cast<int>(fault.how)) + " after " +
                              std::to_string(fault.bodyBytes);
    if (e.told == Told::Sent) {
        EXPECT_TRUE(e.has) << where;
    }
    if (e.told == Told::NotSent) {
        EXPECT_FALSE(e.has) << where;
    }
    const bool before = fault.at != "body" && fault.at != "dot" && fault.at != "QUIT";
    if (before && !fault.at.empty()) {
        EXPECT_EQ(e.told, Told::NotSent) << where;
    }
}

void everyPoint(const std::optional<test::Certificate>& certificate, std::size_t step) {
    const Ended well = send({}, certificate);
    EXPECT_EQ(well.told, Told::Sent);
    EXPECT_TRUE(well.has);
    for (const char* verb : {"connect", "EHLO", "MAIL", "RCPT", "DATA", "dot", "QUIT"})
        for (const Failing how :
             {Failing::Closes, Failing::SaysLater, Failing::SaysNo, Failing::Babbles, Failing::HalfALine})
            expectTrue({verb, how, 0}, certificate);
    for (std::size_t bytes = 0; bytes <= mailBytes().size(); bytes += step)
        expectTrue({"body", Failing::Closes, bytes}, certificate);
}

double seconds(const std::function<void()>& done) {
    const auto from = std::chrono::steady_clock::now();
    done();
    return std::chrono::duration<double>(std::chrono::steady_clock::now() - from).count();
}

/// Every byte in the long run.
std::size_t bodyStep(std::size_t shortRun) {
    return std::getenv("JUXTAGRAPH_LONG") ? 1 : shortRun;
}

TEST(MailFaults, WhatIsToldIsTrueAtEveryPoint) {
    everyPoint(std::nullopt, bodyStep(29));
}

TEST(MailFaults, TheSameWithEncryption) {
    const test::TempFolder folder;
    const auto certificate = test::makeCertificate(folder.path());
    ASSERT_TRUE(certificate);
    everyPoint(certificate, bodyStep(83));
}

TEST(MailFaults, ACertificateThatNobodyVouchesForIsRefused) {
    const test::TempFolder folder;
    const auto certificate = test::makeCertificate(folder.path());
    ASSERT_TRUE(certificate);
    ScriptedServer office({}, certificate);
    const Status sent =
        sendMail(addressOf(office, true, 3), "ilse@example.org", "ludo.home@example.org", mailBytes());
    ASSERT_FALSE(sent);
    EXPECT_NE(said(sent.error().text).find("certificate"), std::string::npos) << said(sent.error().text);
    EXPECT_FALSE(office.has());
}

// A window that was closed after its letter had gone once waited two minutes for a server's goodbye.
TEST(MailFaults, AServerThatNeverSaysGoodbyeHoldsNobodyUp) {
    ScriptedServer office({"QUIT", Failing::SaysNothing, 0});
    const MailServer server = addressOf(office, false, 60);
    std::optional<Status> sent;
    EXPECT_LT(
        seconds([&] { sent = sendMail(server, "ilse@example.org", "ludo.home@example.org", mailBytes()); }),
        8);
    EXPECT_TRUE(*sent) << said(sent->error().text);
    EXPECT_TRUE(office.has());
}

TEST(MailFaults, NorDoesOneThatIsOnlyAskedWhetherItIsThere) {
    ScriptedServer office({"QUIT", Failing::SaysNothing, 0});
    const MailServer server = addressOf(office, false, 60);
    std::optional<Status> there;
    EXPECT_LT(seconds([&] { there = checkServer(server, {}); }), 8);
    EXPECT_TRUE(*there) << said(there->error().text);
}

} // namespace
} // namespace jg
