// SPDX-License-Identifier: GPL-3.0-or-later
// What is said to a person, before it is put into words: an id and typed arguments. src/words turns it into
// text.
#pragma once

#include "base/date.h"

#include <cstdint>
#include <string>
#include <string_view>
#include <type_traits>
#include <utility>
#include <variant>
#include <vector>

namespace jg {

struct MessageArg;

/// A sentence or a part of one. Value type; equal when id and arguments are. An empty id with one argument is
/// that argument by itself: a name, a number, a list. An id that begins with "=" is a sentence of the
/// playbook.
struct Message {
    std::string id;
    std::vector<MessageArg> args;

    Message() = default;
    explicit Message(std::string id_);
    Message(std::string id_, std::vector<MessageArg> args_);
    bool empty() const;
    bool operator==(const Message& other) const;
};

/// A number that is written by the reader's language with so many decimals.
struct Decimal {
    double value = 0;
    int decimals = 0;
    bool trimmed = false; ///< `decimals` are significant digits then, without zeros behind them: 0.85, 120
    bool operator==(const Decimal&) const = default;
};

enum class DateStyle {
    Day,          ///< 25 November
    Year,         ///< 25 November 2026
    Weekday,      ///< Wednesday
    WeekdayShort, ///< Wed
};

struct WrittenDate {
    Date date{};
    DateStyle style = DateStyle::Day;
    bool operator==(const WrittenDate&) const = default;
};

enum class ListStyle {
    And,       ///< a, b and c
    Or,        ///< a, b or c
    Commas,    ///< a, b, c
    Dots,      ///< a · b · c
    Sentences, ///< one after the other
};

struct MessageList {
    ListStyle style = ListStyle::Sentences;
    std::vector<Message> items;
    bool operator==(const MessageList&) const = default;
};

/// One argument by its name in the catalogue. Text is what people wrote or what names a thing (a file, an
/// address); it is never translated. Whole numbers choose plurals.
struct MessageArg {
    using Value = std::variant<std::string, std::int64_t, Decimal, WrittenDate, Message, MessageList>;
    std::string name;
    Value value;

    MessageArg(std::string name_, std::string text)
        : name(std::move(name_))
        , value(std::move(text)) {}
    MessageArg(std::string name_, std::string_view text)
        : MessageArg(std::move(name_), std::string(text)) {}
    MessageArg(std::string name_, const char* text)
        : MessageArg(std::move(name_), std::string(text)) {}
    template <typename Int,
              typename = std::enable_if_t<std::is_integral_v<Int> && !std::is_same_v<Int, bool> &&
                                          !std::is_same_v<Int, char>>>
    MessageArg(std::string name_, Int number)
        : name(std::move(name_))
        , value(static_cast<std::int64_t>(number)) {}
    MessageArg(std::string name_, Decimal number)
        : name(std::move(name_))
        , value(number) {}
    MessageArg(std::string name_, Date date)
        : name(std::move(name_))
        , value(WrittenDate{date, DateStyle::Day}) {}
    MessageArg(std::string name_, WrittenDate date)
        : name(std::move(name_))
        , value(date) {}
    MessageArg(std::string name_, Message message)
        : name(std::move(name_))
        , value(std::move(message)) {}
    MessageArg(std::string name_, MessageList list)
        : name(std::move(name_))
        , value(std::move(list)) {}
    MessageArg(std::string, double) = delete; ///< say the decimals: Decimal
    MessageArg(std::string, bool) = delete;
    bool operator==(const MessageArg&) const = default;
};

inline Message msg(std::string id, std::vector<MessageArg> args = {}) {
    return Message(std::move(id), std::move(args));
}

/// What a person wrote, or the name of a thing: said as it is.
Message asIs(std::string text);
Message asIs(Decimal number);
/// A sentence of the playbook, whose {gaps} are filled by name.
Message filled(std::string sentence, std::vector<MessageArg> gaps);
/// A sentence of the playbook without the part that holds a gap: its parentheses, else the sentence it stands
/// in and all after it. Unchanged when there is no such gap. Pure.
std::string without(const std::string& sentence, std::string_view gap);
Message number(double value, int decimals = 0);
/// Four significant digits and no zeros behind them.
Decimal trimmed(double value);
Message day(Date date, DateStyle style = DateStyle::Day);
/// Several as one; empty ones are left out, one alone stands alone.
Message joined(ListStyle style, std::vector<Message> items);

} // namespace jg
