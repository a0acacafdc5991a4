// SPDX-License-Identifier: GPL-3.0-or-later
// A picture as the bytes of a file, or within a page.
#pragma once

#include <QImage>

#include <string>

namespace jg {

/// Belongs into the head of every page that is written: whatever got into it, nothing is run or fetched, and
/// nothing is sent anywhere.
inline constexpr const char* kNothingFetched =
    "<meta http-equiv=\"Content-Security-Policy\" content=\"default-src 'none'; img-src data:; style-src "
    "'unsafe-inline'; form-action 'none'; base-uri 'none'\">";

/// `format` is PNG or JPEG; `quality` 0 to 100, -1 = usual. Empty when there is no memory for it, or no
/// picture. Any thread.
std::string encoded(const QImage& image, const char* format = "PNG", int quality = -1);
/// The same as an address that holds the picture itself, for a page that needs nothing beside it.
std::string dataUri(const QImage& image, const char* format = "PNG", int quality = -1);

} // namespace jg
