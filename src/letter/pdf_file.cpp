// SPDX-License-Identifier: GPL-3.0-or-later
#include "letter/pdf_file.h"

#include <QBuffer>
#include <QPainter>

namespace jg {

Status writePdfFile(const PdfLook& look, const std::filesystem::path& path, FileStore& files,
                    const std::function<void(QPdfWriter&, QPainter&)>& paint) {
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    {
        QPdfWriter writer(&buffer);
        writer.setPageSize(QPageSize(look.paper));
        writer.setPageOrientation(look.orientation);
        writer.setPageMargins(QMarginsF());
        writer.setResolution(288);
        if (!look.title.empty()) writer.setTitle(QString::fromStdString(look.title));
        writer.setCreator("Juxtagraph");
        QPainter painter(&writer);
        paint(writer, painter);
    }
    return files.write(path, std::string_view(bytes.constData(), static_cast<std::size_t>(bytes.size())));
}

} // namespace jg
