// SPDX-License-Identifier: GPL-3.0-or-later
#include "letter/captions.h"

#include "letter/film_recipe.h"
#include "voice/microphone.h"

#include <algorithm>
#include <cstdio>

namespace jg {

namespace {

constexpr std::size_t kMostLetters = 84;   ///< of one caption, two lines of 42: common practice, no source
constexpr double kMostLettersASecond = 22; ///< that are read along: common practice, no source

/// Letters, not bytes, of UTF-8.
std::size_t lettersIn(std::string_view text) {
    return static_cast<std::size_t>(
        std::count_if(text.begin(), text.end(), [](char c) { return (c & 0xC0) != 0x80; }));
}

std::vector<std::string> sentencesOf(const std::string& text) {
    std::vector<std::string> all;
    std::string now;
    for (std::size_t i = 0; i < text.size(); ++i) {
        const bool space = text[i] == ' ' || text[i] == '\n';
        if (!(space && now.empty())) now += text[i] == '\n' ? ' ' : text[i];
        const bool ends = text[i] == '.' || text[i] == '!' || text[i] == '?';
        if (ends && (i + 1 == text.size() || text[i + 1] == ' ' || text[i + 1] == '\n')) {
            all.push_back(now);
            now.clear();
        }
    }
    while (!now.empty() && now.back() == ' ') now.pop_back();
    if (!now.empty()) all.push_back(now);
    return all;
}

std::string wordsOfStop(const FilmRecipe& r, const Stop& stop) {
    if (!stop.words.empty()) return stop.words;
    const std::string title = r.words(asIs(stop.title));
    std::string text = title, told;
    if (const auto prompt = r.prompts.find(stop.id); prompt != r.prompts.end())
        for (const Message& sentence : prompt->second.sentences())
            told += (told.empty() ? "" : " ") + r.words(sentence);
    if (!text.empty() && text.back() != '.') text += '.';
    if (!told.empty()) text += " " + told;
    if (told.starts_with(title)) text = told;                   // "Forearm at plant: as we want it."
    return r.words(msg("captions.in-short", {{"text", text}})); // nobody wrote down what was said
}

/// Sentences as long as they can be read in the time there is; the first always.
std::vector<std::string> readable(std::vector<std::string> sentences, double seconds) {
    std::size_t letters = 0, kept = 0;
    for (const std::string& s : sentences) {
        letters += lettersIn(s);
        if (kept > 0 && static_cast<double>(letters) > seconds * kMostLettersASecond) break;
        ++kept;
    }
    sentences.resize(kept);
    return sentences;
}

void addCaptions(const std::string& text, double fromS, double seconds, std::vector<Caption>& captions) {
    std::vector<std::string> lines;
    for (const std::string& sentence : readable(sentencesOf(text), seconds))
        for (std::string& line : captionLines(sentence, kMostLetters)) lines.push_back(std::move(line));
    double all = 0, before = 0;
    for (const std::string& line : lines) all += static_cast<double>(lettersIn(line));
    const auto ms = [&](double letters) {
        return static_cast<std::int64_t>((fromS + seconds * letters / all) * 1000);
    };
    for (std::string& line : lines) {
        const auto letters = static_cast<double>(lettersIn(line));
        captions.push_back({ms(before), ms(before + letters), std::move(line)});
        before += letters;
    }
    std::erase_if(captions, [](const Caption& c) { return c.endMs <= c.startMs; });
}

std::string clock(std::int64_t ms) {
    char text[24];
    std::snprintf(text, sizeof text, "%02d:%02d:%02d.%03d", static_cast<int>(ms / 3600000),
                  static_cast<int>(ms / 60000 % 60), static_cast<int>(ms / 1000 % 60),
                  static_cast<int>(ms % 1000));
    return text;
}

/// What WebVTT would take for markup.
std::string plainInVtt(const std::string& text) {
    std::string out;
    for (const char c : text) {
        if (c == '&')
            out += "&amp;";
        else if (c == '<')
            out += "&lt;";
        else if (c == '>')
            out += "&gt;";
        else
            out += c;
    }
    return out;
}

} // namespace

std::vector<std::string> captionLines(const std::string& text, std::size_t most) {
    std::vector<std::string> lines;
    const std::size_t letters = lettersIn(text);
    // Even parts: a last line of one word is read last and alone.
    const std::size_t parts = std::max<std::size_t>(1, (letters + most - 1) / most);
    const std::size_t wanted = (letters + parts - 1) / parts;
    std::string line;
    std::size_t at = 0;
    while (at < text.size()) {
        const std::size_t space = std::min(text.find(' ', at), text.size());
        const std::string word = text.substr(at, space - at);
        at = space + 1;
        if (!line.empty() && lines.size() + 1 < parts && lettersIn(line) + lettersIn(word) / 2 >= wanted) {
            lines.push_back(std::move(line));
            line.clear();
        } else if (!line.empty() && lettersIn(line) + 1 + lettersIn(word) > most) {
            lines.push_back(std::move(line));
            line.clear();
        }
        if (!word.empty()) line += (line.empty() ? "" : " ") + word;
    }
    if (!line.empty()) lines.push_back(std::move(line));
    return lines;
}

std::vector<Caption> captionsOf(const FilmRecipe& recipe, const std::vector<FilmSegment>& plan) {
    std::vector<Caption> captions;
    std::int64_t at = 0;
    for (const FilmSegment& s : plan) {
        if (s.kind == FilmSegment::Kind::Said)
            addCaptions(wordsOfStop(recipe, *s.stop), static_cast<double>(at) / kSampleRate,
                        static_cast<double>(s.samples) / kSampleRate, captions);
        at += s.samples;
    }
    return captions;
}

std::string webVtt(const std::vector<Caption>& captions) {
    std::string out = "WEBVTT\n";
    for (const Caption& c : captions)
        out += "\n" + clock(c.startMs) + " --> " + clock(c.endMs) + "\n" + plainInVtt(c.text) + "\n";
    return out;
}

} // namespace jg
