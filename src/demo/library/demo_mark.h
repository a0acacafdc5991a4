// SPDX-License-Identifier: GPL-3.0-or-later
// The mark of the demo's house.
#pragma once

#include <string>

namespace jg {

/// A shed over two rails, as PNG. Pure.
std::string demoMark();

} // namespace jg
