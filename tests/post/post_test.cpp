// Mail as bytes and over SMTP to the stand-in post office; every refusal in words.
#include "apps/post_office/smtp_server.h"
#include "base/file_store.h"
#include "post/mail.h"
#include "post/smtp.h"
#include "tests/support/fixtures.h"

#include <QCoreApplication>
#include <QDir>

#include <algorithm>
#include <atomic>
#include <thread>

namespace jg {
namespace {

Mail letter() {
    Mail m{"Ilse Varnholt",
           "ilse@example.org",
           "Parent of Ludo",
           "ludo.home@example.org",
           "Ludo, drei Übungen · 88°",
           "Hello Ludo,\n.\nthis line follows a dot\n",
           {},
           "id-1@juxtagraph.invalid",
           1764072000};
    std::string pdf = "%PDF-1.4\n";
    for (int i = 0; i < 5000; ++i) pdf += static_cast<char>(i * 31);
    m.attachments.push_back({"letter.pdf", "application/pdf", pdf});
    return m;
}

/// Sends while the server's event loop turns.
Status sendTo(const MailServer& server, const std::string& bytes, std::stop_token stop = {}) {
    std::optional<Status> result;
    std::atomic<bool> done = false;
    std::thread sender([&] {
        result = sendMail(server, "ilse@example.org", "ludo.home@example.org", bytes, stop);
        done = true;
    });
    while (!done) QCoreApplication::processEvents(QEventLoop::AllEvents, 5);
    sender.join();
    return *result;
}

struct Office {
    test::TempFolder folder;
    SmtpServer server{QString::fromStdString(folder.path().string())};
    MailServer address;
    Office() {
        EXPECT_TRUE(server.listen(0));
        address.url = "smtp://127.0.0.1:" + std::to_string(server.port());
        address.requireTls = false;
        address.timeoutS = 5;
    }
    QStringList kept() const {
        return QDir(QString::fromStdString(folder.path().string())).entryList({"*.eml"});
    }
};

TEST(Mail, ComesBackAsItWasWritten) {
    const auto bytes = toBytes(letter());
    ASSERT_TRUE(bytes);
    EXPECT_NE(bytes->find("\r\n"), std::string::npos);
    const auto back = readMail(*bytes);
    ASSERT_TRUE(back);
    EXPECT_EQ(back->subject, letter().subject);
    EXPECT_NE(back->to.find("ludo.home@example.org"), std::string::npos);
    EXPECT_NE(back->text.find("this line follows a dot"), std::string::npos);
    ASSERT_EQ(back->attachments.size(), 1U);
    EXPECT_EQ(back->attachments[0].name, "letter.pdf");
    EXPECT_EQ(back->attachments[0].bytes, letter().attachments[0].bytes);
}

TEST(Mail, BadAddressesAreRefused) {
    for (const char* wrong : {"", "nobody", "a@", "@b", "a b@c", "x@y\r\nBcc: z@w"}) {
        Mail m = letter();
        m.toAddress = wrong;
        EXPECT_FALSE(toBytes(m)) << wrong;
    }
}

TEST(Smtp, AMailArrivesByteForByte) {
    Office office;
    const std::string bytes = *toBytes(letter());
    ASSERT_TRUE(sendTo(office.address, bytes));
    ASSERT_EQ(office.kept().size(), 1);
    const auto kept = readFile(office.folder / office.kept()[0].toStdString());
    const auto back = readMail(*kept);
    ASSERT_TRUE(back);
    EXPECT_EQ(back->attachments.at(0).bytes, letter().attachments[0].bytes);
    EXPECT_EQ(back->subject, letter().subject);
}

TEST(Smtp, TheRightPasswordIsTakenAndAWrongOneSaidInWords) {
    Office office;
    office.server.requireLogin("ilse", "tram");
    office.address.user = "ilse";
    office.address.password = "tram";
    EXPECT_TRUE(sendTo(office.address, *toBytes(letter())));
    office.address.password = "bus";
    const Status wrong = sendTo(office.address, *toBytes(letter()));
    ASSERT_FALSE(wrong);
    EXPECT_NE(said(wrong.error().text).find("name or password"), std::string::npos);
    EXPECT_EQ(office.kept().size(), 1);
}

TEST(Smtp, NobodyAnswering) {
    MailServer server{"smtp://127.0.0.1:1", "", "", false, 3};
    const Status sent = sendTo(server, *toBytes(letter()));
    ASSERT_FALSE(sent);
    EXPECT_EQ(sent.error().code, ErrorCode::Network);
    EXPECT_NE(said(sent.error().text).find("Nobody answers"), std::string::npos);
}

TEST(Smtp, ARefusedRecipient) {
    Office office;
    office.server.setMood(PostOfficeMood::RefusesRecipients);
    const Status sent = sendTo(office.address, *toBytes(letter()));
    ASSERT_FALSE(sent);
    EXPECT_NE(said(sent.error().text).find("550"), std::string::npos);
    EXPECT_NE(said(sent.error().text).find("recipient"), std::string::npos);
}

TEST(Smtp, AServerGoneMidWayLosesNothing) {
    Office office;
    office.server.setMood(PostOfficeMood::DropsDuringData);
    Mail big = letter();
    big.attachments[0].bytes = std::string(4 << 20, 'x');
    const Status sent = sendTo(office.address, *toBytes(big));
    ASSERT_FALSE(sent);
    EXPECT_EQ(office.kept().size(), 0);
    EXPECT_FALSE(said(sent.error().text).empty());
}

TEST(Smtp, SilenceAfterTheMailIsUnsureNotLost) {
    Office office;
    office.server.setMood(PostOfficeMood::SilentAfterData);
    const Status sent = sendTo(office.address, *toBytes(letter()));
    ASSERT_FALSE(sent);
    EXPECT_EQ(sent.error().code, ErrorCode::Unsure);
    EXPECT_NE(said(sent.error().text).find("may have been sent"), std::string::npos);
}

TEST(Smtp, CancelEndsIt) {
    Office office;
    std::stop_source stop;
    stop.request_stop();
    const Status sent = sendTo(office.address, *toBytes(letter()), stop.get_token());
    ASSERT_FALSE(sent);
    EXPECT_EQ(sent.error().code, ErrorCode::Cancelled);
}

TEST(Smtp, NothingGoesUnencryptedToAnotherMachine) {
    MailServer server{"smtp://mail.example.org:25", "", "", false, 3};
    EXPECT_EQ(sendMail(server, "a@example.org", "b@example.org", "x").error().code, ErrorCode::Refused);
    EXPECT_TRUE(isLoopback("smtp://127.0.0.1:2525"));
    EXPECT_TRUE(isLoopback("smtp://localhost:25"));
    EXPECT_FALSE(isLoopback("smtp://127.example.org:25"));
    EXPECT_FALSE(isLoopback("smtp://mail.example.org:587"));
}

TEST(Smtp, ABadServerAddressIsRefused) {
    MailServer server{"ftp://127.0.0.1:1", "", "", true, 3};
    EXPECT_EQ(sendMail(server, "a@example.org", "b@example.org", "x").error().code, ErrorCode::BadInput);
}

} // namespace
} // namespace jg
