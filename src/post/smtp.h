// Sending over SMTP.
#pragma once

#include "base/result.h"

#include <functional>
#include <stop_token>
#include <string>

namespace jg {

/// Where mail is handed in. The password is held in memory only.
struct MailServer {
    std::string url; ///< smtp://host:port or smtps://host:port
    std::string user;
    std::string password;
    bool requireTls = true; ///< off only for a server on this machine
    long timeoutS = 600;    ///< for an answer; after the last byte a server may take ten minutes (RFC
                            ///< 5321, 4.5.3.2.6, from memory)
};

/// "smtp://127.0.0.1:2525" -> true. A password never goes in clear to any other machine.
bool isLoopback(const std::string& url);

/// Hands `bytes` (toBytes) in for one recipient. Blocks; run it in a job. `progress` gets 0..1.
/// Errors: Network (nobody answers, refused, wrong password: each in words), Unsure (the server fell silent
/// after the mail was handed over), Cancelled, BadInput (bad address of the server).
Status sendMail(const MailServer& server, const std::string& from, const std::string& to,
                const std::string& bytes, std::stop_token stop = {},
                const std::function<void(double)>& progress = {});

} // namespace jg
