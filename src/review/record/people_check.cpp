// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/record/people_check.h"

#include "base/letters.h"

#include <algorithm>
#include <cctype>
#include <charconv>
#include <vector>

namespace jg {

namespace {

std::optional<int> wholeNumber(std::string_view text) {
    int value = 0;
    const auto read = std::from_chars(text.data(), text.data() + text.size(), value);
    if (text.empty() || read.ec != std::errc() || read.ptr != text.data() + text.size()) return std::nullopt;
    return value;
}

/// A month by its name or its first three letters.
std::optional<int> monthNamed(std::string_view word) {
    const std::string name = lowered(word);
    for (int month = 1; month <= 12; ++month) {
        const std::string whole = lowered(monthName(static_cast<unsigned>(month)));
        if (name == whole || (name.size() == 3 && whole.starts_with(name))) return month;
    }
    return std::nullopt;
}

std::vector<std::string> parts(std::string_view words, std::string_view separators) {
    std::vector<std::string> all;
    std::string part;
    for (const char c : words)
        if (separators.find(c) == std::string_view::npos)
            part += c;
        else if (!part.empty())
            all.push_back(std::exchange(part, ""));
    if (!part.empty()) all.push_back(part);
    return all;
}

std::optional<Date> dateOf(std::optional<int> year, std::optional<int> month, std::optional<int> day) {
    if (!year || !month || !day || *year < 1900 || *month < 1 || *day < 1) return std::nullopt;
    const Date date{std::chrono::year{*year}, std::chrono::month{static_cast<unsigned>(*month)},
                    std::chrono::day{static_cast<unsigned>(*day)}};
    return date.ok() ? std::optional(date) : std::nullopt;
}

} // namespace

std::optional<Date> dateFromWords(std::string_view words) {
    if (const auto dotted = parts(words, ". "); dotted.size() == 3 && wholeNumber(dotted[0]) &&
                                                words.find('.') != std::string_view::npos &&
                                                wholeNumber(dotted[1]))
        return dateOf(wholeNumber(dotted[2]), wholeNumber(dotted[1]), wholeNumber(dotted[0]));
    const auto named = parts(words, " ,.");
    if (named.size() == 3) {
        if (const auto month = monthNamed(named[1]))
            return dateOf(wholeNumber(named[2]), month, wholeNumber(named[0]));
        if (const auto month = monthNamed(named[0]))
            return dateOf(wholeNumber(named[2]), month, wholeNumber(named[1]));
    }
    const auto iso = parts(words, " ");
    return iso.size() == 1 ? parseIsoDate(iso[0]) : std::nullopt;
}

namespace {

bool isAlnum(char c) {
    return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9');
}

/// Words with a dot between them.
bool isDotted(std::string_view text, std::string_view besides, std::size_t longestWord) {
    std::size_t length = 0;
    for (const char c : text) {
        if (c == '.' && length == 0) return false;
        length = c == '.' ? 0 : length + 1;
        if (length > longestWord || (c != '.' && !isAlnum(c) && besides.find(c) == besides.npos))
            return false;
    }
    return length > 0;
}

} // namespace

bool isOneAddress(std::string_view address) {
    constexpr std::size_t kLongest = 254, kLongestName = 64, kLongestLabel = 63;
    const auto at = address.find('@');
    if (at == std::string_view::npos || address.size() > kLongest) return false;
    const std::string_view name = address.substr(0, at), host = address.substr(at + 1);
    const bool hyphens = host.starts_with('-') || host.ends_with('-') || host.find("-.") != host.npos ||
                         host.find(".-") != host.npos;
    return name.size() <= kLongestName && isDotted(name, "!#$%&'*+-/=?^_`{|}~", kLongestName) &&
           isDotted(host, "-", kLongestLabel) && host.find('.') != host.npos && !hyphens;
}

bool guardianIsThemselves(const Athlete& a) {
    return !a.email.empty() && lowered(a.email) == lowered(a.guardianEmail);
}

Status checkAthlete(const Athlete& a, Date today) {
    const auto wrong = [](Message text) { return fail(ErrorCode::BadInput, std::move(text)); };
    if (a.firstName.empty()) return wrong(msg("people-check.a-first-name-is-needed"));
    if (!a.born.ok()) return wrong(msg("people-check.the-date-of-birth-is-needed"));
    const int age = a.ageOn(today);
    if (age < 5 || age > 99) return wrong(msg("people-check.birth", {{"age", age}}));
    if (!a.email.empty() && !isOneAddress(a.email))
        return wrong(msg("people-check.email-is-not-one-mail-address", {{"email", a.email}}));
    if (!a.guardianEmail.empty() && !isOneAddress(a.guardianEmail))
        return wrong(
            msg("people-check.guardian-email-is-not-one-mail", {{"guardianEmail", a.guardianEmail}}));
    if (a.isMinorOn(today) && guardianIsThemselves(a))
        return wrong(msg("people-check.the-guardians-address-is-the-athletes"));
    if (a.heightM && (*a.heightM < 0.8 || *a.heightM > 2.4)) return wrong(msg("people-check.height"));
    return Done{};
}

Result<PitchCount> pitchCountFromWords(std::string_view day, std::string_view pitches, std::string_view felt,
                                       Date today) {
    const auto on = dateFromWords(day);
    if (!on || *on > today)
        return fail(ErrorCode::BadInput, msg("people-check.outing-day", {{"day", std::string(day)}}));
    const auto count = wholeNumber(pitches);
    if (!count || *count < 1 || *count > kMostPitches)
        return fail(ErrorCode::BadInput, msg("people-check.pitches", {{"most", kMostPitches}}));
    return PitchCount{*on, *count, std::string(felt)};
}

void addOuting(Athlete& athlete, PitchCount outing) {
    const auto after = std::upper_bound(athlete.outings.begin(), athlete.outings.end(), outing,
                                        [](const PitchCount& a, const PitchCount& b) { return a.on < b.on; });
    athlete.outings.insert(after, std::move(outing));
}

} // namespace jg
