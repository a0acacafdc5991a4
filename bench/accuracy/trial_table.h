// SPDX-License-Identifier: GPL-3.0-or-later
// data/playbook/trials.json: how each measure's interval does on both makers' bodies.
#pragma once

#include "coaching/playbook.h"

namespace jg {

/// Tries every measure with points under each camera the table knows, with both kinds of coach and both
/// makers' bodies, on deliveries that the tables of docs/accuracy.md do not use. What is kept of the four is
/// the worst share; the lean is of all.
Trials tryMeasures(const Playbook& playbook, int count);

} // namespace jg
