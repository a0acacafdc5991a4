// SPDX-License-Identifier: GPL-3.0-or-later
#include "coaching/target.h"

#include "kinematics/answers.h"
#include "kinematics/estimate.h"
#include "kinematics/scale.h"
#include "kinematics/unit_words.h"

#include <array>
#include <cmath>
#include <cstdio>
#include <utility>

namespace jg {

namespace {

constexpr std::array<std::pair<TargetType, std::string_view>, 6> kTypes = {{{TargetType::AtLeast, "atLeast"},
                                                                            {TargetType::AtMost, "atMost"},
                                                                            {TargetType::Band, "band"},
                                                                            {TargetType::Options, "options"},
                                                                            {TargetType::Any, "any"},
                                                                            {TargetType::Record, "record"}}};
constexpr std::array<std::pair<Verdict, std::string_view>, 5> kVerdicts = {{{Verdict::Keep, "keep"},
                                                                            {Verdict::Nearly, "nearly"},
                                                                            {Verdict::Adjust, "adjust"},
                                                                            {Verdict::Change, "change"},
                                                                            {Verdict::Protect, "protect"}}};

template <typename Table, typename T>
std::string_view nameIn(const Table& table, T value) {
    for (const auto& [key, name] : table)
        if (key == value) return name;
    return "";
}

template <typename T, typename Table>
std::optional<T> valueIn(const Table& table, std::string_view name) {
    for (const auto& [key, text] : table)
        if (text == name) return key;
    return std::nullopt;
}

/// A target's number with its unit; degrees stand by themselves.
Message told(double value, const std::string& unit) {
    return unit == "deg" ? asIs(trimmed(value)) : withUnit(trimmed(value), unit);
}

/// "too short" of a time, "too small" of an angle, "too little" of a way, with the number as it is said.
Message missInWords(double gap, const std::string& unit) {
    const char* id = unit == "ms" || unit == "frames"        ? gap < 0 ? "judge.too-short" : "judge.too-long"
                     : unit == "%" || lengthUnitFromId(unit) ? gap < 0 ? "judge.too-little" : "judge.too-much"
                     : gap < 0                               ? "judge.too-small"
                                                             : "judge.too-large";
    const double miss = std::abs(gap);
    return msg(id, {{"away", withUnit(Decimal{miss, unit == "x" || miss < 1 ? 1 : 0}, unit)}});
}

/// Signed distance outside the target; 0 inside.
double gapOf(const Target& t, double value) {
    const bool low = t.type == TargetType::AtLeast || t.type == TargetType::Band;
    if (low && value < t.x) return value - t.x;
    const double high = t.type == TargetType::Band ? t.y : t.x;
    if (t.type != TargetType::AtLeast && value > high) return value - high;
    return 0;
}

} // namespace

std::string_view idOf(TargetType type) {
    return nameIn(kTypes, type);
}

std::optional<TargetType> targetTypeFromId(std::string_view id) {
    return valueIn<TargetType>(kTypes, id);
}

std::string_view idOf(Verdict verdict) {
    return nameIn(kVerdicts, verdict);
}

std::optional<Verdict> verdictFromId(std::string_view id) {
    return valueIn<Verdict>(kVerdicts, id);
}

std::string_view idOf(JudgeState state) {
    static constexpr std::array<std::pair<JudgeState, std::string_view>, 6> names = {
        {{JudgeState::Graded, "graded"},
         {JudgeState::CannotTell, "cannotTell"},
         {JudgeState::NotVisible, "notVisible"},
         {JudgeState::NotLookedAt, "notLookedAt"},
         {JudgeState::NotApplicable, "notApplicable"},
         {JudgeState::Recorded, "recorded"}}};
    return nameIn(names, state);
}

std::optional<Target> targetIn(const Target& target, const std::string& unit) {
    if (target.unit.empty() || target.unit == unit || target.asksNothing() ||
        target.type == TargetType::Options)
        return target;
    const auto from = lengthUnitFromId(target.unit), to = lengthUnitFromId(unit);
    if (!from || !to) return std::nullopt;
    const double factor = metresOf(*from) / metresOf(*to);
    Target t = target;
    for (double* v : {&t.x, &t.y, &t.soft}) *v *= factor;
    if (t.good) *t.good *= factor;
    t.unit = unit;
    return t;
}

Message wordsOf(const Target& t) {
    switch (t.type) {
    case TargetType::AtLeast:
        return msg("target.at-least", {{"number", told(t.x, t.unit)}});
    case TargetType::AtMost:
        if (t.x == 0 && t.unit == "deg") return msg("target.zero-or-below");
        return msg("target.at-most", {{"number", told(t.x, t.unit)}});
    case TargetType::Band:
        return msg("target.band", {{"from", trimmed(t.x)}, {"to", told(t.y, t.unit)}});
    case TargetType::Options:
        return eitherOf(t.wanted);
    case TargetType::Any:
    case TargetType::Record:
        break;
    }
    return {};
}

int pipsOf(Verdict verdict) {
    switch (verdict) {
    case Verdict::Keep:
        return 5;
    case Verdict::Nearly:
        return 4;
    case Verdict::Adjust:
        return 3;
    case Verdict::Change:
        return 1;
    case Verdict::Protect:
        break;
    }
    return 0;
}

namespace {

Judgement recorded() {
    Judgement j;
    j.state = JudgeState::Recorded;
    j.text = msg("judge.recorded");
    return j;
}

/// True where no better value is named, or it is reached.
bool isGood(const Target& t, double value) {
    if (!t.good) return true;
    return t.type == TargetType::AtMost ? value <= *t.good : value >= *t.good;
}

} // namespace

Judgement judgeSeen(const Target& target, const std::string& seen, bool protectsArm) {
    if (target.type != TargetType::Options) return recorded();
    Judgement j;
    j.state = JudgeState::Graded;
    const bool wanted = isAmong(target.wanted, seen), near = isAmong(target.nearly, seen);
    j.verdict = wanted        ? Verdict::Keep
                : protectsArm ? Verdict::Protect
                : near        ? Verdict::Nearly
                              : Verdict::Change;
    if (!wanted) j.gap = near ? 1 : 2;
    j.text =
        msg(wanted ? "judge.seen-wanted" : "judge.seen-other", {{"seen", seen}, {"target", wordsOf(target)}});
    return j;
}

Judgement judge(const Target& target, const Shown& number, bool protectsArm) {
    Judgement j;
    if (target.asksNothing()) return recorded();
    const double value = number.value;
    j.gap = gapOf(target, value);
    const double miss = std::abs(j.gap);
    const double error = std::max(0.0, j.gap > 0 ? value - number.low95 : number.high95 - value);
    j.gapInSds = error > 0 ? kSdsOf95 * miss / error : 0;
    const Message wants = wordsOf(target);
    if (miss == 0) {
        j.state = JudgeState::Graded;
        j.verdict = Verdict::Keep;
        j.text = isGood(target, value) ? msg("judge.inside", {{"target", wants}})
                                       : msg("judge.inside-not-good",
                                             {{"target", wants}, {"good", told(*target.good, target.unit)}});
        return j;
    }
    if (miss <= error) {
        j.state = JudgeState::CannotTell;
        j.text = msg("judge.inside-error", {{"miss", missInWords(j.gap, target.unit)},
                                            {"target", wants},
                                            {"error", told(std::ceil(error * 10) / 10, target.unit)}});
        return j;
    }
    j.state = JudgeState::Graded;
    j.verdict = protectsArm               ? Verdict::Protect
                : miss <= target.soft     ? Verdict::Nearly
                : miss <= 2 * target.soft ? Verdict::Adjust
                                          : Verdict::Change;
    j.text = msg("judge.off", {{"miss", missInWords(j.gap, target.unit)}, {"target", wants}});
    return j;
}

} // namespace jg
