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

struct Message {
    std::string fromName;
    std::string fromAddress;
    std::string toName;
    std::string toAddress;
    std::string subject;
    std::string text;
    std::vector<Attachment> attachments;
    std::string messageId; ///< without angle brackets
    std::int64_t dateUnix = 0;
};

/// The message with CRLF line ends, as it goes out and is kept. Errors: BadInput (no valid address).
Result<std::string> toBytes(const Message& message);

/// A mail read back. Attachments are decoded.
struct ReadMessage {
    std::string from;
    std::string to;
    std::string subject;
    std::string date;
    std::string text;
    std::vector<Attachment> attachments;
};

/// Errors: BadInput.
Result<ReadMessage> readMessage(const std::string& bytes);

} // namespace jg
