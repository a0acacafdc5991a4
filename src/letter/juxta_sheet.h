// The sheet of deliveries under each other, as a picture or a page.
#pragma once

#include "base/file_store.h"
#include "film/picture.h"
#include "review/juxta.h"
#include "words/words.h"

#include <QImage>

#include <functional>

namespace jg {

/// Gives a frame of a row's film. Errors: those of Reader.
using JuxtaPicture = std::function<Result<Picture>(std::size_t row, std::int64_t frame)>;

/// The whole sheet. Every cell is cut to the athlete, all bodies one height on one ground line; one thrown
/// with the other hand is mirrored, and said to be. What can't be shown says why. Needs loadFonts(). Errors:
/// those of `picture`, Cancelled.
Result<QImage> paintJuxta(const JuxtaSheet& sheet, const Playbook& playbook, const JuxtaPicture& picture,
                          const Words& words, std::stop_token stop = {},
                          const std::function<void(double)>& progress = {});

/// Writes it by the ending of `path`: .png, or .pdf (one page, upright or lying as the sheet is). Whole or
/// not at all. Errors: BadInput for another ending, WriteFailed, DiskFull.
Status writeJuxta(const QImage& sheet, const std::filesystem::path& path, FileStore& files);

/// Every number of the sheet: position, measure, unit, a value and its half width a row, and what became of
/// it. RFC 4180, point as decimal sign. Pure.
std::string juxtaAsCsv(const JuxtaSheet& sheet, const Playbook& playbook);

} // namespace jg
