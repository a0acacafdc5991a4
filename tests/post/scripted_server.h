// SPDX-License-Identifier: GPL-3.0-or-later
// A mail server on the loopback that fails at one chosen point, with or without encryption from its first
// byte.
#pragma once

#include <atomic>
#include <cstddef>
#include <cstdint>
#include <filesystem>
#include <optional>
#include <string>
#include <thread>

namespace jg::test {

/// How it fails.
enum class Failing { Closes, SaysLater, SaysNo, Babbles, HalfALine, SaysNothing };

/// Where: a verb of the talk ("connect", "EHLO", "MAIL", "RCPT", "DATA", "dot", "QUIT"), or "body" after so
/// many of its bytes. Nowhere when `at` is empty.
struct ServerFault {
    std::string at;
    Failing how = Failing::Closes;
    std::size_t bodyBytes = 0;
};

/// A certificate for 127.0.0.1 and its key, in PEM files.
struct Certificate {
    std::filesystem::path certificate, key;
};
/// Made for this run by the openssl program, in `folder`. Nothing when that is not there.
std::optional<Certificate> makeCertificate(const std::filesystem::path& folder);

/// Serves one connection in its own thread.
class ScriptedServer {
public:
    explicit ScriptedServer(ServerFault fault, const std::optional<Certificate>& certificate = std::nullopt);
    ~ScriptedServer();
    std::uint16_t port() const { return port_; }
    /// Ends the talk; true when it holds the whole mail.
    bool has();

private:
    void serve(const std::optional<Certificate>& certificate);
    bool fails(class TalkSocket& socket, const std::string& at);

    ServerFault fault_;
    std::atomic<std::uint16_t> port_ = 0;
    std::atomic<bool> has_ = false;
    std::jthread thread_;
};

} // namespace jg::test
