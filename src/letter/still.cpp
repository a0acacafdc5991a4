// SPDX-License-Identifier: GPL-3.0-or-later
#include "letter/still.h"

#include "letter/mark_painter.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace jg {

QImage toImage(const Picture& picture) {
    if (picture.empty()) return {};
    auto* keeper = new std::shared_ptr<const std::vector<std::uint8_t>>(picture.pixels);
    return QImage(
        picture.pixels->data(), picture.width, picture.height, picture.stride(), QImage::Format_RGB32,
        [](void* kept) { delete static_cast<std::shared_ptr<const std::vector<std::uint8_t>>*>(kept); },
        keeper);
}

namespace {

double mean(const QImage& image) {
    double sum = 0;
    constexpr int kEvery = 4;
    int count = 0;
    for (int y = 0; y < image.height(); y += kEvery) {
        const auto* line = reinterpret_cast<const QRgb*>(image.constScanLine(y));
        for (int x = 0; x < image.width(); x += kEvery, ++count) sum += qGray(line[x]);
    }
    return count == 0 ? 0 : sum / (255.0 * count);
}

constexpr double kStillShape = 1.5;

} // namespace

/// Brings a still to the brightness that all are shown in, within limits: a night stays a night.
void lightAlike(QImage& image) {
    constexpr double kWanted = 0.38, kMostGamma = 1.5; // own choice
    const double m = mean(image);
    if (m <= 0.01 || m >= 0.99) return;
    const double gamma = std::clamp(std::log(kWanted) / std::log(m), 1 / kMostGamma, kMostGamma);
    std::array<int, 256> table{};
    for (int v = 0; v < 256; ++v)
        table[static_cast<std::size_t>(v)] = static_cast<int>(std::lround(255 * std::pow(v / 255.0, gamma)));
    const auto of = [&](int v) { return table[static_cast<std::size_t>(v)]; };
    for (int y = 0; y < image.height(); ++y) {
        auto* line = reinterpret_cast<QRgb*>(image.scanLine(y));
        for (int x = 0; x < image.width(); ++x)
            line[x] = qRgb(of(qRed(line[x])), of(qGreen(line[x])), of(qBlue(line[x])));
    }
}

QRectF stillPart(const DeliveryMarks& marks, std::int64_t frame, QSizeF picture) {
    constexpr int kFewPoints = 4;
    constexpr double kAir = 0.1; // of the height, above and below
    QRectF all, here;
    int count = 0;
    for (const auto& [key, mark] : marks.points) {
        if (!mark.hidden.empty()) continue;
        const QRectF spot(mark.point.at.x - 0.5, mark.point.at.y - 0.5, 1, 1);
        all |= spot;
        ++count;
        if (key.frame == frame) here |= spot;
    }
    if (count < kFewPoints) return {QPointF(), picture};
    const double height = std::min(all.height() * (1 + 2 * kAir), picture.height());
    QRectF part(QPointF(), QSizeF(std::min(height * kStillShape, picture.width()), height));
    part.moveCenter({here.isNull() ? all.center().x() : here.center().x(), all.center().y()});
    part.moveLeft(std::clamp(part.left(), 0.0, picture.width() - part.width()));
    part.moveTop(std::clamp(part.top(), 0.0, picture.height() - part.height()));
    return part;
}

QImage renderStill(const QImage& frame, const MarkScene& scene, const Words& words, int width,
                   const std::optional<QRectF>& wanted) {
    const QRectF part = wanted.value_or(QRectF(frame.rect()));
    const double scale = width / part.width();
    QImage out(width, std::max(1, static_cast<int>(part.height() * scale + 0.5)), QImage::Format_RGB32);
    QPainter painter(&out);
    painter.setRenderHint(QPainter::SmoothPixmapTransform);
    painter.drawImage(QRectF(0, 0, out.width(), out.height()), frame, part);
    painter.end();
    lightAlike(out);
    QPainter marks(&out);
    const ViewTransform view{scale, -part.topLeft() * scale};
    paintScene(marks, scene, view, QRectF(0, 0, out.width(), out.height()), words,
               std::max(1.0, width / 400.0));
    return out;
}

} // namespace jg
