// SPDX-License-Identifier: GPL-3.0-or-later
// Charts of an athlete's season: a measure over time with its errors, and the sign of what became of a
// finding. The same in the window and on paper.
#pragma once

#include "review/compare/over_time.h"

#include <QPainter>

#include <optional>

namespace jg {

/// A measure between the ends of a time axis.
struct TrendPicture {
    MeasureLine line;
    Date from{}, to{};
    std::optional<RobustLine> robust = {}; ///< in days from the first point
};

/// Numbers with their error bars, the side that is wanted shaded, the season's line with its band.
void paintTrend(QPainter& p, const QRectF& chart, const TrendPicture& picture);

/// The sign of a fate, each with a shape of its own; colour only helps.
void paintFate(QPainter& p, Fate fate, QPointF at);

} // namespace jg
