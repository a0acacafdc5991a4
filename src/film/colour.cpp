// SPDX-License-Identifier: GPL-3.0-or-later
#include "film/colour.h"

namespace jg {

AVColorSpace matrixOf(const AVFrame& frame) {
    switch (frame.colorspace) {
    case AVCOL_SPC_BT709:
    case AVCOL_SPC_SMPTE240M:
    case AVCOL_SPC_FCC:
    case AVCOL_SPC_BT2020_NCL:
        return frame.colorspace;
    case AVCOL_SPC_BT2020_CL:
        return AVCOL_SPC_BT2020_NCL;
    default:
        return AVCOL_SPC_SMPTE170M;
    }
}

Transfer transferOf(const AVFrame& frame) {
    if (frame.color_trc == AVCOL_TRC_SMPTE2084) return Transfer::Pq;
    if (frame.color_trc == AVCOL_TRC_ARIB_STD_B67) return Transfer::Hlg;
    return Transfer::Standard;
}

} // namespace jg
