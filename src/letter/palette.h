// SPDX-License-Identifier: GPL-3.0-or-later
// The one table of colours, for the window, the film and the letter.
#pragma once

#include <QColor>

namespace jg::palette {

inline const QColor paper{0xF4, 0xEF, 0xE6};
inline const QColor sheet{0xFB, 0xF8, 0xF2}; ///< cards and bars
inline const QColor shade{0xEA, 0xE2, 0xD5}; ///< notes and the foot
inline const QColor ink{0x23, 0x20, 0x1C};
inline const QColor quiet{0x6A, 0x62, 0x58};
inline const QColor rule{0xD9, 0xD0, 0xC1};
inline const QColor clay{0xA9, 0x4A, 0x2A}; ///< the accent
inline const QColor clayDeep{0x8C, 0x3B, 0x20};
inline const QColor moss{0x2F, 0x4A, 0x3A}; ///< the second colour
inline const QColor mossDeep{0x25, 0x3C, 0x2F};
inline const QColor stage{0x15, 0x17, 0x1A};
inline const QColor chalk{0xF4, 0xF1, 0xE8};
inline const QColor casing{0x0D, 0x0E, 0x10};
inline const QColor second{0x9C, 0xC7, 0xE0}; ///< the second delivery
inline const QColor ghost{0xE3, 0xA6, 0x3A};

} // namespace jg::palette
