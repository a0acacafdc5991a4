// SPDX-License-Identifier: GPL-3.0-or-later
// Several pictures on one sheet, each with what it shows.
#pragma once

#include <QImage>
#include <QString>

#include <vector>

namespace jg::test {

struct Panel {
    QString what;
    QImage picture;
};

/// In so many columns of one width, rows of one height; whole pictures, never enlarged.
QImage panels(const std::vector<Panel>& panels, int columns, QSize each);

} // namespace jg::test
