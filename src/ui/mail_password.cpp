#include "ui/mail_password.h"

#include "ui/theme.h"

#include <QCheckBox>
#include <QDialog>
#include <QDialogButtonBox>
#include <QEventLoop>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>

#include <thread>
#include <type_traits>

namespace jg::ui {

namespace {

/// Does what may wait for a person in a thread of its own; the window lives on meanwhile.
template <typename Work>
auto besideTheWindow(Work work) {
    std::optional<std::invoke_result_t<Work>> result;
    QEventLoop loop;
    std::jthread thread([&] {
        result = work();
        QMetaObject::invokeMethod(
            &loop, [&loop] { loop.quit(); }, Qt::QueuedConnection);
    });
    loop.exec(QEventLoop::ExcludeUserInputEvents);
    thread.join();
    return std::move(*result);
}

} // namespace

MailPassword::MailPassword(std::unique_ptr<Keyring> keyring)
    : keyring_(std::move(keyring)) {}

bool MailPassword::ask(QWidget* asker, bool canKeep) {
    QDialog dialog(asker->window());
    dialog.setObjectName("mail-password-dialog");
    dialog.setWindowTitle(say("main-window.mail-password"));
    auto* column = new QVBoxLayout(&dialog);
    auto* words = plain(say("mail-password.of-your-server", {{"user", user_}, {"server", server_}}), 13);
    column->addWidget(words);
    auto* line = new QLineEdit;
    line->setObjectName("mail-password");
    line->setAccessibleName(say("main-window.mail-password"));
    line->setEchoMode(QLineEdit::Password);
    column->addWidget(line);
    auto* keep = new QCheckBox(say("mail-password.keep"));
    keep->setObjectName("keep-password");
    keep->setVisible(canKeep);
    column->addWidget(keep);
    if (!canKeep) column->addWidget(quiet(say("mail-password.no-keyring"), 12));
    auto* buttons = new QDialogButtonBox(QDialogButtonBox::Ok | QDialogButtonBox::Cancel);
    buttons->button(QDialogButtonBox::Ok)->setText(say("mail-password.use-it"));
    buttons->button(QDialogButtonBox::Cancel)->setText(say("athlete-dialog.cancel"));
    QObject::connect(buttons, &QDialogButtonBox::accepted, &dialog, &QDialog::accept);
    QObject::connect(buttons, &QDialogButtonBox::rejected, &dialog, &QDialog::reject);
    column->addWidget(buttons);
    if (dialog.exec() != QDialog::Accepted) return false;
    known_ = line->text().toStdString();
    keep_ = canKeep && keep->isChecked();
    return true;
}

bool MailPassword::look(const SendOrder& order) {
    if (server_ != order.server.url || user_ != order.server.user) known_.reset();
    server_ = order.server.url;
    user_ = order.server.user;
    if (known_) return true;
    const auto found = besideTheWindow(
        [keyring = keyring_, server = server_, user = user_] { return keyring->find(server, user); });
    kept_ = found && *found;
    if (kept_) known_ = **found;
    return static_cast<bool>(found);
}

bool MailPassword::fill(SendOrder& order, QWidget* asker) {
    if (order.server.user.empty()) return true;
    const bool answers = look(order);
    if (!known_ && !ask(asker, answers)) return false;
    order.server.password = *known_;
    return true;
}

bool MailPassword::fillQuietly(SendOrder& order) {
    if (order.server.user.empty()) return true;
    look(order);
    if (known_) order.server.password = *known_;
    return known_.has_value();
}

void MailPassword::hear(const Status& sent) {
    const bool wrong = !sent && sent.error().code == ErrorCode::Login;
    if (wrong) known_.reset();
    // A keyring that does not answer now only means that it is asked for again.
    if (wrong && std::exchange(kept_, false))
        (void)besideTheWindow(
            [keyring = keyring_, server = server_, user = user_] { return keyring->forget(server, user); });
    if (sent && known_ && std::exchange(keep_, false))
        kept_ = static_cast<bool>(
            besideTheWindow([keyring = keyring_, server = server_, user = user_, password = *known_] {
                return keyring->keep(server, user, password);
            }));
}

} // namespace jg::ui
