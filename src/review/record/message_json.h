// SPDX-License-Identifier: GPL-3.0-or-later
// Messages in documents: what is kept is the message, never its words in one language.
#pragma once

#include "base/message.h"

#include <nlohmann/json.hpp>

namespace jg {

/// {"id": ..., "args": [...]}, or a string for what a person wrote.
nlohmann::json messageAsJson(const Message& message);
/// Reads it; a string is said as it is (documents of older versions hold sentences). Throws on anything else.
Message messageIn(const nlohmann::json& value);

/// A message as a text column holds it: plain for what a person wrote, else JSON; and back.
std::string messageAsText(const Message& message);
Message messageFromText(const std::string& text);

nlohmann::json messagesAsJson(const std::vector<Message>& messages);
std::vector<Message> messagesIn(const nlohmann::json& values);

} // namespace jg
