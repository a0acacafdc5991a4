// SPDX-License-Identifier: GPL-3.0-or-later
#include "post/incoming.h"

#include "base/letters.h"
#include "post/pain_words.h"
#include "post/sentences.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <iterator>
#include <string_view>
#include <tuple>

namespace jg {

namespace {

/// "Ruth Brandt <ruth@example.org>" in two; of several the last.
std::pair<std::string, std::string> senderOf(const std::string& from) {
    const auto open = from.rfind('<'), close = from.rfind('>');
    if (open == from.npos || close == from.npos || close < open) return {"", lowered(from)};
    std::string name = from.substr(0, open);
    std::erase(name, '"');
    while (!name.empty() && name.back() == ' ') name.pop_back();
    return {name, lowered(from.substr(open + 1, close - open - 1))};
}

bool isFilm(const Attachment& a) {
    static constexpr std::array kEndings = {".mp4", ".mov",  ".m4v", ".mkv", ".webm", ".avi",
                                            ".mts", ".m2ts", ".3gp", ".mpg", ".mpeg"};
    const std::string name = lowered(a.name);
    return lowered(a.type).starts_with("video/") ||
           std::any_of(kEndings.begin(), kEndings.end(), [&](const char* e) { return name.ends_with(e); });
}

/// The commonest entities as letters, in one pass: "&amp;lt;" is "&lt;".
std::string withoutEntities(const std::string& text) {
    static constexpr std::pair<std::string_view, char> kEntities[] = {
        {"&nbsp;", ' '}, {"&lt;", '<'},    {"&gt;", '>'}, {"&quot;", '"'},
        {"&#39;", '\''}, {"&apos;", '\''}, {"&amp;", '&'}};
    std::string out;
    out.reserve(text.size());
    for (std::size_t i = 0; i < text.size();) {
        const auto entity = std::find_if(std::begin(kEntities), std::end(kEntities), [&](const auto& e) {
            return text[i] == '&' && text.compare(i, e.first.size(), e.first) == 0;
        });
        out += entity == std::end(kEntities) ? text[i] : entity->second;
        i += entity == std::end(kEntities) ? 1 : entity->first.size();
    }
    return out;
}

/// The words of a page: no tags, no scripts, the commonest entities.
std::string withoutMarkup(const std::string& html) {
    std::string out;
    int quotes = 0; // how deep in what is quoted
    const std::string lower = lowered(html);
    for (std::size_t i = 0; i < html.size();) {
        if (html[i] != '<') {
            out += html[i];
            if (html[i++] == '\n' && quotes > 0) out += "> ";
            continue;
        }
        for (const char* hidden : {"style", "script", "head"})
            if (lower.compare(i + 1, std::string_view(hidden).size(), hidden) == 0)
                i = std::min(lower.find("</" + std::string(hidden), i), html.size());
        if (lower.compare(i, 11, "<blockquote") == 0) ++quotes;
        if (lower.compare(i, 12, "</blockquote") == 0) quotes = std::max(0, quotes - 1);
        const bool breaks = lower.compare(i, 3, "<br") == 0 || lower.compare(i, 4, "</li") == 0 ||
                            lower.compare(i, 11, "<blockquote") == 0 ||
                            lower.compare(i, 12, "</blockquote") == 0;
        const bool ends = lower.compare(i, 3, "</p") == 0 || lower.compare(i, 5, "</div") == 0;
        i = std::min(html.find('>', i), html.size() - 1) + 1;
        out += ends ? "\n\n" : breaks ? "\n" : "";
        if ((ends || breaks) && quotes > 0) out += "> "; // as a quoted line of a plain mail
    }
    return withoutEntities(out);
}

std::vector<std::string> linesOf(const std::string& text) {
    std::vector<std::string> lines(1);
    for (const char c : text) {
        if (c == '\n')
            lines.emplace_back();
        else if (c != '\r')
            lines.back() += c;
    }
    return lines;
}

bool isBlank(const std::string& line) {
    return std::all_of(line.begin(), line.end(), [](unsigned char c) { return std::isspace(c) != 0; });
}

/// What was written now, and what it answers.
struct OwnAndQuoted {
    std::string own, quoted;
};

/// A line behind which an older mail stands, by what programs put there: "On ... wrote:", "From: ...".
bool beginsOlder(const std::vector<std::string>& lines, std::size_t i) {
    const std::string line = lowered(trimmed(lines[i]));
    if (line.starts_with("-----") || line.starts_with("_____")) {
        const bool named = line.find("original") != line.npos || line.find("forwarded") != line.npos ||
                           line.find("reenviado") != line.npos || line.find("mensaje") != line.npos;
        if (named || line.find_first_not_of("_- ") == line.npos)
            return named || (i + 1 < lines.size() && lowered(trimmed(lines[i + 1])).starts_with("from:"));
    }
    const auto head = [&](const char* word) {
        return line.starts_with(word) && i + 1 < lines.size() && lines[i + 1].find(':') != std::string::npos;
    };
    if (head("from:") || head("de:")) {
        const std::string next = lowered(trimmed(lines[i + 1]));
        for (const char* word :
             {"sent:", "date:", "to:", "subject:", "enviado", "fecha:", "para:", "asunto:"})
            if (next.starts_with(word)) return true;
    }
    const bool leads = line.starts_with("on ") || line.starts_with("el ") || line.starts_with("le ");
    return leads &&
           (line.ends_with("wrote:") || line.ends_with("escribi\u00f3:") || line.ends_with("escribio:"));
}

/// Apart from quoted lines, the line that leads into them, an older mail below, and without the signature
/// behind "-- ".
OwnAndQuoted ownWords(const std::string& text) {
    OwnAndQuoted all;
    const auto lines = linesOf(text);
    bool older = false, signature = false;
    for (std::size_t i = 0; i < lines.size(); ++i) {
        const std::string& line = lines[i];
        older |= beginsOlder(lines, i);
        signature |= line == "-- " || line == "--";
        const bool leads = line.ends_with(":") && i + 1 < lines.size() && lines[i + 1].starts_with(">");
        if (line.starts_with(">"))
            all.quoted += std::string(trimmed(line.substr(line.find_first_not_of("> ") == line.npos
                                                              ? line.size()
                                                              : line.find_first_not_of("> ")))) +
                          "\n";
        else if (older)
            all.quoted += line + "\n";
        else if (!leads && !signature)
            all.own += line + "\n";
    }
    while (!all.own.empty() && std::isspace(static_cast<unsigned char>(all.own.back())) != 0)
        all.own.pop_back();
    return all;
}

/// Own choice: what a mail in another mail begins its subject with.
bool isForward(const std::string& subject) {
    const std::string lower = lowered(trimmed(subject));
    for (const char* word : {"fwd:", "fw:", "rv:", "reenv", "fwd ", "[fwd", "wg:"})
        if (lower.starts_with(word)) return true;
    return false;
}

/// Why its sender may be somebody else.
std::vector<Message> doubtsOf(const ReadMail& mail, const IncomingMail& in) {
    std::vector<Message> doubts;
    for (const std::string& check : mail.checks) {
        const std::string lower = lowered(check);
        for (const char* failed : {"dmarc=fail", "spf=fail", "dkim=fail", "spf=softfail"})
            if (lower.find(failed) != lower.npos && doubts.empty())
                doubts.push_back(msg("incoming.failed-check", {{"sender", in.senderAddress}}));
    }
    if (mail.passedOn || isForward(in.subject) || in.quoted.find("Forwarded message") != std::string::npos ||
        in.quoted.find("Mensaje reenviado") != std::string::npos)
        doubts.push_back(msg("incoming.passed-on", {{"sender", in.senderAddress}}));
    const std::string sender = mail.sender.empty() ? std::string() : senderOf(mail.sender).second;
    const std::string reply = mail.replyTo.empty() ? std::string() : senderOf(mail.replyTo).second;
    for (const std::string& other : {sender, reply})
        if (!other.empty() && other != in.senderAddress)
            doubts.push_back(
                msg("incoming.another-address", {{"sender", in.senderAddress}, {"other", other}}));
    if (mail.from.find(',') != std::string::npos && mail.from.find('@') != mail.from.rfind('@'))
        doubts.push_back(msg("incoming.several-senders"));
    return doubts;
}

bool isGreeting(const std::string& sentence) {
    static constexpr std::array kHellos = {"hi",    "hello", "hey",  "dear",   "good ",
                                           "coach", "hola",  "buen", "estimad"};
    const std::string lower = lowered(sentence);
    constexpr std::size_t kLongest = 40;
    return sentence.size() < kLongest &&
           std::any_of(kHellos.begin(), kHellos.end(), [&](const char* h) { return lower.starts_with(h); });
}

/// Own choice: nobody writes so much, and no mail program nests so deep.
constexpr std::size_t kMostText = 1U << 20, kMostParts = 200;

std::size_t partsOf(const std::string& bytes) {
    std::size_t count = 0;
    for (std::size_t at = bytes.find("ultipart/"); at != bytes.npos && count <= kMostParts;
         at = bytes.find("ultipart/", at + 1))
        ++count;
    return count;
}

} // namespace

Result<IncomingMail> readIncoming(const std::string& bytes, std::stop_token stop) {
    if (bytes.size() > kMostMailBytes)
        return fail(ErrorCode::BadInput, msg("incoming.too-large", {{"most", kMostMailBytes >> 20}}));
    if (partsOf(bytes) > kMostParts) return fail(ErrorCode::BadInput, msg("incoming.too-many-parts"));
    auto mail = readMail(bytes);
    if (!mail) return mail.error();
    const auto stopped = [&] { return fail(ErrorCode::Cancelled, msg("incoming.stopped")); };
    if (stop.stop_requested()) return stopped();
    for (std::string* text : {&mail->text, &mail->html})
        if (text->size() > kMostText) *text = beginningOf(*text, kMostText);
    IncomingMail in;
    std::tie(in.senderName, in.senderAddress) = senderOf(mail->from);
    if (in.senderAddress.find('@') == std::string::npos)
        return fail(ErrorCode::BadInput, msg("incoming.no-sender"));
    in.subject = mail->subject;
    in.messageId = mail->messageId;
    const bool onlyPage = isBlank(mail->text);
    const OwnAndQuoted page = ownWords(withoutMarkup(mail->html));
    const OwnAndQuoted plain = onlyPage ? page : ownWords(mail->text);
    in.text = plain.own;
    in.quoted = plain.quoted;
    if (!onlyPage) {
        in.page = page.own;
        in.quoted += "\n\n" + page.quoted;
    }
    in.doubts = doubtsOf(*mail, in);
    for (Attachment& a : mail->attachments) {
        if (stop.stop_requested()) return stopped();
        const bool again = std::any_of(in.films.begin(), in.films.end(),
                                       [&](const Attachment& f) { return f.bytes == a.bytes; });
        if (isFilm(a) && !again && in.films.size() < kMostFilmsInMail)
            in.films.push_back(std::move(a));
        else if (!again)
            in.leftOut.push_back(a.name);
    }
    return in;
}

std::string askedIn(const std::string& text) {
    std::vector<std::string> questions, others;
    for (const std::string& s : sentencesIn(text)) {
        if (s.back() == '?') questions.push_back(s);
        if (!isGreeting(s)) others.push_back(s);
    }
    if (!questions.empty()) return inShort(questions);
    return others.empty() ? "" : inShort({others.front()});
}

} // namespace jg
