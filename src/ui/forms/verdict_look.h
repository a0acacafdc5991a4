// SPDX-License-Identifier: GPL-3.0-or-later
// What a verdict looks like, from what was judged.
#pragma once

#include "review/assess/assess.h"
#include "ui/kit/pips.h"

#include <optional>

namespace jg::ui {

VerdictLook lookOf(const Judgement& judgement);
VerdictLook lookOf(const std::optional<Grade>& grade, bool protectsArm);

} // namespace jg::ui
