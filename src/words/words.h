// SPDX-License-Identifier: GPL-3.0-or-later
// The one room where messages become text: a catalogue by language, and the language's numbers, dates, lists.
#pragma once

#include "base/message.h"
#include "words/name_veil.h"

#include <map>
#include <memory>
#include <string>
#include <string_view>
#include <vector>

namespace jg {

/// Sentences by id, as ICU message patterns with named arguments.
using Catalogue = std::map<std::string, std::string, std::less<>>;

/// A language as a value: copies share the catalogue. Two may be used side by side (the window in one, a
/// letter in another); nothing of the process's locale is looked at. Safe to use from several threads.
class Words {
public:
    /// `tag` as in BCP 47: it decides plurals, numbers, dates and lists. Patterns that can't be read are kept
    /// and come out as their id; problems() names them.
    /// `sentences` are those of the playbook in this language, by their English text; `missing` says what
    /// this one has no words for.
    Words(std::string tag, Catalogue catalogue, Catalogue sentences = {}, const Words* missing = nullptr);

    /// Any message. An id the catalogue does not know comes out between angle quotes: it can't be missed.
    std::string operator()(const Message& message) const;

    const std::string& tag() const;
    const Catalogue& catalogue() const;
    /// The playbook's sentences, by their English text.
    const Catalogue& sentences() const;
    /// The same language with names out of sight; null = as they are.
    Words hiding(std::shared_ptr<const NameVeil> names) const;
    /// Ids whose pattern can't be read, each with the reason.
    std::vector<std::string> problems() const;

private:
    struct Inner;
    std::shared_ptr<Inner> inner_;
    std::shared_ptr<const NameVeil> names_; ///< what is put out of sight; may be null
};

/// The catalogue that ships: complete. Spelling, dates and lists as in Britain.
const Words& english();

/// What leaves the house in Spanish: letters, films, captions, mails. The rest is said in English.
const Words& spanish();

/// The language of a BCP 47 tag; English when it is not known.
const Words& wordsOf(std::string_view tag);

/// The made-up language of the tests: English with every letter accented and a third longer, with Greek dates
/// and a decimal comma.
const Words& accented();
/// A text as the made-up language has it; what stands in angle brackets (markup) is left as it is.
std::string accent(std::string_view text);

/// The arguments that a pattern asks for, sorted. Throws nothing; none for one that can't be read.
std::vector<std::string> argumentsOf(std::string_view pattern);

} // namespace jg
