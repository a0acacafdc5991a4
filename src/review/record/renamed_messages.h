// SPDX-License-Identifier: GPL-3.0-or-later
// Messages that older libraries keep under names they had then.
#pragma once

#include <string>

namespace jg {

/// The id by which the catalogue knows it now; most are what they were. Pure.
std::string currentId(std::string id);

} // namespace jg
