// SPDX-License-Identifier: GPL-3.0-or-later
// What the measure bench says of a measure.
#pragma once

#include "ui/bench/path_tools.h"
#include "ui/kit/row_list.h"

namespace jg::ui {

/// The number as it stands in the list; a dash for one that can't be seen.
QString valueText(const MeasureValue& value);
/// What a measure without points waits for, said where its number will stand.
QString waitsFor(const MeasureDefinition& measure, const DeliveryMarks& delivery);
/// A measure as a row: its name, what is asked or was seen or is waited for, number, error and verdict.
ListRow listRowOf(const MeasureDefinition& measure, const MeasureRow& row, const DeliveryMarks& delivery);
/// The heading over measures taken beside the approach's.
QString groupName(std::string_view id);
/// What to do once every point on this film is placed.
QString whatNext(const ReviewSession& session);
/// All there is to say of a measured row: warnings, pitches, judgement, paths, goal.
QString noteOn(const ReviewSession& session, const PathTools& paths, const MeasureRow& row);

} // namespace jg::ui
