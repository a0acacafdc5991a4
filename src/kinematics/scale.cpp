// SPDX-License-Identifier: GPL-3.0-or-later
#include "kinematics/scale.h"

#include "base/number.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdio>
#include <string>

namespace jg {

namespace {
constexpr double kInch = 0.0254;
}

std::span<const ScaleInfo> allScales() {
    static constexpr std::array all = {
        ScaleInfo{ScaleKind::Height, "height", 0, 0.02},
        ScaleInfo{ScaleKind::Rubber, "rubber", 0.6096, 0.02, false, true},
        ScaleInfo{ScaleKind::RubberShort, "rubber-short", 0.1524, 0.04, true, false},
        ScaleInfo{ScaleKind::YouthRubber, "youth-rubber", 0.4572, 0.02, false, true},
        ScaleInfo{ScaleKind::YouthRubberShort, "youth-rubber-short", 0.1016, 0.05, true, false},
        ScaleInfo{ScaleKind::Other, "other", 0, 0.03},
        ScaleInfo{ScaleKind::Ball, "ball", 0.0738, 0.06},
        ScaleInfo{ScaleKind::Plate, "plate", 0.4318, 1.0}};
    return all;
}

Message ScaleInfo::name() const {
    return msg("scale." + std::string(id));
}

Message ScaleInfo::where() const {
    return msg("scale-where." + std::string(id));
}

const ScaleInfo& info(ScaleKind kind) {
    const auto all = allScales();
    return *std::find_if(all.begin(), all.end(), [&](const ScaleInfo& s) { return s.kind == kind; });
}

std::optional<ScaleKind> scaleFromId(std::string_view id) {
    for (const ScaleInfo& s : allScales())
        if (s.id == id) return s.kind;
    return std::nullopt;
}

std::optional<double> metresFromWords(std::string_view words) {
    // "5 ft 7 in": a number, its unit, and for feet what is left in inches.
    const auto numberFrom = [&](std::size_t at) { return words.find_first_not_of("0123456789.,", at); };
    const std::size_t begin = words.find_first_not_of(' ');
    if (begin == std::string_view::npos) return std::nullopt;
    const std::size_t end = std::min(numberFrom(begin), words.size());
    const auto first = typedNumber(words.substr(begin, end - begin));
    const std::size_t unitAt = std::min(words.find_first_not_of(' ', end), words.size());
    const std::size_t unitEnd = std::min(words.find_first_of(" 0123456789", unitAt), words.size());
    const std::string_view u = words.substr(unitAt, unitEnd - unitAt);
    const std::size_t restAt = std::min(words.find_first_not_of(' ', unitEnd), words.size());
    std::string_view rest = words.substr(restAt);
    if (!first || *first <= 0) return std::nullopt;
    if (rest.empty()) {
        if (u == "cm") return *first / 100;
        if (u == "m") return *first;
        if (u == "in" || u == "\"") return *first * kInch;
    }
    if (u != "ft" && u != "'") return std::nullopt;
    for (const std::string_view inches : {"in", "\""})
        if (rest.ends_with(inches)) rest.remove_suffix(inches.size());
    const auto second = rest.empty() ? std::optional(0.0) : typedNumber(rest);
    if (!second || *second < 0) return std::nullopt;
    return (*first * 12 + *second) * kInch;
}

std::string_view idOf(LengthUnit unit) {
    return unit == LengthUnit::Inches ? "in" : "cm";
}

std::optional<LengthUnit> lengthUnitFromId(std::string_view id) {
    for (const LengthUnit unit : {LengthUnit::Inches, LengthUnit::Centimetres})
        if (id == idOf(unit)) return unit;
    return std::nullopt;
}

double metresOf(LengthUnit unit) {
    return unit == LengthUnit::Inches ? kInch : 0.01;
}

Message lengthInWords(double metres, LengthUnit unit) {
    const double length = metres / metresOf(unit);
    const Decimal told{length, length < 10 ? 1 : 0};
    return unit == LengthUnit::Inches ? msg("length.in", {{"length", told}})
                                      : msg("length.cm", {{"length", told}});
}

Estimate pxPerMetre(const SeenLength& seen) {
    if (seen.px.value <= 0 || seen.metres <= 0) return {0, 0};
    const double value = seen.px.value / seen.metres;
    return {value, value * std::hypot(seen.px.sd / seen.px.value, info(seen.kind).planeSd)};
}

std::optional<SeenLength> nearestScale(std::span<const SeenLength> seen) {
    const auto relative = [](const SeenLength& s) {
        const Estimate e = pxPerMetre(s);
        return e.value > 0 ? e.sd / e.value : INFINITY;
    };
    std::optional<SeenLength> best;
    for (const SeenLength& s : seen)
        if (info(s.kind).planeSd <= kLargestPlaneSd && std::isfinite(relative(s)) &&
            (!best || relative(s) < relative(*best)))
            best = s;
    return best;
}

} // namespace jg
