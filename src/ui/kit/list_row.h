// SPDX-License-Identifier: GPL-3.0-or-later
// A row of a calm list, as a value.
#pragma once

#include "ui/kit/pips.h"

#include <QImage>
#include <QString>

#include <optional>

namespace jg::ui {

/// What stands before a row's name.
enum class RowMark { None, Open, Done, Now };

struct ListRow {
    QString title;
    QString sub;
    QString value; ///< bold, right of the name
    QString error; ///< quiet, behind the value
    std::optional<VerdictLook> look;
    QString right; ///< at the right edge
    bool rightAccent = false;
    RowMark mark = RowMark::None;
    QImage still;
    QString header; ///< a small heading above the row

    /// All of it in one sentence, as a screen reader says it.
    QString spoken() const;
};

} // namespace jg::ui
