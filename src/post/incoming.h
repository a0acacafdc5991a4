// SPDX-License-Identifier: GPL-3.0-or-later
// A mail that came in with films: who sent it, what was written, what lies in it. Nothing of it is executed,
// fetched or trusted as a path.
#pragma once

#include "post/mail.h"

#include <stop_token>
#include <string>
#include <vector>

namespace jg {

/// Bytes of a mail that is still read, and films that are taken from one: own choice, above what servers
/// carry.
inline constexpr std::size_t kMostMailBytes = 200U << 20, kMostFilmsInMail = 20;

/// What a mail holds.
struct IncomingMail {
    std::string senderName;
    std::string senderAddress; ///< lower case
    std::string subject;
    std::string text;   ///< as written: without what it answers, signature and markup
    std::string page;   ///< the same of its page for browsers, when it has both
    std::string quoted; ///< what it answers or passes on
    std::string messageId;
    /// Why who sent it is not to be believed without asking; empty = nothing speaks against it.
    std::vector<Message> doubts;
    std::vector<Attachment> films;    ///< each content once; names as the sender gave them
    std::vector<std::string> leftOut; ///< names of what is no film
};

/// Errors: BadInput (no mail, larger than kMostMailBytes, no sender), Cancelled.
Result<IncomingMail> readIncoming(const std::string& bytes, std::stop_token stop = {});

/// What was asked: the sentences with a question mark, else the first that is no greeting; at most about 200
/// letters, whole sentences. English and Spanish. Pure.
std::string askedIn(const std::string& text);

} // namespace jg
