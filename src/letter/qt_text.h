// SPDX-License-Identifier: GPL-3.0-or-later
// UTF-8 text of the core as Qt's own.
#pragma once

#include <QString>

#include <string_view>

namespace jg {

inline QString text(std::string_view utf8) {
    return QString::fromUtf8(utf8.data(), static_cast<qsizetype>(utf8.size()));
}

} // namespace jg
