// SPDX-License-Identifier: GPL-3.0-or-later
#include "letter/encoded.h"

#include <QBuffer>

namespace jg {

std::string encoded(const QImage& image, const char* format, int quality) {
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    return image.save(&buffer, format, quality) ? bytes.toStdString() : std::string();
}

std::string dataUri(const QImage& image, const char* format, int quality) {
    return "data:image/" + QByteArray(format).toLower().toStdString() + ";base64," +
           QByteArray::fromStdString(encoded(image, format, quality)).toBase64().toStdString();
}

} // namespace jg
