// SPDX-License-Identifier: GPL-3.0-or-later
#include "letter/house_mark.h"

#include "letter/encoded.h"

#include <QFileInfo>
#include <QImageReader>

#include <algorithm>

namespace jg {

namespace {

constexpr QSize kLargest{800, 200}; ///< sharp in print at the head of a page
constexpr int kSmallest = 24;       ///< pixels of its shorter side, else it is a blur
constexpr qint64 kMostBytes = qint64{20} << 20;
constexpr double kMostTimesAsWide = 4;

Result<std::string> asPng(const QImage& picture) {
    // Painted anew, so that no words, place or device that the file told of come along.
    QImage clean(picture.size(), QImage::Format_ARGB32);
    for (int y = 0; y < picture.height(); ++y)
        std::copy_n(picture.constScanLine(y), clean.bytesPerLine(), clean.scanLine(y));
    std::string png = encoded(clean);
    if (png.empty()) return fail(ErrorCode::Internal, msg("house-mark.not-kept"));
    return png;
}

} // namespace

Result<std::string> readHouseMark(const std::filesystem::path& file) {
    const QFileInfo info(QString::fromStdString(file.string()));
    const Message name = asIs(file.filename().string());
    if (!info.isFile() || info.size() > kMostBytes)
        return fail(ErrorCode::BadInput, msg("house-mark.not-a-picture", {{"file", name}}));
    QImageReader reader(info.filePath());
    reader.setDecideFormatFromContent(true);
    reader.setAutoTransform(true);
    const QByteArray format = reader.format();
    if (format != "png" && format != "jpeg")
        return fail(ErrorCode::BadInput, msg("house-mark.not-a-picture", {{"file", name}}));
    QImage picture = reader.read();
    if (picture.isNull()) return fail(ErrorCode::BadInput, msg("house-mark.unreadable", {{"file", name}}));
    if (std::min(picture.width(), picture.height()) < kSmallest)
        return fail(ErrorCode::BadInput, msg("house-mark.too-small", {{"file", name}, {"least", kSmallest}}));
    if (picture.width() > kLargest.width() || picture.height() > kLargest.height())
        picture = picture.scaled(kLargest, Qt::KeepAspectRatio, Qt::SmoothTransformation);
    return asPng(picture.convertToFormat(QImage::Format_ARGB32));
}

QImage markImage(const std::string& png) {
    return QImage::fromData(QByteArray::fromStdString(png), "PNG");
}

bool isSeenOnPaper(const QImage& mark) {
    constexpr int kStillSeen = 200; // of 255: darker than that is a shape beside white, by eye
    constexpr qint64 kOneIn = 100;  // pixels, at least: own choice
    const QImage picture = mark.convertToFormat(QImage::Format_ARGB32);
    qint64 seen = 0;
    for (int y = 0; y < picture.height(); ++y) {
        const auto* line = reinterpret_cast<const QRgb*>(picture.constScanLine(y));
        for (int x = 0; x < picture.width(); ++x) {
            const int onPaper = 255 - (255 - qGray(line[x])) * qAlpha(line[x]) / 255;
            if (onPaper < kStillSeen) ++seen;
        }
    }
    return seen * kOneIn >= qint64{picture.width()} * picture.height();
}

QSizeF markSize(const QImage& mark, double height) {
    if (mark.isNull()) return {};
    const QSizeF most(kMostTimesAsWide * height, height);
    return QSizeF(mark.size()).scaled(most, Qt::KeepAspectRatio);
}

} // namespace jg
