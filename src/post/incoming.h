// A mail that came in with films: who sent it, what was written, what lies in it. Nothing of it is executed,
// fetched or trusted as a path.
#pragma once

#include "post/mail.h"

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
    std::string text;                 ///< as written: without what it answers, signature and markup
    std::vector<Attachment> films;    ///< each content once; names as the sender gave them
    std::vector<std::string> leftOut; ///< names of what is no film
};

/// Errors: BadInput (no mail, larger than kMostMailBytes, no sender).
Result<IncomingMail> readIncoming(const std::string& bytes);

/// What was asked: the sentences with a question mark, else the first that is no greeting; at most about 200
/// letters, whole sentences. English and Spanish. Pure.
std::string askedIn(const std::string& text);

/// The sentences that speak of pain and do not deny it. It may find too much, for a coach reads it; English
/// and Spanish. Pure.
std::string painIn(const std::string& text);

} // namespace jg
