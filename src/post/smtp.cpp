// SPDX-License-Identifier: GPL-3.0-or-later
#include "post/smtp.h"

#include <curl/curl.h>

#include <sys/socket.h>

#include <algorithm>
#include <chrono>
#include <cstring>
#include <memory>
#include <mutex>
#include <optional>

namespace jg {

namespace {

using CurlUrl = std::unique_ptr<CURLU, void (*)(CURLU*)>;

std::string partOf(CURLU* url, CURLUPart part) {
    char* value = nullptr;
    if (curl_url_get(url, part, &value, 0) != CURLUE_OK || !value) return {};
    const std::unique_ptr<char, void (*)(void*)> owner(value, curl_free);
    return value;
}

} // namespace

bool ServerAddress::loopback() const {
    // Digits and dots only: a name such as 127.example.org is another machine.
    const bool numeric = host.find_first_not_of("0123456789.") == std::string::npos;
    return host == "localhost" || host == "[::1]" || (numeric && host.rfind("127.", 0) == 0);
}

std::string ServerAddress::text() const {
    return scheme + "://" + host + (port.empty() ? "" : ":" + port);
}

Result<ServerAddress> readServerAddress(const std::string& url) {
    const CurlUrl parts(curl_url(), curl_url_cleanup);
    const bool read = curl_url_set(parts.get(), CURLUPART_URL, url.c_str(), 0) == CURLUE_OK;
    // An "@" belongs to no address of a server: what stands before it may be a password.
    if (url.find('@') != std::string::npos)
        return fail(ErrorCode::BadInput, msg("smtp.no-password-in-address"));
    const ServerAddress a{partOf(parts.get(), CURLUPART_SCHEME), partOf(parts.get(), CURLUPART_HOST),
                          partOf(parts.get(), CURLUPART_PORT)};
    const std::string path = partOf(parts.get(), CURLUPART_PATH);
    const bool more = (!path.empty() && path != "/") || !partOf(parts.get(), CURLUPART_QUERY).empty() ||
                      !partOf(parts.get(), CURLUPART_FRAGMENT).empty();
    if (!read || more || a.host.empty() || (a.scheme != "smtp" && a.scheme != "smtps"))
        return fail(ErrorCode::BadInput, msg("smtp.url-is-not-a-mail-servers", {{"url", url}}));
    return a;
}

bool isLoopback(const std::string& url) {
    const auto address = readServerAddress(url);
    return address && address->loopback();
}

namespace {

struct Transfer {
    const std::string* bytes = nullptr;
    std::size_t at = 0;
    std::stop_token stop;
    const std::function<void(double)>* progress = nullptr;
    const LastWord* lastWord = nullptr;
    std::optional<Error> held = {}; ///< by the last word
    std::string answer = {};        ///< the server's last no
    /// When the server said that it took the whole mail: what comes then is goodbye.
    std::optional<std::chrono::steady_clock::time_point> taken = {};
};

std::size_t give(char* buffer, std::size_t size, std::size_t count, void* data) {
    auto& t = *static_cast<Transfer*>(data);
    const std::size_t n = std::min(size * count, t.bytes->size() - t.at);
    if (n > 0 && t.at + n == t.bytes->size() && *t.lastWord)
        if (const Status may = (*t.lastWord)(); !may) {
            t.held = may.error();
            return CURL_READFUNC_ABORT;
        }
    std::memcpy(buffer, t.bytes->data() + t.at, n);
    t.at += n;
    if (*t.progress) (*t.progress)(static_cast<double>(t.at) / static_cast<double>(t.bytes->size()));
    return n;
}

/// Keeps the server's last no, as far as a person can read it, and that it took the mail.
std::size_t hear(char* line, std::size_t size, std::size_t count, void* data) {
    constexpr std::size_t kMost = 200;
    auto& t = *static_cast<Transfer*>(data);
    if (size * count > 0 && *line == '2' && t.bytes && t.at == t.bytes->size() && !t.taken)
        t.taken = std::chrono::steady_clock::now();
    if (size * count == 0 || (*line != '4' && *line != '5')) return size * count;
    std::string& answer = t.answer;
    answer.clear();
    for (std::size_t i = 0; i < size * count && answer.size() < kMost; ++i)
        if (line[i] >= ' ' && line[i] < 127) answer += line[i];
    return size * count;
}

/// Ends it when it is to stop, and a goodbye that nobody answers after a while.
int watch(void* data, curl_off_t, curl_off_t, curl_off_t, curl_off_t) {
    constexpr std::chrono::seconds kGoodbye{2};
    const auto& t = *static_cast<Transfer*>(data);
    const bool silent = t.taken && std::chrono::steady_clock::now() - *t.taken > kGoodbye;
    return silent || t.stop.stop_requested() ? 1 : 0;
}

Error sentenceFor(CURLcode code, long response, bool handedOver, const ServerAddress& server,
                  const std::string& said) {
    const std::string host = server.host + (server.port.empty() ? "" : ":" + server.port);
    const std::int64_t answer = std::max(0L, response); // 0: it said nothing
    const Error unsure = fail(ErrorCode::Unsure, msg("smtp.the-mail-server-did-not-answer"));
    switch (code) {
    case CURLE_ABORTED_BY_CALLBACK:
        if (handedOver) return unsure;
        return fail(ErrorCode::Cancelled, msg("smtp.sending-was-stopped-the-letter-waits"));
    case CURLE_LOGIN_DENIED:
        return fail(ErrorCode::Login, msg("smtp.the-mail-server-refused-the-name", {{"code", answer}}));
    case CURLE_COULDNT_RESOLVE_HOST:
        return fail(ErrorCode::Network, msg("smtp.host-unknown", {{"host", host}}));
    case CURLE_COULDNT_CONNECT:
        return fail(ErrorCode::Network, msg("smtp.no-answer", {{"host", host}}));
    case CURLE_USE_SSL_FAILED:
        return fail(ErrorCode::Network, msg("smtp.the-mail-server-offers-no-encryption"));
    case CURLE_PEER_FAILED_VERIFICATION:
        return fail(ErrorCode::Network, msg("smtp.untrusted"));
    default:
        break;
    }
    if (response >= 500)
        return fail(ErrorCode::Refused, msg("smtp.the-mail-server-refused-the-letter",
                                            {{"said", said.empty() ? std::to_string(answer) : said}}));
    if (response >= 400) return fail(ErrorCode::Network, msg("smtp.not-taken", {{"code", answer}}));
    if (handedOver) return unsure;
    return fail(ErrorCode::Network, msg("smtp.the-connection-to-the-mail-server", {{"code", answer}}));
}

} // namespace

namespace {

using Curl = std::unique_ptr<CURL, void (*)(CURL*)>;

/// A way to the server as its settings say, encrypted but on this machine. `address` is its own, read before.
Result<Curl> wayTo(const MailServer& server, const ServerAddress& address, Transfer& transfer) {
    static std::once_flag once;
    std::call_once(once, [] { curl_global_init(CURL_GLOBAL_DEFAULT); });
    if (!server.requireTls && !address.loopback()) return fail(ErrorCode::Refused, msg("smtp.unencrypted"));
    Curl curl(curl_easy_init(), curl_easy_cleanup);
    CURL* c = curl.get();
    // What stands as the path is said in EHLO: an address of every machine, in place of this one's name.
    curl_easy_setopt(c, CURLOPT_URL, (address.text() + "/%5B127.0.0.1%5D").c_str());
    curl_easy_setopt(c, CURLOPT_PROXY, ""); // whatever the environment says
    curl_easy_setopt(c, CURLOPT_PROTOCOLS_STR, "smtp,smtps");
    curl_easy_setopt(c, CURLOPT_NOSIGNAL, 1L);
    if (server.requireTls) curl_easy_setopt(c, CURLOPT_USE_SSL, static_cast<long>(CURLUSESSL_ALL));
    if (!server.caFile.empty()) curl_easy_setopt(c, CURLOPT_CAINFO, server.caFile.c_str());
    if (!server.user.empty()) {
        curl_easy_setopt(c, CURLOPT_USERNAME, server.user.c_str());
        curl_easy_setopt(c, CURLOPT_PASSWORD, server.password.c_str());
    }
    curl_easy_setopt(c, CURLOPT_HEADERFUNCTION, hear);
    curl_easy_setopt(c, CURLOPT_HEADERDATA, &transfer);
    curl_easy_setopt(c, CURLOPT_NOPROGRESS, 0L);
    curl_easy_setopt(c, CURLOPT_XFERINFOFUNCTION, watch);
    curl_easy_setopt(c, CURLOPT_XFERINFODATA, &transfer);
    curl_easy_setopt(c, CURLOPT_CONNECTTIMEOUT, std::min(server.timeoutS, 20L));
    curl_easy_setopt(c, CURLOPT_SERVER_RESPONSE_TIMEOUT, server.timeoutS);
    curl_easy_setopt(c, CURLOPT_FORBID_REUSE, 1L); // goodbye is said while it can be watched
    return curl;
}

/// Does it; how it ended, in words.
Status perform(CURL* c, const ServerAddress& address, const Transfer& transfer,
               const std::function<bool()>& handedOver) {
    const CURLcode code = curl_easy_perform(c);
    if (code == CURLE_OK || transfer.taken) return Done{};
    if (transfer.held) return *transfer.held;
    long response = 0;
    curl_easy_getinfo(c, CURLINFO_RESPONSE_CODE, &response);
    return sentenceFor(code, response, handedOver(), address, transfer.answer);
}

} // namespace

Status checkServer(const MailServer& server, std::stop_token stop) {
    constexpr long kPatienceS = 30;
    const auto address = readServerAddress(server.url);
    if (!address) return address.error();
    Transfer nothing;
    nothing.stop = stop;
    auto curl = wayTo(server, *address, nothing);
    if (!curl) return curl.error();
    curl_easy_setopt(curl->get(), CURLOPT_CONNECT_ONLY, 1L); // greets, encrypts, logs in
    curl_easy_setopt(curl->get(), CURLOPT_TIMEOUT, std::min(server.timeoutS, kPatienceS));
    const Status answered = perform(curl->get(), *address, nothing, [] { return false; });
    // curl would wait two minutes for an answer to its goodbye.
    curl_socket_t socket = CURL_SOCKET_BAD;
    if (curl_easy_getinfo(curl->get(), CURLINFO_ACTIVESOCKET, &socket) == CURLE_OK &&
        socket != CURL_SOCKET_BAD)
        ::shutdown(socket, SHUT_RDWR);
    return answered;
}

Status sendMail(const MailServer& server, const std::string& from, const std::string& to,
                const std::string& bytes, std::stop_token stop, const std::function<void(double)>& progress,
                const LastWord& lastWord) {
    const auto address = readServerAddress(server.url);
    if (!address) return address.error();
    const std::unique_ptr<curl_slist, void (*)(curl_slist*)> recipients(
        curl_slist_append(nullptr, ("<" + to + ">").c_str()), curl_slist_free_all);
    Transfer transfer{&bytes, 0, stop, &progress, &lastWord};
    auto curl = wayTo(server, *address, transfer);
    if (!curl) return curl.error();
    CURL* c = curl->get();
    curl_easy_setopt(c, CURLOPT_MAIL_FROM, ("<" + from + ">").c_str());
    curl_easy_setopt(c, CURLOPT_MAIL_RCPT, recipients.get());
    curl_easy_setopt(c, CURLOPT_UPLOAD, 1L);
    curl_easy_setopt(c, CURLOPT_READFUNCTION, give);
    curl_easy_setopt(c, CURLOPT_READDATA, &transfer);
    curl_easy_setopt(c, CURLOPT_TIMEOUT, server.timeoutS * 10);
    return perform(c, *address, transfer, [&] { return transfer.at == bytes.size() && !bytes.empty(); });
}

} // namespace jg
