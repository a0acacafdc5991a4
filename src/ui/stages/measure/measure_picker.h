// SPDX-License-Identifier: GPL-3.0-or-later
// Which measures the walk takes beside the approach's own.
#pragma once

#include "coaching/playbook.h"
#include "review/record/review.h"

#include <functional>

class QWidget;

namespace jg::ui {

/// Shows the whole catalogue by group, with what this view can see; hands on the measures ticked beside the
/// approach's. `makeOwn` is called when the coach wants a measure of their own. Esc changes nothing.
void pickMeasures(QWidget* parent, const Playbook& playbook, const Review& review, View view,
                  const std::function<void(std::vector<std::string>)>& then,
                  const std::function<void()>& makeOwn);

} // namespace jg::ui
