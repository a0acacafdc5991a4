#include "library/outbox.h"

#include <algorithm>
#include <array>

namespace jg {

namespace {

struct Named {
    MailState state;
    std::string_view id, name;
};

constexpr std::array kStates = {Named{MailState::Ready, "ready", "ready"},
                                Named{MailState::HandingOver, "handing-over", "being handed over"},
                                Named{MailState::Sent, "sent", "sent"},
                                Named{MailState::Refused, "refused", "not sent"},
                                Named{MailState::Unsure, "unsure", "may have been sent"}};

/// Own choice: a film over a slow line, and the ten minutes a server may take after the last byte.
constexpr std::int64_t kLongestHandOverS = 30 * 60;

const Named& rowOf(MailState state) {
    return kStates.at(static_cast<std::size_t>(state));
}

} // namespace

std::string_view idOf(MailState state) {
    return rowOf(state).id;
}

std::string_view nameOf(MailState state) {
    return rowOf(state).name;
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
