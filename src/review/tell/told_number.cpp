// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/tell/told_number.h"

#include <array>
#include <cmath>

namespace jg {

namespace {

constexpr double kMsPerS = 1000;
constexpr double kInchesPerM = 39.3701; // 1 in = 25.4 mm by definition
constexpr const char *kMs = "ms", *kS = "s";

struct Fraction {
    double seconds;
    const char* id;
};
constexpr std::array<Fraction, 9> kFractions = {{{0.02, "told.blink"},
                                                 {0.05, "told.twentieth"},
                                                 {0.1, "told.tenth"},
                                                 {0.2, "told.fifth"},
                                                 {0.25, "told.quarter"},
                                                 {1.0 / 3, "told.third"},
                                                 {0.5, "told.half"},
                                                 {0.75, "told.three-quarters"},
                                                 {1, "told.second"}}};

} // namespace

MeasureValue asTold(MeasureValue v) {
    if (v.unit != kMs) return v;
    v.unit = kS;
    if (v.value) *v.value /= kMsPerS;
    v.sd /= kMsPerS;
    v.low95 /= kMsPerS;
    v.high95 /= kMsPerS;
    return v;
}

Target asTold(Target t) {
    if (t.unit != kMs) return t;
    t.unit = kS;
    t.x /= kMsPerS;
    t.y /= kMsPerS;
    t.soft /= kMsPerS;
    if (t.good) *t.good /= kMsPerS;
    return t;
}

MeasureRow asTold(MeasureRow row) {
    row.value = asTold(std::move(row.value));
    row.target = asTold(std::move(row.target));
    return row;
}

Message durationInWords(double seconds) {
    constexpr double kLongest = 1.2;
    const double s = std::abs(seconds);
    if (s > kLongest) return msg("told.seconds", {{"seconds", Decimal{s, 1}}});
    const Fraction* nearest = &kFractions.front();
    // By ratio: between a quarter and a third lies 0.29, not the middle of both.
    for (const Fraction& f : kFractions)
        if (s * s > nearest->seconds * f.seconds) nearest = &f;
    return msg(nearest->id);
}

Message lengthOnBody(const MeasureDefinition& m, const MeasureValue& v, double heightM) {
    if (heightM <= 0 || !v.value || v.unit != "%" ||
        m.plainly.find("{value} of your height") == std::string::npos)
        return {};
    const double metres = std::abs(*v.value) / 100 * heightM;
    return msg("told.on-body",
               {{"inches", std::lround(metres * kInchesPerM)}, {"centimetres", std::lround(metres * 100)}});
}

} // namespace jg
