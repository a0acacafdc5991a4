// The password of the mail server: asked for once, held in memory, forgotten when it was wrong.
#pragma once

#include "desk/outgoing.h"

#include <optional>
#include <string>

class QWidget;

namespace jg::ui {

/// Window's thread only.
class MailPassword {
public:
    /// Puts the password into the order, asking for it when it is needed and not known. False when the coach
    /// turned away.
    bool fill(SendOrder& order, QWidget* asker);
    /// After sending: a password that was not taken is asked for again the next time.
    void hear(const Status& sent);

private:
    std::optional<std::string> known_; ///< for this run only
};

} // namespace jg::ui
