// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/record/message_json.h"

#include "base/document.h"
#include "review/record/json_fields.h"
#include "review/record/renamed_messages.h"

namespace jg {

using nlohmann::json;

namespace {

json valueAsJson(const MessageArg::Value& value) {
    if (const auto* text = std::get_if<std::string>(&value)) return *text;
    if (const auto* whole = std::get_if<std::int64_t>(&value)) return *whole;
    if (const auto* d = std::get_if<Decimal>(&value))
        return {{"number", d->value}, {"decimals", d->decimals}, {"trimmed", d->trimmed}};
    if (const auto* date = std::get_if<WrittenDate>(&value))
        return {{"date", isoDate(date->date)}, {"style", static_cast<int>(date->style)}};
    if (const auto* message = std::get_if<Message>(&value)) return {{"message", messageAsJson(*message)}};
    const auto& list = std::get<MessageList>(value);
    return {{"list", messagesAsJson(list.items)}, {"style", static_cast<int>(list.style)}};
}

MessageArg::Value argumentIn(const json& v) {
    if (v.is_string()) return v.get<std::string>();
    if (v.is_number_integer()) return v.get<std::int64_t>();
    if (v.contains("number")) return Decimal{v["number"], v.at("decimals"), v.value("trimmed", false)};
    if (v.contains("date"))
        return WrittenDate{mustDate(v, "date"), static_cast<DateStyle>(v.at("style").get<int>())};
    if (v.contains("message")) return messageIn(v["message"]);
    return MessageList{static_cast<ListStyle>(v.at("style").get<int>()), messagesIn(v.at("list"))};
}

} // namespace

json messageAsJson(const Message& message) {
    if (message.id.empty() && message.args.empty()) return "";
    if (message.id.empty() && message.args.size() == 1 && message.args[0].name.empty())
        if (const auto* text = std::get_if<std::string>(&message.args[0].value)) return *text;
    json args = json::array();
    for (const MessageArg& arg : message.args) args.push_back({arg.name, valueAsJson(arg.value)});
    return {{"id", message.id}, {"args", args}};
}

Message messageIn(const json& value) {
    if (value.is_string()) {
        const auto text = value.get<std::string>();
        return text.empty() ? Message{} : asIs(text);
    }
    Message message;
    message.id = currentId(value.at("id").get<std::string>());
    for (const json& arg : value.at("args")) {
        message.args.emplace_back(arg.at(0).get<std::string>(), std::string());
        message.args.back().value = argumentIn(arg.at(1));
    }
    return message;
}

std::string messageAsText(const Message& message) {
    const json value = messageAsJson(message);
    return value.is_string() ? value.get<std::string>() : value.dump();
}

Message messageFromText(const std::string& text) {
    if (text.empty()) return {};
    const json value = text.front() == '{' ? parseDocumentOrNone(text) : json();
    return value.is_object() && value.contains("id") ? messageIn(value) : asIs(text);
}

json messagesAsJson(const std::vector<Message>& messages) {
    json all = json::array();
    for (const Message& m : messages) all.push_back(messageAsJson(m));
    return all;
}

std::vector<Message> messagesIn(const json& values) {
    std::vector<Message> all;
    for (const json& v : values) all.push_back(messageIn(v));
    return all;
}

} // namespace jg
