// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace jg::test {

/// Opens the window on the library and edits by keys and plan changes for ever. Returns only on an error.
int storm(const char* library);

} // namespace jg::test
