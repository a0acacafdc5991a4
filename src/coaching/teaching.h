// SPDX-License-Identifier: GPL-3.0-or-later
// The order in which a school teaches.
#pragma once

#include "base/message.h"
#include "coaching/playbook.h"

#include <string>
#include <string_view>
#include <vector>

namespace jg {

/// Its id in an approach's file; empty for the usual one.
std::string_view idOf(Teaching teaching);
/// Throws unfit() for an id that is none; an empty one is the usual order.
Teaching teachingFromId(std::string_view id);

/// "from the feet up".
Message nameOf(Teaching teaching);

/// All, the usual one first; for choices.
const std::vector<Teaching>& allTeachings();

/// `findings`, in the order of their weight, in the order in which they are taught. What is taught alike
/// keeps its place. Pure. Source: common practice, no source.
std::vector<std::string> inTeachingOrder(const Playbook& playbook, Teaching teaching,
                                         std::vector<std::string> findings);

} // namespace jg
