// SPDX-License-Identifier: GPL-3.0-or-later
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
    bool requireTls = true;  ///< off only for a server on this machine
    long timeoutS = 600;     ///< for an answer; after the last byte a server may take ten minutes (RFC
                             ///< 5321, 4.5.3.2.6, from memory)
    std::string caFile = {}; ///< certificates (PEM) that vouch for the server; empty = the system's
};

/// A mail server's address, taken apart as the library that will use it does.
struct ServerAddress {
    std::string scheme;       ///< smtp or smtps
    std::string host;         ///< a name, or digits; [::1] in brackets
    std::string port;         ///< as written; empty when it was not
    bool loopback() const;    ///< this machine, by its digits or as "localhost"
    std::string text() const; ///< "smtp://host:port"
};

/// Reads "smtp://host:port". Errors: BadInput: no such address, or one that holds more than scheme, host and
/// port. A name or password in it is refused and not repeated in the sentence.
Result<ServerAddress> readServerAddress(const std::string& url);

/// "smtp://127.0.0.1:2525" -> true; false for what is no address. A password never goes in clear to any other
/// machine.
bool isLoopback(const std::string& url);

/// Greets the server, encrypts and logs in, and hands nothing over: whether a letter would get so far.
/// Blocks, half a minute at most. Errors: as sendMail(), but Unsure.
Status checkServer(const MailServer& server, std::stop_token stop = {});

/// Asked before the last bytes are handed over; an error breaks the sending off, and the server takes
/// nothing.
using LastWord = std::function<Status()>;

/// Hands `bytes` (toBytes) in for one recipient. Blocks; run it in a job. `progress` gets 0..1.
/// No proxy is ever used, and the server is not told this machine's name.
/// Errors: Network (nobody answers, or "not now": each in words), Refused (the server will not take it, with
/// its own words), Login (wrong name or password), Unsure (the server fell silent after the mail was handed
/// over), Cancelled, BadInput (bad address of the server), that of `lastWord`.
Status sendMail(const MailServer& server, const std::string& from, const std::string& to,
                const std::string& bytes, std::stop_token stop = {},
                const std::function<void(double)>& progress = {}, const LastWord& lastWord = {});

} // namespace jg
