// SPDX-License-Identifier: GPL-3.0-or-later
// A password that is in memory must not come to the disk when a program crashes.
#pragma once

namespace jg {

/// From now on this program leaves no core dump, neither as a file nor through a pipe to another program: a
/// limit of one byte ends both (core(5), and Linux' own fs/coredump.c, from memory). Call it first in main().
void leaveNoCore();

} // namespace jg
