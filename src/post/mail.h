// SPDX-License-Identifier: GPL-3.0-or-later
// Mails as bytes.
#pragma once

#include "base/result.h"

#include <cstdint>

#include <string>
#include <vector>

namespace jg {

struct Attachment {
    std::string name; ///< "letter.pdf"
    std::string type; ///< "application/pdf"
    std::string bytes;
};

struct Mail {
    std::string fromName;
    std::string fromAddress;
    std::string toName;
    std::string toAddress;
    std::string subject;
    std::string text;
    std::vector<Attachment> attachments;
    std::string messageId; ///< without angle brackets
    std::int64_t dateUnix = 0;
    std::string html = {}; ///< the text for who reads mail so; empty = the text alone
};

/// The mail with CRLF line ends, as it goes out and is kept. Errors: BadInput (no valid address).
Result<std::string> toBytes(const Mail& mail);

/// A mail read back. Attachments are decoded.
struct ReadMail {
    std::string from;
    std::string to;
    std::string subject;
    std::string date;
    std::string text; ///< plain
    std::string html;
    std::vector<Attachment> attachments;
    std::string messageId;           ///< without angle brackets; empty = it has none
    std::string sender, replyTo;     ///< as `from`; empty = not said
    std::vector<std::string> checks; ///< what servers on its way found: Authentication-Results
    bool passedOn = false;           ///< resent, or with another mail in it
};

/// Errors: BadInput.
Result<ReadMail> readMail(const std::string& bytes);

} // namespace jg
