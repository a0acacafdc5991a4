// The mail server's password: asked for once, and again when it was wrong.
#include "tests/ui/driver.h"

#include "ui/mail_password.h"

#include <QInputDialog>
#include <QLineEdit>
#include <QTimer>

namespace jg {
namespace {

/// Answers the question for the password that is about to open; counts how often it came.
void answer(QWidget& asker, const QString& with, int& asked) {
    QTimer::singleShot(0, &asker, [&asker, with, &asked] {
        auto* dialog = asker.findChild<QInputDialog*>();
        if (!dialog) return;
        ++asked;
        dialog->setTextValue(with);
        dialog->accept();
    });
}

SendOrder orderFor(const char* user) {
    SendOrder order;
    order.server.user = user;
    return order;
}

TEST(MailPassword, IsAskedForOnceAndAgainWhenItWasWrong) {
    QWidget asker;
    ui::MailPassword password;
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

TEST(MailPassword, NoNameNeedsNone) {
    QWidget asker;
    ui::MailPassword password;
    SendOrder order = orderFor("");
    EXPECT_TRUE(password.fill(order, &asker));
    EXPECT_TRUE(order.server.password.empty());
}

} // namespace
} // namespace jg
