// SPDX-License-Identifier: GPL-3.0-or-later
// Ctrl+C and SIGTERM as a stop token.
#pragma once

#include <stop_token>

namespace jg {

/// A token that is stopped by the first SIGINT or SIGTERM; the second ends the program at once. Call it first
/// in main(), before any thread begins: the signals are waited for in a thread of their own, so nothing is
/// done in a handler.
std::stop_token stopOnSignals();

} // namespace jg
