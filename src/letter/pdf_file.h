// SPDX-License-Identifier: GPL-3.0-or-later
// A PDF as the house writes it: whole or not at all. Inside the letter room only.
#pragma once

#include "base/file_store.h"

#include <QPdfWriter>

#include <functional>
#include <string>

namespace jg {

/// What a PDF is written on and called.
struct PdfLook {
    QPageSize::PageSizeId paper = QPageSize::A4;
    QPageLayout::Orientation orientation = QPageLayout::Portrait;
    std::string title = {}; ///< may be empty
};

/// 288 dots an inch, no margins. `paint` draws in the writer's dots and begins further pages itself. Errors:
/// WriteFailed, DiskFull.
Status writePdfFile(const PdfLook& look, const std::filesystem::path& path, FileStore& files,
                    const std::function<void(QPdfWriter&, QPainter&)>& paint);

} // namespace jg
