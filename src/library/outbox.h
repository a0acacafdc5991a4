// SPDX-License-Identifier: GPL-3.0-or-later
// Mails that go out: what is known of each.
#pragma once

#include "base/ids.h"
#include "base/message.h"

#include <cstdint>
#include <optional>
#include <string>
#include <string_view>

namespace jg {

enum class MailState {
    Ready,       ///< made, and not handed over yet
    HandingOver, ///< on the disk before the first byte goes out
    Sent,        ///< the server took it
    Refused,     ///< the server did not take it, or could not be reached
    Unsure       ///< it may have gone out
};

std::string_view idOf(MailState state);
/// Also by the words of older libraries: "waiting" is ready, "failed" refused.
std::optional<MailState> mailStateFromId(std::string_view id);
/// For the coach: "ready", "being handed over", "sent", "not sent", "may have been sent".
Message nameOf(MailState state);

/// A mail of the outbox. `file` lies in the library's sent folder.
struct OutboxItem {
    std::string id;
    ReviewId review;
    std::string recipient;
    std::string subject;
    std::string file;
    MailState state = MailState::Ready;
    Message reason;
    std::int64_t at = 0; ///< seconds since 1970 UTC
};

/// What may go out once more: nothing; what may have gone out, unless its review was sent since; all.
enum class Repeat { Never, Unsure, Always };

/// What is to be taken for true of a mail now: one whose handing over began long ago was left by a program
/// that ended, and may have gone out.
MailState stateAt(const OutboxItem& item, std::int64_t nowUnix);

} // namespace jg
