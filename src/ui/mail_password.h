// The password of the mail server: from the desktop's keyring, else asked for; forgotten when it was wrong.
#pragma once

#include "desk/outgoing.h"
#include "post/keyring.h"

#include <memory>
#include <optional>
#include <string>

class QWidget;

namespace jg::ui {

/// Window's thread only.
class MailPassword {
public:
    explicit MailPassword(std::unique_ptr<Keyring> keyring = desktopKeyring());
    /// Puts the password into the order, asking for it when it is needed and neither known nor kept by the
    /// keyring. False when the coach turned away.
    bool fill(SendOrder& order, QWidget* asker);
    /// The same without a question: false when it is neither known nor kept.
    bool fillQuietly(SendOrder& order);
    /// After sending: one that was taken goes into the keyring when that was ticked; one that was not is
    /// forgotten there, too, and asked for the next time.
    void hear(const Status& sent);

private:
    bool ask(QWidget* asker, bool canKeep);
    /// Looks into the keyring for whom the order is for; false when there is no keyring.
    bool look(const SendOrder& order);

    std::shared_ptr<Keyring> keyring_;
    std::optional<std::string> known_; ///< for this run only
    std::string server_, user_;        ///< whose it is
    bool keep_ = false;                ///< once it was taken
    bool kept_ = false;                ///< it came from the keyring, or was given to it
};

} // namespace jg::ui
