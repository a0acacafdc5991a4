// SPDX-License-Identifier: GPL-3.0-or-later
#include "library/outbox.h"

#include <algorithm>
#include <array>

namespace jg {

namespace {

struct Named {
    MailState state;
    std::string_view id;
};

constexpr std::array kStates = {Named{MailState::Ready, "ready"},
                                Named{MailState::HandingOver, "handing-over"}, Named{MailState::Sent, "sent"},
                                Named{MailState::Refused, "refused"}, Named{MailState::Unsure, "unsure"}};

/// Own choice: a film over a slow line, and the ten minutes a server may take after the last byte.
constexpr std::int64_t kLongestHandOverS = 30 * 60;

const Named& rowOf(MailState state) {
    return kStates.at(static_cast<std::size_t>(state));
}

} // namespace

std::string_view idOf(MailState state) {
    return rowOf(state).id;
}

Message nameOf(MailState state) {
    return msg("mail-state." + std::string(idOf(state)));
}

std::optional<MailState> mailStateFromId(std::string_view id) {
    if (id == "waiting") return MailState::Ready;
    if (id == "failed") return MailState::Refused;
    const auto it = std::find_if(kStates.begin(), kStates.end(), [&](const Named& n) { return n.id == id; });
    if (it == kStates.end()) return std::nullopt;
    return it->state;
}

MailState stateAt(const OutboxItem& item, std::int64_t nowUnix) {
    return item.state == MailState::HandingOver && nowUnix - item.at > kLongestHandOverS ? MailState::Unsure
                                                                                         : item.state;
}

} // namespace jg
