// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/forms/mail_password.h"

#include "base/caught.h"
#include "ui/kit/theme.h"

#include <QCheckBox>
#include <QCoreApplication>
#include <QDialog>
#include <QDialogButtonBox>
#include <QLineEdit>
#include <QPointer>
#include <QPushButton>
#include <QVBoxLayout>

#include <thread>
#include <utility>

namespace jg::ui {

namespace {

/// Does what may wait for a person in a thread that nobody waits for; its result comes back while `here`
/// lives.
template <typename Work, typename Then>
void besideTheWindow(QObject* here, Work work, Then then) {
    std::thread([alive = QPointer<QObject>(here), work = std::move(work), then = std::move(then)]() mutable {
        auto result = caught(work);
        QObject* window = QCoreApplication::instance();
        if (!window) return; // the program has ended meanwhile
        QMetaObject::invokeMethod(
            window,
            [alive, then = std::move(then), result = std::move(result)] {
                if (alive) then(result);
            },
            Qt::QueuedConnection);
    }).detach();
}

} // namespace

MailPassword::MailPassword(std::shared_ptr<Keyring> keyring)
    : keyring_(std::move(keyring)) {}

void MailPassword::ask(QWidget* asker, bool canKeep, std::function<void(bool given)> then) {
    auto* dialog = new QDialog(asker->window());
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setObjectName("mail-password-dialog");
    dialog->setWindowTitle(say("main-window.mail-password"));
    auto* column = new QVBoxLayout(dialog);
    column->addWidget(plain(say("mail-password.of-your-server", {{"user", user_}, {"server", server_}}), 13));
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
    connect(buttons, &QDialogButtonBox::accepted, dialog, &QDialog::accept);
    connect(buttons, &QDialogButtonBox::rejected, dialog, &QDialog::reject);
    column->addWidget(buttons);
    connect(dialog, &QDialog::finished, this, [this, line, keep, canKeep, then = std::move(then)](int how) {
        if (how == QDialog::Accepted) {
            known_ = line->text().toStdString();
            keep_ = canKeep && keep->isChecked();
        }
        then(how == QDialog::Accepted);
    });
    dialog->open();
}

void MailPassword::look(const SendOrder& order, QWidget* asker, std::function<void(bool answers)> then) {
    if (server_ != order.server.url || user_ != order.server.user) known_.reset();
    server_ = order.server.url;
    user_ = order.server.user;
    if (known_) return then(true);
    besideTheWindow(
        this, [keyring = keyring_, server = server_, user = user_] { return keyring->find(server, user); },
        [this, asker = QPointer<QWidget>(asker), then](const Result<std::optional<std::string>>& found) {
            kept_ = found && *found;
            if (kept_) known_ = **found;
            asker ? then(found.ok()) : void(asking_ = false);
        });
}

std::optional<SendOrder> MailPassword::filled(SendOrder order) const {
    if (!known_) return std::nullopt;
    order.server.password = *known_;
    return order;
}

void MailPassword::fill(const SendOrder& order, QWidget* asker, Then then) {
    if (order.server.user.empty()) return then(order);
    if (std::exchange(asking_, true)) return;
    look(order, asker, [this, order, asker, then = std::move(then)](bool answers) {
        const auto end = [this, order, then](bool) {
            asking_ = false;
            then(filled(order));
        };
        known_ ? end(true) : ask(asker, answers, end);
    });
}

void MailPassword::fillQuietly(const SendOrder& order, QWidget* asker, Then then) {
    if (order.server.user.empty()) return then(order);
    if (std::exchange(asking_, true)) return;
    look(order, asker, [this, order, then = std::move(then)](bool) {
        asking_ = false;
        then(filled(order));
    });
}

void MailPassword::hear(const Status& sent) {
    const bool wrong = !sent && sent.error().code == ErrorCode::Login;
    if (wrong) known_.reset();
    // A keyring that does not answer now only means that it is asked for again.
    if (wrong && std::exchange(kept_, false))
        besideTheWindow(
            this,
            [keyring = keyring_, server = server_, user = user_] { return keyring->forget(server, user); },
            [](const Status&) {});
    if (sent && known_ && std::exchange(keep_, false))
        besideTheWindow(
            this,
            [keyring = keyring_, server = server_, user = user_, password = *known_] {
                return keyring->keep(server, user, password);
            },
            [this](const Status& kept) { kept_ = kept.ok(); });
}

} // namespace jg::ui
