// SPDX-License-Identifier: GPL-3.0-or-later
// The house's own mark: a small picture at the head of what leaves the house.
#pragma once

#include "base/result.h"

#include <QImage>

#include <filesystem>
#include <string>

namespace jg {

/// A PNG or JPEG file as the mark's own PNG: upright, no larger than the letterhead needs, with nothing in it
/// but the picture. Any thread. Errors: BadInput in words.
Result<std::string> readHouseMark(const std::filesystem::path& file);

/// The mark from its PNG; null for an empty one, or bytes that are none.
QImage markImage(const std::string& png);

/// True when enough of the mark is darker than paper; a white one on nothing is not. Pure.
bool isSeenOnPaper(const QImage& mark);

/// How large the mark stands in a line so high: its own shape, never wider than four times that. Pure.
QSizeF markSize(const QImage& mark, double height);

} // namespace jg
