// SPDX-License-Identifier: GPL-3.0-or-later
// The password of the mail server: from the desktop's keyring, else asked for; forgotten when it was wrong.
#pragma once

#include "desk/sending/outgoing.h"
#include "post/keyring.h"

#include <QObject>

#include <functional>
#include <memory>
#include <optional>
#include <string>

class QWidget;

namespace jg::ui {

/// Window's thread only. A keyring may wait for a person to unlock it: it is asked in a thread of its own,
/// and nothing here waits for it.
class MailPassword : public QObject {
    Q_OBJECT
public:
    /// Gets the order with the password in it; nothing when the coach turned away, or it is not known without
    /// a question.
    using Then = std::function<void(const std::optional<SendOrder>&)>;

    explicit MailPassword(std::shared_ptr<Keyring> keyring = desktopKeyring());
    /// Puts the password into the order, asking for it when it is needed and neither known nor kept by the
    /// keyring. At once when it is known; nothing is called when `asker` goes first, or while an earlier
    /// question is open.
    void fill(const SendOrder& order, QWidget* asker, Then then);
    /// The same without a question.
    void fillQuietly(const SendOrder& order, QWidget* asker, Then then);
    /// After sending: one that was taken goes into the keyring when that was ticked; one that was not is
    /// forgotten there, too, and asked for the next time.
    void hear(const Status& sent);
    /// True while the keyring or the coach is asked.
    bool asking() const { return asking_; }

private:
    /// Looks into the keyring for whom the order is for; `then` gets whether there is a keyring.
    void look(const SendOrder& order, QWidget* asker, std::function<void(bool answers)> then);
    void ask(QWidget* asker, bool canKeep, std::function<void(bool given)> then);
    std::optional<SendOrder> filled(SendOrder order) const;

    std::shared_ptr<Keyring> keyring_;
    std::optional<std::string> known_; ///< for this run only
    std::string server_, user_;        ///< whose it is
    bool keep_ = false;                ///< once it was taken
    bool kept_ = false;                ///< it came from the keyring, or was given to it
    bool asking_ = false;
};

} // namespace jg::ui
