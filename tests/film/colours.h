// SPDX-License-Identifier: GPL-3.0-or-later
// How far two pictures are from each other.
#pragma once

#include <algorithm>
#include <cstddef>
#include <cstdint>
#include <cstdlib>

namespace jg::test {

/// Of the colours of two BGRX pictures of one size, `margin` pixels of each edge left out; alpha is not
/// compared.
struct Difference {
    int largest = 0;
    double mean = 0;
};

inline Difference between(const std::uint8_t* a, const std::uint8_t* b, int width, int height, int margin) {
    Difference d;
    int count = 0;
    for (int y = margin; y < height - margin; ++y)
        for (int x = margin; x < width - margin; ++x)
            for (int c = 0; c < 3; ++c, ++count) {
                const std::ptrdiff_t at = std::ptrdiff_t{4} * (std::ptrdiff_t{y} * width + x) + c;
                const int off = std::abs(a[at] - b[at]);
                d.largest = std::max(d.largest, off);
                d.mean += off;
            }
    d.mean /= std::max(1, count);
    return d;
}

} // namespace jg::test
