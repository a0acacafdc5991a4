// SPDX-License-Identifier: GPL-3.0-or-later
#include "film/picture.h"

#include <numeric>

namespace jg {

double GreyPicture::mean() const {
    if (pixels.empty()) return 0;
    return std::accumulate(pixels.begin(), pixels.end(), 0.0) / (255.0 * static_cast<double>(pixels.size()));
}

} // namespace jg
