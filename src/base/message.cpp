// SPDX-License-Identifier: GPL-3.0-or-later
#include "base/message.h"

#include <algorithm>

namespace jg {

namespace {

Message bare(MessageArg::Value value) {
    Message m;
    m.args.emplace_back("", std::string());
    m.args.back().value = std::move(value);
    return m;
}

} // namespace

Message::Message(std::string id_)
    : id(std::move(id_)) {}

Message::Message(std::string id_, std::vector<MessageArg> args_)
    : id(std::move(id_))
    , args(std::move(args_)) {}

bool Message::empty() const {
    if (!id.empty()) return false;
    return std::all_of(args.begin(), args.end(), [](const MessageArg& arg) {
        if (const auto* text = std::get_if<std::string>(&arg.value)) return text->empty();
        if (const auto* list = std::get_if<MessageList>(&arg.value)) return list->items.empty();
        if (const auto* message = std::get_if<Message>(&arg.value)) return message->empty();
        return false;
    });
}

bool Message::operator==(const Message& other) const {
    return id == other.id && args == other.args;
}

Message asIs(std::string text) {
    return bare(std::move(text));
}

Message asIs(Decimal number) {
    return bare(number);
}

std::string without(const std::string& sentence, std::string_view gap) {
    const auto at = sentence.find("{" + std::string(gap) + "}");
    if (at == sentence.npos) return sentence;
    const auto open = sentence.rfind(" (", at), close = sentence.find(')', at);
    if (open != sentence.npos && close != sentence.npos && sentence.find(')', open) == close)
        return sentence.substr(0, open) + sentence.substr(close + 1);
    const auto end = sentence.rfind(". ", at);
    return end == sentence.npos ? sentence : sentence.substr(0, end + 1);
}

Message filled(std::string sentence, std::vector<MessageArg> gaps) {
    return Message("=" + sentence, std::move(gaps));
}

Message number(double value, int decimals) {
    return bare(Decimal{value, decimals});
}

Decimal trimmed(double value) {
    return Decimal{value, 4, true};
}

Message day(Date date, DateStyle style) {
    return bare(WrittenDate{date, style});
}

Message joined(ListStyle style, std::vector<Message> items) {
    std::erase_if(items, [](const Message& m) { return m.empty(); });
    if (items.empty()) return {};
    if (items.size() == 1) return std::move(items.front());
    return bare(MessageList{style, std::move(items)});
}

} // namespace jg
