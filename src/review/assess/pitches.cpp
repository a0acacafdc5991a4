// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/assess/pitches.h"

#include "coaching/change.h"
#include "review/assess/number_words.h"

#include <algorithm>
#include <cmath>

namespace jg {

namespace {

/// Of each pitch the surest number.
std::vector<DeliveryValue*> pitchesOf(std::vector<DeliveryValue>& values) {
    std::vector<DeliveryValue*> each;
    for (DeliveryValue& v : values) {
        const auto same =
            std::find_if(each.begin(), each.end(), [&](auto* e) { return e->pitch == v.pitch; });
        if (same == each.end())
            each.push_back(&v);
        else if (v.value.sd < (*same)->value.sd)
            *same = &v;
    }
    return each;
}

struct MeanAndSd {
    double mean = 0, sd = 0;
};

MeanAndSd over(const std::vector<DeliveryValue*>& each, const DeliveryValue* without = nullptr) {
    const auto n = static_cast<double>(each.size() - (without ? 1 : 0));
    MeanAndSd m;
    for (const auto* v : each)
        if (v != without) m.mean += *v->value.value / n;
    for (const auto* v : each)
        if (v != without) m.sd += (*v->value.value - m.mean) * (*v->value.value - m.mean);
    m.sd = n > 1 ? std::sqrt(m.sd / (n - 1)) : 0;
    return m;
}

bool standsOut(const std::vector<DeliveryValue*>& each, const DeliveryValue& one) {
    const MeanAndSd others = over(each, &one);
    const auto n = static_cast<double>(each.size() - 1);
    const double allowed = std::hypot(others.sd * std::sqrt(1 + 1 / n), one.value.sd);
    return std::abs(*one.value.value - others.mean) > 3 * allowed;
}

} // namespace

std::optional<PitchSpread> spreadOf(std::vector<DeliveryValue>& values) {
    const auto each = pitchesOf(values);
    if (each.size() < 2) return std::nullopt;
    const std::string& unit = each.front()->value.unit;
    if (std::any_of(each.begin(), each.end(), [&](auto* v) { return v->value.unit != unit; }))
        return std::nullopt;
    PitchSpread s;
    s.pitches = static_cast<int>(each.size());
    s.unit = unit;
    const MeanAndSd m = over(each);
    s.mean = m.mean;
    s.sd = m.sd;
    const auto n = static_cast<double>(each.size());
    double own = 0;
    for (auto* v : each) {
        own += v->value.half95() / n;
        if (v->verdict) ++s.judged;
        if (v->verdict && *v->verdict != Verdict::Keep) ++s.offTarget;
        v->standsOut = each.size() > 2 && standsOut(each, *v);
    }
    // What all pitches of a film share (level, scale, the camera's turn) does not average out.
    s.half95 = std::max(own, studentT95(each.size() - 1) * m.sd / std::sqrt(n));
    return s;
}

Message pitchesInWords(const PitchSpread& spread, const std::vector<DeliveryValue>& values) {
    const auto number = [&](double v) { return numberInWords(v, spread.unit); };
    std::vector<Message> words = {msg("pitches.mean", {{"count", spread.pitches},
                                                       {"mean", number(spread.mean)},
                                                       {"error", number(spread.half95)},
                                                       {"spread", number(spread.sd)}})};
    if (spread.judged > 0)
        words.push_back(
            spread.offTarget == 0 ? msg("pitches.on-target")
            : spread.offTarget == spread.pitches
                ? msg("pitches.off-target")
                : msg("pitches.off-target-in", {{"off", spread.offTarget}, {"all", spread.judged}}));
    for (const DeliveryValue& v : values)
        if (v.standsOut)
            words.push_back(
                msg("pitches.stands-out", {{"pitch", v.pitch}, {"number", number(*v.value.value)}}));
    return joined(ListStyle::Sentences, std::move(words));
}

} // namespace jg
