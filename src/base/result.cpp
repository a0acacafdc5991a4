// SPDX-License-Identifier: GPL-3.0-or-later
#include "base/result.h"

#include "base/fault_log.h"

namespace jg {

namespace {

/// What nobody did wrong: it is noted where it arises, for an edge may drop it. Empty for what is usual.
std::string_view faultOf(ErrorCode code) {
    switch (code) {
    case ErrorCode::Unreadable:
        return "Unreadable";
    case ErrorCode::Damaged:
        return "Damaged";
    case ErrorCode::DiskFull:
        return "DiskFull";
    case ErrorCode::WriteFailed:
        return "WriteFailed";
    case ErrorCode::Network:
        return "Network";
    case ErrorCode::Login:
        return "Login";
    case ErrorCode::Unsure:
        return "Unsure";
    case ErrorCode::Internal:
        return "Internal";
    case ErrorCode::BadInput:
    case ErrorCode::NotFound:
    case ErrorCode::Refused:
    case ErrorCode::Stale:
    case ErrorCode::NeedsYes:
    case ErrorCode::Cancelled:
        break;
    }
    return {};
}

/// The ids of a message and of those in it. What a person wrote, the playbook's sentences too, is left out.
void addIds(const Message& message, std::string& ids) {
    if (!message.id.empty() && message.id.front() != '=') ids += (ids.empty() ? "" : ", ") + message.id;
    for (const MessageArg& arg : message.args) {
        if (const auto* one = std::get_if<Message>(&arg.value)) addIds(*one, ids);
        if (const auto* list = std::get_if<MessageList>(&arg.value))
            for (const Message& item : list->items) addIds(item, ids);
    }
}

} // namespace

Error fail(ErrorCode code, Message text) {
    if (const std::string_view kind = faultOf(code); !kind.empty()) {
        std::string ids;
        addIds(text, ids);
        noteFault(ids.substr(0, ids.find('.')), std::string(kind) + ": " + ids);
    }
    return Error{code, std::move(text)};
}

} // namespace jg
