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
    const std::string said = response > 0 ? " (it answered " + std::to_string(response) + ")" : "";
    const Error unsure =
        fail(ErrorCode::Unsure, "The mail server did not answer after the letter was handed over: "
                                "it may have been sent. Ask before sending again.");
    switch (code) {
    case CURLE_ABORTED_BY_CALLBACK:
        if (handedOver) return unsure;
        return fail(ErrorCode::Cancelled, "Sending was stopped. The letter waits in the outbox.");
    case CURLE_LOGIN_DENIED:
        return fail(ErrorCode::Network,
                    "The mail server refused the name or password" + said + ". Check both and send again.");
    case CURLE_COULDNT_RESOLVE_HOST:
        return fail(ErrorCode::Network,
                    "The mail server " + host + " is not known. Check its name and the network.");
    case CURLE_COULDNT_CONNECT:
        return fail(ErrorCode::Network,
                    "Nobody answers at " + host + ". Check the server's address, or try later.");
    case CURLE_USE_SSL_FAILED:
        return fail(ErrorCode::Network,
                    "The mail server offers no encryption, so nothing was sent. Use another port or server.");
    case CURLE_PEER_FAILED_VERIFICATION:
        return fail(ErrorCode::Network, "The mail server's certificate is not trusted, so nothing was sent.");
    case CURLE_URL_MALFORMAT:
    case CURLE_UNSUPPORTED_PROTOCOL:
        return fail(ErrorCode::BadInput,
                    "\"" + server.url + "\" is not a mail server's address. Write it as smtp://host:port.");
    default:
        break;
    }
    if (response >= 500)
        return fail(ErrorCode::Network,
                    "The mail server refused the letter" + said + ". Check the recipient's address.");
    if (response >= 400)
        return fail(ErrorCode::Network,
                    "The mail server did not take the letter now" + said + ". Send it later.");
    if (handedOver) return unsure;
    return fail(ErrorCode::Network,
                "The connection to the mail server broke off" + said + ". Nothing is lost; send again.");
}

} // namespace

Status sendMail(const MailServer& server, const std::string& from, const std::string& to,
                const std::string& bytes, std::stop_token stop, const std::function<void(double)>& progress) {
    static std::once_flag once;
    std::call_once(once, [] { curl_global_init(CURL_GLOBAL_DEFAULT); });
    if (!server.requireTls && !isLoopback(server.url))
        return fail(ErrorCode::Refused, "Without encryption mail only goes to a server on this machine.");
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
