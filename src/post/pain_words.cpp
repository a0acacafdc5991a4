// SPDX-License-Identifier: GPL-3.0-or-later
#include "post/pain_words.h"

#include "post/sentences.h"
#include "words/plain_letters.h"

#include <algorithm>
#include <array>
#include <string_view>
#include <vector>

namespace jg {

namespace {

using Words = std::vector<std::string>;

template <std::size_t N>
bool begins(const std::string& word, const std::array<const char*, N>& beginnings) {
    return std::any_of(beginnings.begin(), beginnings.end(),
                       [&](const char* b) { return word.starts_with(b); });
}

template <std::size_t N>
bool isOne(const std::string& word, const std::array<const char*, N>& words) {
    return std::find(words.begin(), words.end(), word) != words.end();
}

/// Speaks of pain wherever it stands.
bool isPain(const std::string& word) {
    static constexpr std::array kBeginnings = {
        "pain",     "hurt",   "sore",     "ache",      "aching",     "achy",    "tender",  "numb",
        "tingl",    "swoll",  "swell",    "twing",     "discomf",    "injur",   "stiff",   "throb",
        "sprain",   "strain", "cramp",    "inflam",    "dislocat",   "fractur", "bruis",   "tendinit",
        "tendonit", "ouch",   "uncomfor", "dolor",     "doli",       "dolen",   "doler",   "adolor",
        "duel",     "lesi",   "lastim",   "hinch",     "hormigue",   "entum",   "calambr", "desgarr",
        "esguinc",  "punzad", "pinchaz",  "torced",    "contractur", "moreton", "quirof",  "rehab",
        "tiron",    "ardor",  "molestia", "molestando"};
    return begins(word, kBeginnings) || word == "surgery" || word == "cirugia" || word == "molesta" ||
           word == "molestan" || word == "molestaba" || word == "molesto";
}

/// Speaks of pain beside a part of the body, a second such word, or somebody's feeling.
bool isMaybePain(const std::string& word) {
    static constexpr std::array kBeginnings = {
        "burn",   "click",   "lock",   "bother",  "tight",  "pinch",  "grind",   "shoot",   "stab",
        "limp",   "crack",   "snap",   "crunch",  "fatig",  "barkin", "crank",   "killing", "nagg",
        "tore",   "torn",    "weird",  "funny",   "wrong",  "weak",   "broke",   "flare",   "asleep",
        "quema",  "truena",  "trueno", "chasqu",  "trab",   "bloque", "rigid",   "ties",    "cargad",
        "cansad", "resent",  "sensib", "jalo",    "zafo",   "torcio", "tron",    "dormid",  "aprieta",
        "raro",   "sharp",   "catch",  "dead",    "pulled", "unstab", "inestab", "debil",   "acting",
        "issue",  "problem", "troubl", "delicad", "malo",   "mala",   "aguant",  "irrit"};
    static constexpr std::array kWords = {"pop",  "pops",  "popped", "popping", "soar",  "tear", "tears",
                                          "arde", "ardio", "clic",   "off",     "tired", "zing", "loose"};
    return begins(word, kBeginnings) || isOne(word, kWords);
}

bool isBody(const std::string& word) {
    static constexpr std::array kBeginnings = {
        "elbow",  "shoulder", "wrist",   "finger",   "forearm", "bicep",  "tricep",  "ucl",   "rotator",
        "labrum", "knee",     "ankle",   "hamstr",   "groin",   "obliqu", "rib",     "shin",  "calf",
        "calv",   "quad",     "tendon",  "ligament", "muscl",   "joint",  "scapul",  "codo",  "hombro",
        "muneca", "antebraz", "dedo",    "espald",   "cader",   "rodill", "tobill",  "ingle", "costill",
        "muscul", "ligament", "manguit", "biceps",   "triceps", "muslo",  "pantorr", "brazo", "cuello"};
    static constexpr std::array kWords = {"arm",  "arms", "back", "hip",  "hips",
                                          "neck", "lat",  "lats", "cuff", "pierna"};
    return begins(word, kBeginnings) || isOne(word, kWords);
}

bool isFeeling(const std::string& word) {
    static constexpr std::array kWords = {"feel",   "feels",  "felt",   "feeling", "heard", "it", "me",
                                          "siente", "siento", "sentio", "senti",   "le",    "se", "hears"};
    return isOne(word, kWords);
}

/// What a joint that hurts can't do, in two words: "can't straighten".
bool isMovement(const std::string& word) {
    static constexpr std::array kBeginnings = {"straight", "bend", "lift",   "raise", "rotate", "extend",
                                               "estir",    "dobl", "levant", "mover", "girar"};
    return begins(word, kBeginnings);
}

bool isDenial(const std::string& word) {
    static constexpr std::array kDenials = {"no",  "not",    "without", "never", "zero", "none",   "nothing",
                                            "nor", "cannot", "sin",     "nunca", "nada", "ningun", "ninguna",
                                            "ni",  "jamas",  "tampoco", "cero",  "nope", "neither"};
    return word.ends_with("n't") || isOne(word, kDenials);
}

/// Joins two parts of a sentence that deny, or don't, for themselves.
bool joins(const std::string& word) {
    static constexpr std::array kJoints = {
        "but",    "however", "because", "since",  "though", "although", "when",    "while",    "after",
        "until",  "if",      "so",      "then",   "and",    "or",       "with",    "from",     "due",
        "except", "pero",    "aunque",  "porque", "cuando", "desde",    "despues", "mientras", "si",
        "y",      "o",       "con",     "por",    "pues",   "sino",     "as"};
    return isOne(word, kJoints);
}

/// The parts of a sentence that deny for themselves, in words: between its commas and the like, and its
/// joining words.
std::vector<Words> clausesOf(const std::string& sentence) {
    std::vector<Words> clauses(1);
    std::string word;
    const auto endWord = [&] {
        if (word.empty()) return;
        if (joins(word) && !clauses.back().empty())
            clauses.emplace_back();
        else if (!joins(word))
            clauses.back().push_back(word);
        word.clear();
    };
    for (const char c : plainLetters(sentence)) {
        const auto u = static_cast<unsigned char>(c);
        if ((u < 0x80 && std::isalpha(u) != 0) || c == '\'' ||
            (c == '-' && !word.empty())) { // "pain-free" is two words
            word += c == '-' ? ' ' : c;
            if (c == '-') word.pop_back(), endWord();
            continue;
        }
        endWord();
        if (std::string_view(",;:()/\n-").find(c) != std::string_view::npos && !clauses.back().empty())
            clauses.emplace_back();
    }
    endWord();
    return clauses;
}

/// "No it hurts": it answers, and denies nothing. "Not only", "no doubt" alike.
bool onlyAnswers(const Words& words, std::size_t at) {
    static constexpr std::array kSubjects = {"it",    "he",   "she",  "they",  "we",   "i",
                                             "my",    "his",  "her",  "its",   "only", "just",
                                             "doubt", "solo", "duda", "there", "the"};
    return (words[at] == "no" || words[at] == "not" || words[at] == "nope") && at + 1 < words.size() &&
           isOne(words[at + 1], kSubjects);
}

/// "Not too sore", "no le duele mucho": a little of it is there.
bool isQualified(const Words& words, std::size_t denial, std::size_t pain) {
    static constexpr std::array kHow = {
        "too",      "that",    "very",  "so",   "much",  "really", "terribly", "completely",
        "entirely", "quite",   "bad",   "muy",  "tan",   "mucho",  "tanto",    "demasiado",
        "aguanta",  "aguanto", "stand", "bear", "badly", "lot"};
    const std::size_t end = std::min(words.size(), pain + 3);
    for (std::size_t i = denial + 1; i < end; ++i)
        if (isOne(words[i], kHow)) return true;
    return false;
}

/// Whether a word of pain is denied by what stands before it in its part, or "free" behind it.
bool isDenied(const Words& words, std::size_t at) {
    constexpr std::size_t kReach = 6, kFar = 40; // words before it that deny it; that are looked at
    if (at + 1 < words.size() && (words[at + 1] == "free" || words[at + 1] == "less")) return true;
    bool without = false, denied = false, before = false;
    for (std::size_t back = 1; back <= std::min(at, kFar); ++back) {
        const std::string& word = words[at - back];
        if (!isDenial(word) || onlyAnswers(words, at - back) || isQualified(words, at - back, at)) continue;
        if (denied || without)
            before = true;
        else if (back <= kReach)
            (word == "without" || word == "sin" ? without : denied) = true;
    }
    return denied || (without && !before); // "can't throw without pain"
}

/// Nothing but words of pain and what counts them: "soreness or swelling".
bool isBareList(const Words& words) {
    static constexpr std::array kSmall = {"any",    "all", "at",    "or", "nor",  "ni",     "more",    "mas",
                                          "either", "now", "today", "of", "real", "ningun", "ninguna", "ya"};
    static constexpr std::array kSaid = {"hurts",  "hurt",  "hurting", "aches",
                                         "throbs", "duele", "duelen",  "dolio"};
    return std::all_of(words.begin(), words.end(), [](const std::string& w) {
        return ((isPain(w) || isMaybePain(w)) && !isOne(w, kSaid)) || isOne(w, kSmall);
    });
}

/// "Hasn't thrown in a week - elbow."
bool restsFor(const std::vector<Words>& clauses) {
    constexpr std::size_t kNear = 3, kShort = 3;
    bool rests = false, joint = false;
    for (const Words& words : clauses) {
        joint |= words.size() <= kShort && std::any_of(words.begin(), words.end(), isBody);
        for (std::size_t i = 0; i < words.size(); ++i)
            if (words[i].starts_with("throw") || words[i].starts_with("pitch") ||
                words[i].starts_with("lanza"))
                for (std::size_t back = 1; back <= std::min(i, kNear); ++back)
                    rests |= isDenial(words[i - back]);
    }
    return rests && joint;
}

bool speaksOfPain(const std::string& sentence) {
    const std::vector<Words> clauses = clausesOf(sentence);
    int maybe = 0;
    bool body = false, cannot = false, feeling = false, moves = false;
    bool deniedBefore = false; // the part before named pain, and denied it
    for (const Words& words : clauses) {
        bool here = false, open = false;
        for (std::size_t i = 0; i < words.size(); ++i) {
            body |= isBody(words[i]);
            moves |= isMovement(words[i]);
            cannot |= words[i] == "can't" || words[i] == "cannot" || words[i] == "couldn't" ||
                      words[i] == "unable" || words[i] == "puede" || words[i] == "puedo" ||
                      words[i] == "cant";
            const bool pain = isPain(words[i]);
            if (!pain && !isMaybePain(words[i])) continue;
            here = true;
            const bool denied = isDenied(words, i) || (deniedBefore && isBareList(words));
            if (denied) continue;
            if (pain) return true;
            open = true;
            ++maybe;
            feeling |= i > 0 && isFeeling(words[i - 1]);
            feeling |= i > 1 && isFeeling(words[i - 2]) && words[i - 2] != "it";
        }
        deniedBefore = (here && !open) || (deniedBefore && words.empty());
    }
    return (maybe > 0 && (body || maybe > 1 || feeling)) || (cannot && moves && body) || restsFor(clauses);
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

/// A short line is one of its own: nobody broke it, it ended. A wrapped one goes on.
std::string withLinesApart(const std::string& text) {
    constexpr std::size_t kWrapped = 55;
    std::string out;
    std::size_t begin = 0;
    for (const char c : text) {
        if (c == '\n' && out.size() - begin < kWrapped && out.size() > begin && out.back() != ',') out += ';';
        out += c;
        if (c == '\n') begin = out.size();
    }
    return out;
}

/// As it was written, without the marks of withLinesApart().
std::string withoutMarks(std::string sentence) {
    for (auto at = sentence.find("; "); at != sentence.npos; at = sentence.find("; ", at + 1))
        sentence[at] = ',';
    while (!sentence.empty() && (sentence.back() == ';' || sentence.back() == ' ')) sentence.pop_back();
    return sentence;
}

} // namespace

std::string painIn(const std::string& text) {
    std::vector<std::string> found;
    for (const std::string& s : sentencesIn(withLinesApart(text)))
        if (speaksOfPain(s)) found.push_back(aroundPain(withoutMarks(s)));
    return inShort(found);
}

} // namespace jg
