// SPDX-License-Identifier: GPL-3.0-or-later
#include "post/sentences.h"

namespace jg {

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

std::string beginningOf(const std::string& text, std::size_t most) {
    if (text.size() <= most) return text;
    std::size_t end = text.rfind(' ', most);
    if (end == text.npos || end == 0)
        for (end = most; end > 0 && (static_cast<unsigned char>(text[end]) & 0xC0) == 0x80; --end) {
        }
    return text.substr(0, end) + " ...";
}

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

} // namespace jg
