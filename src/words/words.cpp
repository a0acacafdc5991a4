// SPDX-License-Identifier: GPL-3.0-or-later
#include "words/words.h"

#include "base/mutex.h"
#include "base/number.h"
#include "words/icu_text.h"

#include <optional>
#include <set>

#include <unicode/dtptngen.h>
#include <unicode/listformatter.h>
#include <unicode/messagepattern.h>
#include <unicode/msgfmt.h>
#include <unicode/numberformatter.h>
#include <unicode/smpdtfmt.h>
#include <unicode/timezone.h>

namespace jg {

namespace {

using icu::UnicodeString;

/// A pattern made ready, with the arguments whose number decides its words.
struct Prepared {
    std::unique_ptr<icu::MessageFormat> format;
    std::set<std::string, std::less<>> counted;
};

std::set<std::string, std::less<>> countedIn(const icu::MessagePattern& pattern) {
    std::set<std::string, std::less<>> names;
    for (int32_t i = 0; i < pattern.countParts(); ++i) {
        const auto& part = pattern.getPart(i);
        if (part.getType() == UMSGPAT_PART_TYPE_ARG_START && part.getArgType() != UMSGPAT_ARG_TYPE_NONE)
            names.insert(narrow(pattern.getSubstring(pattern.getPart(i + 1))));
    }
    return names;
}

const char* skeletonOf(DateStyle style) {
    switch (style) {
    case DateStyle::Day:
        return "dMMMM";
    case DateStyle::Year:
        return "dMMMMyyyy";
    case DateStyle::Weekday:
        return "EEEE";
    case DateStyle::WeekdayShort:
        break;
    }
    return "EEE";
}

} // namespace

struct Words::Inner {
    std::string tag;
    Catalogue catalogue;
    Catalogue sentences;
    std::optional<Words> missing;
    icu::Locale locale;
    std::map<std::string, Prepared, std::less<>> prepared JG_GUARDED_BY(formatting);
    Mutex formatting; // ICU's formatters are not promised to be safe for use from several threads
    const NameVeil* names JG_GUARDED_BY(formatting) = nullptr; ///< out of sight in what is being said

    std::string text(const Message& message) JG_NEEDS(formatting);

private:
    const std::string& inThisLanguage(const std::string& sentence) const;
    const Prepared* prepare(const std::string& id, const std::string& pattern) JG_NEEDS(formatting);
    std::string bare(const MessageArg::Value& value) JG_NEEDS(formatting);
    std::string filledSentence(const Message& message) JG_NEEDS(formatting);
    const icu::number::LocalizedNumberFormatter& numbers(int decimals, bool trimmed);
    icu::SimpleDateFormat* dates(DateStyle style);
    std::string written(Decimal number);
    std::string written(WrittenDate date);
    std::string written(const MessageList& list) JG_NEEDS(formatting);

    // Making a formatter takes much longer than using it.
    std::map<std::pair<int, bool>, icu::number::LocalizedNumberFormatter> numbers_;
    std::map<DateStyle, std::unique_ptr<icu::SimpleDateFormat>> dates_;
};

const Prepared* Words::Inner::prepare(const std::string& id, const std::string& pattern) {
    const auto known = prepared.find(id);
    if (known != prepared.end()) return known->second.format ? &known->second : nullptr;
    UErrorCode error = U_ZERO_ERROR;
    UParseError where{};
    Prepared p;
    const icu::MessagePattern parts(wide(pattern), &where, error);
    p.format = std::make_unique<icu::MessageFormat>(wide(pattern), locale, where, error);
    if (U_FAILURE(error))
        p.format.reset();
    else
        p.counted = countedIn(parts);
    const Prepared& kept = prepared[id] = std::move(p);
    return kept.format ? &kept : nullptr;
}

const icu::number::LocalizedNumberFormatter& Words::Inner::numbers(int decimals, bool trimmed) {
    const auto known = numbers_.find({decimals, trimmed});
    if (known != numbers_.end()) return known->second;
    using icu::number::Precision;
    UErrorCode error = U_ZERO_ERROR;
    icu::DecimalFormatSymbols symbols(locale, error);
    symbols.setSymbol(icu::DecimalFormatSymbols::kMinusSignSymbol,
                      UnicodeString(static_cast<UChar32>(0x2212)));
    // What rounds to nothing carries no sign.
    return numbers_[{decimals, trimmed}] =
               icu::number::NumberFormatter::withLocale(locale)
                   .symbols(symbols)
                   .grouping(UNUM_GROUPING_OFF)
                   .sign(UNUM_SIGN_NEGATIVE)
                   .roundingMode(UNUM_ROUND_HALFUP)
                   .precision(trimmed ? Precision(Precision::maxSignificantDigits(decimals))
                                      : Precision(Precision::fixedFraction(decimals)));
}

std::string Words::Inner::written(Decimal number) {
    UErrorCode error = U_ZERO_ERROR;
    const auto text =
        numbers(number.decimals, number.trimmed).formatDouble(number.value, error).toString(error);
    return U_FAILURE(error) ? fixed(number.value, number.decimals) : narrow(text);
}

icu::SimpleDateFormat* Words::Inner::dates(DateStyle style) {
    auto& kept = dates_[style];
    if (kept) return kept.get();
    UErrorCode error = U_ZERO_ERROR;
    std::unique_ptr<icu::DateTimePatternGenerator> patterns(
        icu::DateTimePatternGenerator::createInstance(locale, error));
    if (U_FAILURE(error)) return nullptr;
    kept = std::make_unique<icu::SimpleDateFormat>(patterns->getBestPattern(wide(skeletonOf(style)), error),
                                                   locale, error);
    if (U_FAILURE(error)) kept.reset();
    if (kept) kept->adoptTimeZone(icu::TimeZone::createTimeZone("UTC"));
    return kept.get();
}

std::string Words::Inner::written(WrittenDate written) {
    icu::SimpleDateFormat* format = dates(written.style);
    if (!format) return isoDate(written.date);
    UnicodeString text;
    const auto days = std::chrono::sys_days{written.date}.time_since_epoch().count();
    return narrow(format->format(static_cast<UDate>(days) * 86'400'000.0, text));
}

std::string Words::Inner::written(const MessageList& list) {
    std::vector<std::string> items;
    for (const Message& m : list.items) items.push_back(text(m));
    if (const char* between = list.style == ListStyle::Dots        ? " \u00b7 "
                              : list.style == ListStyle::Sentences ? " "
                              : list.style == ListStyle::Commas    ? ", "
                                                                   : nullptr) {
        std::string all;
        for (const std::string& item : items) all += (all.empty() ? "" : between) + item;
        return all;
    }
    UErrorCode error = U_ZERO_ERROR;
    const auto type = list.style == ListStyle::And ? ULISTFMT_TYPE_AND : ULISTFMT_TYPE_OR;
    std::unique_ptr<icu::ListFormatter> format(
        icu::ListFormatter::createInstance(locale, type, ULISTFMT_WIDTH_WIDE, error));
    std::vector<UnicodeString> wides;
    for (const std::string& item : items) wides.push_back(wide(item));
    UnicodeString all;
    if (U_SUCCESS(error)) format->format(wides.data(), static_cast<int32_t>(wides.size()), all, error);
    return narrow(all);
}

/// A sentence or a name of the playbook; what it does not know stays as it is.
const std::string& Words::Inner::inThisLanguage(const std::string& sentence) const {
    const auto known = sentences.find(sentence);
    return known == sentences.end() ? sentence : known->second;
}

std::string Words::Inner::bare(const MessageArg::Value& value) {
    if (const auto* text_ = std::get_if<std::string>(&value)) {
        const auto known = sentences.find(*text_);
        if (known != sentences.end()) return known->second; // the program's own words name nobody
        return names ? (*names)(*text_) : *text_;
    }
    if (const auto* whole = std::get_if<std::int64_t>(&value))
        return written(Decimal{static_cast<double>(*whole), 0});
    if (const auto* decimal = std::get_if<Decimal>(&value)) return written(*decimal);
    if (const auto* date = std::get_if<WrittenDate>(&value)) return written(*date);
    if (const auto* message = std::get_if<Message>(&value)) return text(*message);
    return written(std::get<MessageList>(value));
}

/// The playbook's sentences are no patterns: only their gaps are looked for.
std::string Words::Inner::filledSentence(const Message& message) {
    std::string sentence = inThisLanguage(message.id.substr(1));
    for (const MessageArg& arg : message.args) {
        const std::string gap = "{" + arg.name + "}", with = bare(arg.value);
        for (auto at = sentence.find(gap); at != std::string::npos; at = sentence.find(gap, at + with.size()))
            sentence.replace(at, gap.size(), with);
    }
    return sentence;
}

std::string Words::Inner::text(const Message& message) {
    if (message.id.empty()) {
        std::string all;
        for (const MessageArg& arg : message.args) all += bare(arg.value);
        return all;
    }
    if (message.id.front() == '=') return filledSentence(message);
    const auto found = catalogue.find(message.id);
    const Prepared* p = found == catalogue.end() ? nullptr : prepare(message.id, found->second);
    if (!p && missing)
        return names ? missing->hiding(std::shared_ptr<const NameVeil>(names, [](auto*) {}))(message)
                     : (*missing)(message);
    if (!p) return "\u2039" + message.id + "\u203a";
    std::vector<UnicodeString> names;
    std::vector<icu::Formattable> values;
    for (const MessageArg& arg : message.args) {
        names.push_back(wide(arg.name));
        const auto* whole = std::get_if<std::int64_t>(&arg.value);
        // Only what chooses a plural goes in as a number: frames and pixels are not grouped in thousands.
        if (whole && p->counted.contains(arg.name))
            values.emplace_back(*whole);
        else
            values.emplace_back(wide(bare(arg.value)));
    }
    UErrorCode error = U_ZERO_ERROR;
    UnicodeString out;
    p->format->format(names.data(), values.data(), static_cast<int32_t>(names.size()), out, error);
    return U_FAILURE(error) ? "\u2039" + message.id + "\u203a" : narrow(out);
}

Words::Words(std::string tag, Catalogue catalogue, Catalogue sentences, const Words* missing)
    : inner_(std::make_shared<Inner>()) {
    UErrorCode error = U_ZERO_ERROR;
    // Families here write a decimal point in Spanish, too, as in Mexico and the United States.
    inner_->locale = icu::Locale::forLanguageTag(tag == "es" ? "es-MX" : tag, error);
    inner_->tag = std::move(tag);
    inner_->catalogue = std::move(catalogue);
    inner_->sentences = std::move(sentences);
    if (missing) inner_->missing = *missing;
}

std::string Words::operator()(const Message& message) const {
    const Holding lock(inner_->formatting);
    inner_->names = names_.get();
    return inner_->text(message);
}

Words Words::hiding(std::shared_ptr<const NameVeil> names) const {
    Words hidden = *this;
    hidden.names_ = std::move(names);
    return hidden;
}

const std::string& Words::tag() const {
    return inner_->tag;
}

const Catalogue& Words::catalogue() const {
    return inner_->catalogue;
}

const Catalogue& Words::sentences() const {
    return inner_->sentences;
}

std::vector<std::string> Words::problems() const {
    std::vector<std::string> wrong;
    for (const auto& [id, pattern] : inner_->catalogue) {
        UErrorCode error = U_ZERO_ERROR;
        UParseError where{};
        const icu::MessageFormat format(wide(pattern), inner_->locale, where, error);
        if (U_FAILURE(error))
            wrong.push_back(id + ": " + u_errorName(error) + " at " + std::to_string(where.offset));
    }
    return wrong;
}

std::vector<std::string> argumentsOf(std::string_view pattern) {
    UErrorCode error = U_ZERO_ERROR;
    UParseError where{};
    const icu::MessagePattern parts(wide(pattern), &where, error);
    std::set<std::string> names;
    if (U_SUCCESS(error))
        for (int32_t i = 0; i < parts.countParts(); ++i)
            if (parts.getPart(i).getType() == UMSGPAT_PART_TYPE_ARG_NAME)
                names.insert(narrow(parts.getSubstring(parts.getPart(i))));
    return {names.begin(), names.end()};
}

} // namespace jg
