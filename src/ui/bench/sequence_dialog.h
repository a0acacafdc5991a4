// SPDX-License-Identifier: GPL-3.0-or-later
// The order of events as a chart: when each happened, how sure that is, and what can't be told.
#pragma once

#include "review/assess/sequence.h"

class QWidget;

namespace jg::ui {

/// Shows the chart over `parent`; closes with Esc.
void showSequence(QWidget* parent, const std::vector<SequenceEvent>& events, double captureFps);

} // namespace jg::ui
