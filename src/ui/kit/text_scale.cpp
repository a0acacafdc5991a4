// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/kit/text_scale.h"

#include <QGuiApplication>
#include <QScreen>

#include <algorithm>
#include <cmath>

namespace jg::ui {

namespace {
constexpr double kMostScale = 1.5;
constexpr double kUsualDots = 96;
double scaleInUse = 1;
} // namespace

double scaleOfSystemFont(const QFont& font, double dotsPerInch) {
    constexpr double kUsualPoints = 11, kLargestUsual = 12;
    const double points = font.pointSizeF() > 0 ? font.pointSizeF() * dotsPerInch / kUsualDots
                                                : font.pixelSize() * 72.0 / kUsualDots;
    if (points <= kLargestUsual) return 1;
    return std::min(kMostScale, points / kUsualPoints);
}

double textScale() {
    return scaleInUse;
}

void setTextScale(double scale) {
    scaleInUse = std::clamp(scale, 1.0, kMostScale);
}

void followSystemText() {
    const QScreen* screen = QGuiApplication::primaryScreen();
    setTextScale(
        scaleOfSystemFont(QGuiApplication::font(), screen ? screen->logicalDotsPerInchY() : kUsualDots));
}

int em(double px) {
    return static_cast<int>(std::lround(px * scaleInUse));
}

void resizeForText(QWidget& dialog, double width, double height) {
    const QSize wanted(em(width), em(height));
    const QWidget* above = dialog.parentWidget() ? dialog.parentWidget()->window() : nullptr;
    constexpr int kRim = 20;
    dialog.resize(above ? wanted.boundedTo(above->size() - QSize(kRim, kRim)) : wanted);
}

QFont labelFont(double px, bool bold) {
    return textFont(px * scaleInUse, bold);
}

QFont headingFont(double px, bool italic) {
    return headFont(px * scaleInUse, italic);
}

ScaledPainter::ScaledPainter(QPaintDevice* device)
    : QPainter(device) {
    setRenderHint(Antialiasing);
    scale(scaleInUse, scaleInUse);
}

double usualWidth(const QWidget& widget) {
    return widget.width() / scaleInUse;
}

double usualHeight(const QWidget& widget) {
    return widget.height() / scaleInUse;
}

QRect scaled(const QRectF& usual) {
    return QRectF(usual.topLeft() * scaleInUse, usual.size() * scaleInUse).toRect();
}

QRectF unscaled(const QRectF& box) {
    return {box.topLeft() / scaleInUse, box.size() / scaleInUse};
}

} // namespace jg::ui
