#include "ui/mail_password.h"

#include "ui/words.h"

#include <QInputDialog>

namespace jg::ui {

bool MailPassword::fill(SendOrder& order, QWidget* asker) {
    if (order.server.user.empty()) return true;
    if (!known_) {
        bool ok = false;
        const QString typed = QInputDialog::getText(asker->window(), say("main-window.mail-password"),
                                                    say("main-window.password-of-your-mail-server-kept"),
                                                    QLineEdit::Password, {}, &ok);
        if (!ok) return false;
        known_ = typed.toStdString();
    }
    order.server.password = *known_;
    return true;
}

void MailPassword::hear(const Status& sent) {
    if (!sent && sent.error().code == ErrorCode::Login) known_.reset();
}

} // namespace jg::ui
