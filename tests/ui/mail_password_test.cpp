// SPDX-License-Identifier: GPL-3.0-or-later
// The mail server's password: from the keyring, else asked for once, and again when it was wrong.
#include "tests/ui/driver.h"

#include "ui/forms/mail_password.h"

#include <QCheckBox>
#include <QDialog>
#include <QLineEdit>
#include <QPushButton>
#include <QTimer>

#include <condition_variable>
#include <mutex>

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

/// The order with its password; nothing when it was not given.
std::optional<SendOrder> filled(ui::MailPassword& password, const SendOrder& order, QWidget& asker) {
    std::optional<SendOrder> got;
    bool called = false;
    password.fill(order, &asker, [&](const std::optional<SendOrder>& with) { called = true, got = with; });
    EXPECT_TRUE(test::waitFor([&] { return called; }));
    return got;
}

/// A keyring that is locked, until somebody opens it.
class Locked final : public Keyring {
public:
    Result<std::optional<std::string>> find(const std::string&, const std::string&) override {
        std::unique_lock lock(mutex);
        open.wait(lock, [&] { return opened; });
        return std::optional<std::string>("ferry");
    }
    Status keep(const std::string&, const std::string&, const std::string&) override { return Done{}; }
    Status forget(const std::string&, const std::string&) override { return Done{}; }
    std::mutex mutex;
    std::condition_variable open;
    bool opened = false;
};

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
    const SendOrder order = orderFor("ilse");
    const auto given = [&] { return filled(password, order, asker).value_or(SendOrder{}).server.password; };
    answer(asker, "bus", asked);
    EXPECT_EQ(given(), "bus");
    EXPECT_EQ(given(), "bus");
    EXPECT_EQ(asked, 1);
    password.hear(fail(ErrorCode::Network, asIs("Nobody answers.")));
    EXPECT_EQ(given(), "bus");
    EXPECT_EQ(asked, 1) << "that was not the password's fault";
    password.hear(fail(ErrorCode::Login, asIs("Wrong.")));
    answer(asker, "tram", asked);
    EXPECT_EQ(given(), "tram");
    EXPECT_EQ(asked, 2);
}

TEST(MailPassword, IsKeptByTheKeyringOnlyWhenItWasTakenAndForgottenWhenItIsWrong) {
    auto own = passingKeyring();
    Keyring* keyring = own.get();
    ui::MailPassword password(std::move(own));
    const auto kept = [&] { return *keyring->find("smtps://mail.example.org:465", "ilse"); };
    QWidget asker;
    int asked = 0;
    const SendOrder order = orderFor("ilse");
    answer(asker, "bus", asked, true);
    ASSERT_TRUE(filled(password, order, asker));
    EXPECT_FALSE(kept()); // not before the server took it
    password.hear(fail(ErrorCode::Login, asIs("Wrong.")));
    EXPECT_FALSE(kept());
    answer(asker, "tram", asked, true);
    ASSERT_TRUE(filled(password, order, asker));
    password.hear(Done{});
    EXPECT_TRUE(test::waitFor([&] { return kept() == std::optional<std::string>("tram"); }));
    QCoreApplication::processEvents();
    password.hear(fail(ErrorCode::Login, asIs("Changed meanwhile.")));
    EXPECT_TRUE(test::waitFor([&] { return !kept(); }));
    EXPECT_EQ(asked, 2);
}

TEST(MailPassword, OfTheKeyringIsUsedWithoutAQuestionAndOnlyForItsServer) {
    auto own = passingKeyring();
    ASSERT_TRUE(own->keep("smtps://mail.example.org:465", "ilse", "ferry"));
    ui::MailPassword password(std::move(own));
    QWidget asker;
    EXPECT_EQ(filled(password, orderFor("ilse"), asker).value_or(SendOrder{}).server.password, "ferry");
    SendOrder other = orderFor("ilse");
    other.server.url = "smtps://elsewhere.example.org:465";
    int asked = 0;
    answer(asker, "barge", asked);
    EXPECT_EQ(filled(password, other, asker).value_or(SendOrder{}).server.password, "barge");
    EXPECT_EQ(asked, 1);
}

TEST(MailPassword, NoNameNeedsNone) {
    QWidget asker;
    ui::MailPassword password(std::make_unique<NoKeyring>());
    const auto order = filled(password, orderFor(""), asker);
    ASSERT_TRUE(order);
    EXPECT_TRUE(order->server.password.empty());
}

// A keyring that waits for a person stops nothing here: clicks arrive, a second send is not begun, and
// whoever asked may go.
TEST(MailPassword, ALockedKeyringNeverStopsInput) {
    auto own = std::make_unique<Locked>();
    Locked* keyring = own.get();
    ui::MailPassword password(std::move(own));
    QWidget window;
    QPushButton button("press", &window);
    int pressed = 0, called = 0;
    QObject::connect(&button, &QPushButton::clicked, &window, [&] { ++pressed; });
    window.show();
    auto asker = std::make_unique<QWidget>();
    password.fill(orderFor("ilse"), asker.get(), [&](const std::optional<SendOrder>&) { ++called; });
    password.fill(orderFor("ilse"), asker.get(), [&](const std::optional<SendOrder>&) { ++called; });
    EXPECT_TRUE(password.asking());
    QTest::mouseClick(&button, Qt::LeftButton);
    EXPECT_EQ(pressed, 1);
    asker.reset(); // the page it was asked from is left
    {
        const std::lock_guard lock(keyring->mutex);
        keyring->opened = true;
    }
    keyring->open.notify_all();
    EXPECT_TRUE(test::waitFor([&] { return !password.asking(); }));
    EXPECT_EQ(called, 0);
    // Asked again it answers at once.
    EXPECT_EQ(filled(password, orderFor("ilse"), window).value_or(SendOrder{}).server.password, "ferry");
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
