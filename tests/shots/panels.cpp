// SPDX-License-Identifier: GPL-3.0-or-later
#include "tests/shots/panels.h"

#include "ui/kit/theme.h"

#include <QPainter>

namespace jg::test {

QImage panels(const std::vector<Panel>& panels, int columns, QSize each) {
    constexpr int kAir = 10, kWords = 24;
    const int rows = (static_cast<int>(panels.size()) + columns - 1) / columns;
    QImage sheet(columns * (each.width() + kAir) + kAir, rows * (each.height() + kWords + kAir) + kAir,
                 QImage::Format_RGB32);
    sheet.fill(palette::shade);
    QPainter p(&sheet);
    p.setRenderHint(QPainter::SmoothPixmapTransform);
    p.setFont(textFont(13, true));
    p.setPen(palette::ink);
    for (int i = 0; i < static_cast<int>(panels.size()); ++i) {
        const Panel& panel = panels[static_cast<std::size_t>(i)];
        const QPoint at(kAir + i % columns * (each.width() + kAir),
                        kAir + i / columns * (each.height() + kWords + kAir));
        p.drawText(QRect(at, QSize(each.width(), kWords)), Qt::AlignLeft | Qt::AlignVCenter, panel.what);
        const QImage fitted = panel.picture.width() > each.width() || panel.picture.height() > each.height()
                                  ? panel.picture.scaled(each, Qt::KeepAspectRatio, Qt::SmoothTransformation)
                                  : panel.picture;
        p.drawImage(at + QPoint(0, kWords), fitted);
    }
    return sheet;
}

} // namespace jg::test
