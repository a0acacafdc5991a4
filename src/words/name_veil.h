// Names put out of sight, for when a class looks on.
#pragma once

#include <map>
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
    /// A word that belongs to two people becomes `anybody`; single letters, and words in small letters
    /// ("von"), are nobody's.
    NameVeil(const std::vector<Person>& people, const std::string& anybody);

    /// The text with each whole word of a name replaced, in any case of its letters but all small ones, those
    /// that follow each other by one; mail addresses become "…@…". What stands in angle brackets with an
    /// equals sign (markup) is left as it is.
    std::string operator()(std::string_view text) const;

private:
    std::map<std::string, std::string, std::less<>> instead_; ///< by word, its letters small
};

} // namespace jg
