// SPDX-License-Identifier: GPL-3.0-or-later
// High dynamic range for an ordinary screen. Source: curves and primaries of ITU-R BT.2100 and BT.709, from
// memory; the shoulder is our own choice.
#include "film/convert.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace jg {

namespace {

constexpr double kWhiteNits = 203; // BT.2408 reference white, from memory

double linearOfPq(double v) {
    constexpr double m1 = 0.1593017578125, m2 = 78.84375, c1 = 0.8359375, c2 = 18.8515625, c3 = 18.6875;
    const double p = std::pow(v, 1 / m2);
    return 10000 * std::pow(std::max(p - c1, 0.0) / (c2 - c3 * p), 1 / m1) / kWhiteNits;
}

double linearOfHlg(double v) {
    constexpr double a = 0.17883277, b = 0.28466892, c = 0.55991073;
    const double scene = v <= 0.5 ? v * v / 3 : (std::exp((v - c) / a) + b) / 12;
    return std::pow(scene, 1.2) * 1000 / kWhiteNits;
}

/// Straight up to three quarters of white, then a soft shoulder.
double shoulder(double v) {
    constexpr double knee = 0.75;
    if (v <= knee) return v;
    const double over = (v - knee) / (1 - knee);
    return knee + (1 - knee) * over / (1 + over);
}

double toScreen(double linear) {
    const double v = shoulder(std::max(linear, 0.0));
    return v <= 0.0031308 ? 12.92 * v : 1.055 * std::pow(v, 1 / 2.4) - 0.055;
}

} // namespace

void toneMap(const PictureRoom& pixels, Transfer transfer) {
    if (transfer == Transfer::Standard) return;
    std::array<float, 256> linear{};
    for (std::size_t i = 0; i < 256; ++i) {
        const double v = static_cast<double>(i) / 255;
        linear[i] = static_cast<float>(transfer == Transfer::Pq ? linearOfPq(v) : linearOfHlg(v));
    }
    constexpr int kSteps = 4096; // of linear light up to sixteen times white
    static const auto screen = [] {
        std::array<std::uint8_t, kSteps + 1> table{};
        for (std::size_t i = 0; i <= kSteps; ++i) // finer where it is dark
            table[i] = static_cast<std::uint8_t>(std::lround(
                255 * std::min(1.0, toScreen(16 * std::pow(static_cast<double>(i) / kSteps, 3)))));
        return table;
    }();
    const auto shown = [&](float v) {
        return screen[static_cast<std::size_t>(kSteps * std::cbrt(std::clamp(v / 16.F, 0.F, 1.F)))];
    };
    for (int y = 0; y < pixels.height; ++y) {
        std::uint8_t* const row = pixels.bgrx + static_cast<std::ptrdiff_t>(y) * pixels.stride;
        for (std::uint8_t* p = row; p < row + std::ptrdiff_t{4} * pixels.width; p += 4) {
            const float b = linear[p[0]], g = linear[p[1]], r = linear[p[2]];
            p[2] = shown(1.6605F * r - 0.5876F * g - 0.0728F * b);
            p[1] = shown(-0.1246F * r + 1.1329F * g - 0.0083F * b);
            p[0] = shown(-0.0182F * r - 0.1006F * g + 1.1187F * b);
        }
    }
}

} // namespace jg
