// SPDX-License-Identifier: GPL-3.0-or-later
// The paper a letter is printed on.
#pragma once

#include <QPageSize>
#include <QSizeF>

#include <cmath>

namespace jg {

enum class Paper { A4, Letter };

inline QPageSize::PageSizeId pageIdOf(Paper paper) {
    return paper == Paper::A4 ? QPageSize::A4 : QPageSize::Letter;
}

/// Width of a page in design pixels; its height follows the paper's shape.
inline constexpr double kPageWidth = 800;
inline QSizeF pageSizeOf(Paper paper) {
    const QSizeF points = QPageSize::size(pageIdOf(paper), QPageSize::Point);
    return {kPageWidth, std::round(kPageWidth * points.height() / points.width())};
}

} // namespace jg
