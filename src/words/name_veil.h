// SPDX-License-Identifier: GPL-3.0-or-later
// Names put out of sight, for when a class looks on.
#pragma once

#include <map>
#include <set>
#include <string>
#include <string_view>
#include <vector>

namespace jg {

/// People's names and what stands instead of each. A value; any thread.
class NameVeil {
public:
    /// One person: every word of their names, and what they are called meanwhile.
    struct Person {
        std::vector<std::string> names; ///< as they are written; each may have several words
        std::string instead;
    };
    /// A word that belongs to two people becomes `anybody`; single letters and particles ("von", "de la") are
    /// nobody's.
    NameVeil(const std::vector<Person>& people, const std::string& anybody);

    /// The text with each word replaced that is a name: in any case of its letters, composed or decomposed,
    /// with an ending or an article, joined with others or with digits, within a longer word, or in another
    /// script. Names that follow each other become one. Mail addresses become "…@…". Rather too much is
    /// hidden than too little.
    std::string operator()(std::string_view text) const;

private:
    using Instead = std::map<std::string, std::string, std::less<>>;
    const std::string* at(std::string_view key) const;
    const std::string* withEnding(const std::string& key) const;
    const std::string* joinedOf(const std::string& key) const;
    const std::string* insteadOf(const std::string& word) const;
    std::string unspaced(std::string_view text) const;

    Instead instead_;                            ///< by a word's letters as plain small Latin
    Instead sounding_;                           ///< the same by how it may be spelled in another script
    Instead unspaced_;                           ///< names of scripts without spaces, as they are written
    std::set<std::string, std::less<>> foreign_; ///< keys of names that are not written in Latin letters
};

} // namespace jg
