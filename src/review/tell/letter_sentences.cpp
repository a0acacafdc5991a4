// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/tell/letter_sentences.h"

#include <algorithm>

namespace jg {

namespace {

/// Each place of the letter that holds a sentence: visit(key, about, text).
template <typename Letter, typename Visit>
void eachPlace(Letter& m, const Visit& visit) {
    visit("greeting", Message{}, m.greeting);
    visit("foreword", Message{}, m.foreword);
    for (std::size_t i = 0; i < m.since.size(); ++i)
        visit("since:" + std::to_string(i), m.sinceHeading, m.since[i]);
    visit("summary", Message{}, m.summary);
    for (std::size_t i = 0; i < m.keeps.size() && i < m.kept.size(); ++i)
        visit("keep:" + m.kept[i], msg("letter.keep-heading"), m.keeps[i]);
    for (auto& c : m.corrections) {
        const Message title = c.title;
        visit("title:" + c.finding, Message{}, c.title);
        visit("number:" + c.finding, title, c.number);
        visit("why:" + c.finding, title, c.why);
        visit("feel:" + c.finding, title, c.feel);
        visit("size:" + c.finding, title, c.size);
        visit("weighed:" + c.finding, title, c.weighed);
        visit("need:" + c.finding, title, c.need);
    }
    for (auto& t : m.thens)
        for (std::size_t i = 0; i < t.changes.size(); ++i)
            visit("then:" + t.stop.value + ":" + std::to_string(i), t.title, t.changes[i]);
    for (std::size_t i = 0; i < m.weekNotes.size(); ++i)
        visit("week-note:" + std::to_string(i), msg("letter.week"), m.weekNotes[i]);
    visit("next-look", Message{}, m.nextLook);
    for (std::size_t i = 0; i < m.notSeen.size(); ++i)
        visit("not-seen:" + std::to_string(i), msg("letter.not-seen-heading"), m.notSeen[i]);
    visit("closing", Message{}, m.closing);
    for (std::size_t i = 0; i < m.forGrownUps.size(); ++i)
        visit("grown-ups:" + std::to_string(i), msg("letter.grown-ups-heading"), m.forGrownUps[i]);
}

} // namespace

std::vector<LetterSentence> sentencesOf(const LetterModel& letter) {
    std::vector<LetterSentence> all;
    eachPlace(letter, [&](const std::string& key, const Message& about, const Message& text) {
        if (text.empty()) return;
        const auto own = letter.own.find(key);
        const bool isOwn = own != letter.own.end();
        all.push_back({key, about, text, isOwn, isOwn && own->second.stale});
    });
    return all;
}

void putOwnSentences(LetterModel& letter, const std::map<std::string, OwnSentence>& own) {
    eachPlace(letter, [&](const std::string& key, const Message&, Message& text) {
        const auto it = own.find(key);
        if (it == own.end() || text.empty()) return;
        letter.own[key] = {text, text != it->second.was};
        text = asIs(it->second.text);
    });
}

std::vector<SendProblem> staleSentences(const LetterModel& letter) {
    std::vector<SendProblem> problems;
    for (const LetterSentence& s : sentencesOf(letter))
        if (s.stale)
            problems.push_back({true, msg("send-check.own-sentence-stale",
                                          {{"own", s.text}, {"now", letter.own.at(s.key).generated}})});
    return problems;
}

std::optional<SendProblem> inOtherLanguage(const Plan& plan, Language language) {
    const auto count = std::count_if(plan.sentences.begin(), plan.sentences.end(),
                                     [&](const auto& s) { return s.second.language != language; });
    if (count == 0) return std::nullopt;
    return SendProblem{
        false, msg("send-check.own-other-language", {{"count", count}, {"language", nameOf(language)}})};
}

std::optional<Message> generatedSentence(const LetterModel& letter, const std::string& key) {
    if (const auto own = letter.own.find(key); own != letter.own.end()) return own->second.generated;
    for (const LetterSentence& s : sentencesOf(letter))
        if (s.key == key) return s.text;
    return std::nullopt;
}

} // namespace jg
