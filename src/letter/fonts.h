// SPDX-License-Identifier: GPL-3.0-or-later
// The shipped fonts. Needs a QGuiApplication.
#pragma once

#include <QFont>

#include <filesystem>

namespace jg {

/// Loads the fonts from `folder` once. False when one is missing.
bool loadFonts(const std::filesystem::path& folder);

/// Open Sans in pixels; equal digits.
QFont textFont(double px, bool bold = false);
/// Vollkorn SemiBold in pixels, for headings.
QFont headFont(double px, bool italic = false);
/// Open Sans for PDF: shaping off, so that every letter can be searched and copied.
QFont printFont(double px, bool bold = false);

} // namespace jg
