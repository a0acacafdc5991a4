// The mail server's password: from the keyring, else asked for once, and again when it was wrong.
#include "tests/ui/driver.h"

#include "ui/mail_password.h"

#include <QCheckBox>
#include <QDialog>
#include <QLineEdit>
#include <QTimer>

namespace jg {
namespace {

/// Answers the question for the password that is about to open; counts how often it came.
void answer(QWidget& asker, const QString& with, int& asked, bool keep = false) {
    auto* timer = new QTimer(&asker);
    QObject::connect(timer, &QTimer::timeout, &asker, [&asker, with, &asked, keep, timer] {
        auto* dialog = asker.findChild<QDialog*>("mail-password-dialog");
        if (!dialog) return;
        timer->deleteLater();
        timer->stop();
        ++asked;
        dialog->findChild<QLineEdit*>("mail-password")->setText(with);
        dialog->findChild<QCheckBox*>("keep-password")->setChecked(keep);
        dialog->accept();
    });
    timer->start(5);
}

SendOrder orderFor(const char* user) {
    SendOrder order;
    order.server.url = "smtps://mail.example.org:465";
    order.server.user = user;
    return order;
}

/// A desktop without one.
class NoKeyring final : public Keyring {
public:
    Result<std::optional<std::string>> find(const std::string&, const std::string&) override {
        return none();
    }
    Status keep(const std::string&, const std::string&, const std::string&) override { return none(); }
    Status forget(const std::string&, const std::string&) override { return none(); }

private:
    static Error none() { return fail(ErrorCode::Network, asIs("No keyring here.")); }
};

TEST(MailPassword, IsAskedForOnceAndAgainWhenItWasWrong) {
    QWidget asker;
    ui::MailPassword password(std::make_unique<NoKeyring>());
    int asked = 0;
    SendOrder order = orderFor("ilse");
    answer(asker, "bus", asked);
    ASSERT_TRUE(password.fill(order, &asker));
    EXPECT_EQ(order.server.password, "bus");
    SendOrder second = orderFor("ilse");
    ASSERT_TRUE(password.fill(second, &asker));
    EXPECT_EQ(second.server.password, "bus");
    EXPECT_EQ(asked, 1);
    password.hear(fail(ErrorCode::Network, asIs("Nobody answers.")));
    ASSERT_TRUE(password.fill(second, &asker));
    EXPECT_EQ(asked, 1) << "that was not the password's fault";
    password.hear(fail(ErrorCode::Login, asIs("Wrong.")));
    answer(asker, "tram", asked);
    ASSERT_TRUE(password.fill(second, &asker));
    EXPECT_EQ(second.server.password, "tram");
    EXPECT_EQ(asked, 2);
}

TEST(MailPassword, IsKeptByTheKeyringOnlyWhenItWasTakenAndForgottenWhenItIsWrong) {
    auto own = passingKeyring();
    Keyring* keyring = own.get();
    ui::MailPassword password(std::move(own));
    const auto kept = [&] { return *keyring->find("smtps://mail.example.org:465", "ilse"); };
    QWidget asker;
    int asked = 0;
    SendOrder order = orderFor("ilse");
    answer(asker, "bus", asked, true);
    ASSERT_TRUE(password.fill(order, &asker));
    EXPECT_FALSE(kept()); // not before the server took it
    password.hear(fail(ErrorCode::Login, asIs("Wrong.")));
    EXPECT_FALSE(kept());
    answer(asker, "tram", asked, true);
    ASSERT_TRUE(password.fill(order, &asker));
    password.hear(Done{});
    EXPECT_EQ(kept(), std::optional<std::string>("tram"));
    password.hear(fail(ErrorCode::Login, asIs("Changed meanwhile.")));
    EXPECT_FALSE(kept());
    EXPECT_EQ(asked, 2);
}

TEST(MailPassword, OfTheKeyringIsUsedWithoutAQuestionAndOnlyForItsServer) {
    auto own = passingKeyring();
    ASSERT_TRUE(own->keep("smtps://mail.example.org:465", "ilse", "ferry"));
    ui::MailPassword password(std::move(own));
    QWidget asker;
    SendOrder order = orderFor("ilse");
    ASSERT_TRUE(password.fill(order, &asker));
    EXPECT_EQ(order.server.password, "ferry");
    SendOrder other = orderFor("ilse");
    other.server.url = "smtps://elsewhere.example.org:465";
    int asked = 0;
    answer(asker, "barge", asked);
    ASSERT_TRUE(password.fill(other, &asker));
    EXPECT_EQ(other.server.password, "barge");
    EXPECT_EQ(asked, 1);
}

TEST(MailPassword, NoNameNeedsNone) {
    QWidget asker;
    ui::MailPassword password(std::make_unique<NoKeyring>());
    SendOrder order = orderFor("");
    EXPECT_TRUE(password.fill(order, &asker));
    EXPECT_TRUE(order.server.password.empty());
}

TEST(MailPassword, TheDesktopsKeyringAnswersOrSaysThatThereIsNone) {
    const auto found = desktopKeyring()->find("smtps://mail.example.org:465", "nobody-of-this-name");
    if (found)
        EXPECT_FALSE(*found);
    else
        EXPECT_FALSE(said(found.error().text).empty());
}

} // namespace
} // namespace jg
