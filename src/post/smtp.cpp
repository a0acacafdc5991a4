#include "post/smtp.h"

#include <curl/curl.h>

#include <algorithm>
#include <cstring>
#include <memory>
#include <mutex>

namespace jg {

bool isLoopback(const std::string& url) {
    const auto scheme = url.find("://");
    const std::string rest = scheme == std::string::npos ? url : url.substr(scheme + 3);
    const std::string host =
        rest.substr(0, rest.find_last_of(':') == std::string::npos ? rest.size() : rest.find_last_of(':'));
    // Digits and dots only: a name such as 127.example.org is another machine.
    const bool numeric = host.find_first_not_of("0123456789.") == std::string::npos;
    return host == "localhost" || host == "[::1]" || (numeric && host.rfind("127.", 0) == 0);
}

namespace {

struct Transfer {
    const std::string* bytes = nullptr;
    std::size_t at = 0;
    std::stop_token stop;
    const std::function<void(double)>* progress = nullptr;
};

std::size_t give(char* buffer, std::size_t size, std::size_t count, void* data) {
    auto& t = *static_cast<Transfer*>(data);
    const std::size_t n = std::min(size * count, t.bytes->size() - t.at);
    std::memcpy(buffer, t.bytes->data() + t.at, n);
    t.at += n;
    if (*t.progress) (*t.progress)(static_cast<double>(t.at) / static_cast<double>(t.bytes->size()));
    return n;
}

int watch(void* data, curl_off_t, curl_off_t, curl_off_t, curl_off_t) {
    return static_cast<Transfer*>(data)->stop.stop_requested() ? 1 : 0;
}

Error sentenceFor(CURLcode code, long response, bool handedOver, const MailServer& server) {
    const std::string host =
        server.url.substr(server.url.find("://") == std::string::npos ? 0 : server.url.find("://") + 3);
    const Message said = response > 0 ? msg("smtp.answered", {{"code", response}}) : Message{};
    const Error unsure = fail(ErrorCode::Unsure, msg("smtp.the-mail-server-did-not-answer"));
    switch (code) {
    case CURLE_ABORTED_BY_CALLBACK:
        if (handedOver) return unsure;
        return fail(ErrorCode::Cancelled, msg("smtp.sending-was-stopped-the-letter-waits"));
    case CURLE_LOGIN_DENIED:
        return fail(ErrorCode::Network, msg("smtp.the-mail-server-refused-the-name", {{"said", said}}));
    case CURLE_COULDNT_RESOLVE_HOST:
        return fail(ErrorCode::Network, msg("smtp.the-mail-server-host-is-not", {{"host", host}}));
    case CURLE_COULDNT_CONNECT:
        return fail(ErrorCode::Network, msg("smtp.nobody-answers-at-host-check-the", {{"host", host}}));
    case CURLE_USE_SSL_FAILED:
        return fail(ErrorCode::Network, msg("smtp.the-mail-server-offers-no-encryption"));
    case CURLE_PEER_FAILED_VERIFICATION:
        return fail(ErrorCode::Network, msg("smtp.the-mail-servers-certificate-is-not"));
    case CURLE_URL_MALFORMAT:
    case CURLE_UNSUPPORTED_PROTOCOL:
        return fail(ErrorCode::BadInput, msg("smtp.url-is-not-a-mail-servers", {{"url", server.url}}));
    default:
        break;
    }
    if (response >= 500)
        return fail(ErrorCode::Network, msg("smtp.the-mail-server-refused-the-lettersaid", {{"said", said}}));
    if (response >= 400)
        return fail(ErrorCode::Network, msg("smtp.the-mail-server-did-not-take", {{"said", said}}));
    if (handedOver) return unsure;
    return fail(ErrorCode::Network, msg("smtp.the-connection-to-the-mail-server", {{"said", said}}));
}

} // namespace

Status sendMail(const MailServer& server, const std::string& from, const std::string& to,
                const std::string& bytes, std::stop_token stop, const std::function<void(double)>& progress) {
    static std::once_flag once;
    std::call_once(once, [] { curl_global_init(CURL_GLOBAL_DEFAULT); });
    if (!server.requireTls && !isLoopback(server.url))
        return fail(ErrorCode::Refused, msg("smtp.without-encryption-mail-only-goes-to"));
    const std::unique_ptr<CURL, void (*)(CURL*)> curl(curl_easy_init(), curl_easy_cleanup);
    const std::unique_ptr<curl_slist, void (*)(curl_slist*)> recipients(
        curl_slist_append(nullptr, ("<" + to + ">").c_str()), curl_slist_free_all);
    Transfer transfer{&bytes, 0, stop, &progress};
    CURL* c = curl.get();
    curl_easy_setopt(c, CURLOPT_URL, server.url.c_str());
    curl_easy_setopt(c, CURLOPT_PROTOCOLS_STR, "smtp,smtps");
    curl_easy_setopt(c, CURLOPT_NOSIGNAL, 1L);
    if (server.requireTls) curl_easy_setopt(c, CURLOPT_USE_SSL, static_cast<long>(CURLUSESSL_ALL));
    if (!server.user.empty()) {
        curl_easy_setopt(c, CURLOPT_USERNAME, server.user.c_str());
        curl_easy_setopt(c, CURLOPT_PASSWORD, server.password.c_str());
    }
    curl_easy_setopt(c, CURLOPT_MAIL_FROM, ("<" + from + ">").c_str());
    curl_easy_setopt(c, CURLOPT_MAIL_RCPT, recipients.get());
    curl_easy_setopt(c, CURLOPT_UPLOAD, 1L);
    curl_easy_setopt(c, CURLOPT_READFUNCTION, give);
    curl_easy_setopt(c, CURLOPT_READDATA, &transfer);
    curl_easy_setopt(c, CURLOPT_NOPROGRESS, 0L);
    curl_easy_setopt(c, CURLOPT_XFERINFOFUNCTION, watch);
    curl_easy_setopt(c, CURLOPT_XFERINFODATA, &transfer);
    curl_easy_setopt(c, CURLOPT_CONNECTTIMEOUT, std::min(server.timeoutS, 20L));
    curl_easy_setopt(c, CURLOPT_SERVER_RESPONSE_TIMEOUT, server.timeoutS);
    curl_easy_setopt(c, CURLOPT_TIMEOUT, server.timeoutS * 10);
    const CURLcode code = curl_easy_perform(c);
    if (code == CURLE_OK) return Done{};
    long response = 0;
    curl_easy_getinfo(c, CURLINFO_RESPONSE_CODE, &response);
    return sentenceFor(code, response, transfer.at == bytes.size() && !bytes.empty(), server);
}

} // namespace jg
