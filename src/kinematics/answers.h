// SPDX-License-Identifier: GPL-3.0-or-later
// The answers of a measure that is seen.
#pragma once

#include "base/message.h"

#include <string>
#include <vector>

namespace jg {

/// "a, b or c": answers are the playbook's own words. Pure.
Message eitherOf(const std::vector<std::string>& answers);

/// Whether an answer is among others. Pure.
bool isAmong(const std::vector<std::string>& answers, const std::string& answer);

} // namespace jg
