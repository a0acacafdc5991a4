#include "post/incoming.h"

#include "base/letters.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <iterator>
#include <string_view>
#include <tuple>

namespace jg {

namespace {

/// "Ruth Brandt <ruth@example.org>" in two; the first sender of several.
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
    const std::string lower = lowered(html);
    for (std::size_t i = 0; i < html.size();) {
        if (html[i] != '<') {
            out += html[i++];
            continue;
        }
        for (const char* hidden : {"style", "script", "head"})
            if (lower.compare(i + 1, std::string_view(hidden).size(), hidden) == 0)
                i = std::min(lower.find("</" + std::string(hidden), i), html.size());
        const bool breaks = lower.compare(i, 3, "<br") == 0 || lower.compare(i, 4, "</li") == 0;
        const bool ends = lower.compare(i, 3, "</p") == 0 || lower.compare(i, 5, "</div") == 0;
        i = std::min(html.find('>', i), html.size() - 1) + 1;
        out += ends ? "\n\n" : breaks ? "\n" : "";
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

/// Without quoted lines, the line that leads into them, and the signature behind "-- ".
std::string ownWords(const std::string& text) {
    std::string out;
    const auto lines = linesOf(text);
    for (std::size_t i = 0; i < lines.size(); ++i) {
        const std::string& line = lines[i];
        if (line == "-- " || line == "--") break;
        if (line.starts_with(">")) continue;
        const bool leads = line.ends_with(":") && i + 1 < lines.size() && lines[i + 1].starts_with(">");
        if (!leads) out += line + "\n";
    }
    while (!out.empty() && std::isspace(static_cast<unsigned char>(out.back())) != 0) out.pop_back();
    return out;
}

/// Sentences: to a full stop, a question or an exclamation mark, or an empty line.
std::vector<std::string> sentencesIn(const std::string& text) {
    std::vector<std::string> all;
    std::string now;
    const auto end = [&] {
        while (!now.empty() && now.back() == ' ') now.pop_back();
        if (!now.empty()) all.push_back(now);
        now.clear();
    };
    bool lineBefore = false;
    for (const char c : text) {
        if (c == '\n') {
            if (lineBefore) end();
            lineBefore = true;
            if (!now.empty() && now.back() != ' ') now += ' ';
            continue;
        }
        if (!(now.empty() && c == ' ')) now += c;
        if (c != ' ') lineBefore = false;
        if (c == '.' || c == '?' || c == '!') end();
    }
    end();
    return all;
}

bool isGreeting(const std::string& sentence) {
    static constexpr std::array kHellos = {"hi",    "hello", "hey",  "dear",   "good ",
                                           "coach", "hola",  "buen", "estimad"};
    const std::string lower = lowered(sentence);
    constexpr std::size_t kLongest = 40;
    return sentence.size() < kLongest &&
           std::any_of(kHellos.begin(), kHellos.end(), [&](const char* h) { return lower.starts_with(h); });
}

std::vector<std::string> wordsOf(const std::string& sentence) {
    std::vector<std::string> words(1);
    for (const char c : lowered(sentence)) {
        const auto u = static_cast<unsigned char>(c);
        if (std::isalpha(u) != 0 || c == '\'' || u >= 0x80)
            words.back() += c;
        else if (!words.back().empty())
            words.emplace_back();
    }
    if (words.back().empty()) words.pop_back();
    return words;
}

bool isPain(const std::string& word) {
    static constexpr std::array kBeginnings = {"pain",   "hurt",   "sore",  "ache",  "aching", "tender",
                                               "numb",   "tingl",  "swoll", "swell", "twinge", "discomfort",
                                               "injur",  "stiff",  "throb", "sharp", "dolor",  "duele",
                                               "duelen", "molest", "lesi"};
    return std::any_of(kBeginnings.begin(), kBeginnings.end(),
                       [&](const char* b) { return word.starts_with(b); });
}

bool isDenial(const std::string& word) {
    static constexpr std::array kDenials = {"no", "not", "without", "never", "zero", "sin", "nunca", "nada"};
    return word.ends_with("n't") || word.ends_with("n\xE2\x80\x99t") ||
           std::find(kDenials.begin(), kDenials.end(), word) != kDenials.end();
}

bool speaksOfPain(const std::string& sentence) {
    constexpr std::size_t kReach = 3; // words before it that a denial reaches
    const auto words = wordsOf(sentence);
    for (std::size_t i = 0; i < words.size(); ++i) {
        if (!isPain(words[i])) continue;
        bool denied = i + 1 < words.size() && words[i + 1] == "free";
        for (std::size_t back = 1; back <= kReach && back <= i; ++back) {
            if (words[i - back] == "but" || words[i - back] == "pero") break;
            denied |= isDenial(words[i - back]);
        }
        if (!denied) return true;
    }
    return false;
}

/// Of a sentence that never ends what stands round its first word of pain.
std::string aroundPain(const std::string& sentence) {
    constexpr std::size_t kLongest = 300, kBefore = 120;
    if (sentence.size() <= kLongest) return sentence;
    std::size_t at = 0;
    for (std::size_t i = 0; i < sentence.size();
         i = sentence.find(' ', i) == sentence.npos ? sentence.size() : sentence.find(' ', i) + 1)
        if (speaksOfPain(sentence.substr(i, sentence.find(' ', i) - i))) {
            at = i;
            break;
        }
    const std::size_t from = at > kBefore ? sentence.find(' ', at - kBefore) : 0;
    return sentence.substr(from == sentence.npos ? at : from, kLongest);
}

/// The first so many bytes, whole letters and words.
std::string beginningOf(const std::string& text, std::size_t most) {
    if (text.size() <= most) return text;
    std::size_t end = text.rfind(' ', most);
    if (end == text.npos || end == 0)
        for (end = most; end > 0 && (static_cast<unsigned char>(text[end]) & 0xC0) == 0x80; --end) {
        }
    return text.substr(0, end) + " ...";
}

/// Sentences one after the other, as many as fit; the first always, were it cut.
std::string inShort(std::vector<std::string> sentences) {
    constexpr std::size_t kMost = 200, kLongestSentence = 400;
    std::string out;
    for (std::string& s : sentences) {
        s = beginningOf(s, kLongestSentence);
        if (!out.empty() && out.size() + 1 + s.size() > kMost) break;
        out += (out.empty() ? "" : " ") + s;
    }
    return out;
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

Result<IncomingMail> readIncoming(const std::string& bytes) {
    if (bytes.size() > kMostMailBytes)
        return fail(ErrorCode::BadInput, msg("incoming.too-large", {{"most", kMostMailBytes >> 20}}));
    if (partsOf(bytes) > kMostParts) return fail(ErrorCode::BadInput, msg("incoming.too-many-parts"));
    auto mail = readMail(bytes);
    if (!mail) return mail.error();
    for (std::string* text : {&mail->text, &mail->html})
        if (text->size() > kMostText) *text = beginningOf(*text, kMostText);
    IncomingMail in;
    std::tie(in.senderName, in.senderAddress) = senderOf(mail->from);
    if (in.senderAddress.find('@') == std::string::npos)
        return fail(ErrorCode::BadInput, msg("incoming.no-sender"));
    in.subject = mail->subject;
    in.text = ownWords(isBlank(mail->text) ? withoutMarkup(mail->html) : mail->text);
    for (Attachment& a : mail->attachments) {
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

std::string painIn(const std::string& text) {
    std::vector<std::string> found;
    for (const std::string& s : sentencesIn(text))
        if (speaksOfPain(s)) found.push_back(aroundPain(s));
    return inShort(found);
}

} // namespace jg
