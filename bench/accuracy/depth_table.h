// SPDX-License-Identifier: GPL-3.0-or-later
// data/playbook/depths.json, made from wide bodies.
#pragma once

namespace jg {

/// Prints the table as JSON.
void writeDepths();

} // namespace jg
