// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/forms/verdict_look.h"

#include "ui/kit/words.h"

#include <algorithm>
#include <array>

namespace jg::ui {

VerdictLook lookOf(const Judgement& j) {
    if (j.verdict == Verdict::Protect) return {VerdictShape::Shield, 0, say("verdict.protect")};
    if (j.verdict)
        return {VerdictShape::Pips, pipsOf(*j.verdict), say(msg("verdict." + std::string(idOf(*j.verdict))))};
    switch (j.state) {
    case JudgeState::CannotTell:
        return {VerdictShape::Hollow, 0, say("judge-bench.cannot-tell")};
    case JudgeState::NotVisible:
        return {VerdictShape::Dash, 0, say("pips.not-from-here")};
    case JudgeState::NotApplicable:
        return {VerdictShape::Dash, 0, say("pips.set-aside")};
    case JudgeState::Recorded:
        return {VerdictShape::None, 0, say("verdict.recorded")};
    case JudgeState::Graded:
    case JudgeState::NotLookedAt:
        break;
    }
    return {VerdictShape::None, 0, say("verdict.open"), true};
}

VerdictLook lookOf(const std::optional<Grade>& g, bool protectsArm) {
    if (!g) return {VerdictShape::None, 0, say("verdict.open"), true};
    switch (g->state) {
    case GradeState::Graded: {
        const auto verdict = verdictOf(*g, protectsArm);
        if (verdict == Verdict::Protect) return {VerdictShape::Shield, 0, say("verdict.protect")};
        static constexpr std::array<const char*, 5> steps = {
            "verdict.change", "verdict.more", "verdict.adjust", "verdict.nearly", "verdict.keep"};
        return {VerdictShape::Pips, g->step,
                say(steps.at(static_cast<std::size_t>(std::clamp(g->step, 1, 5) - 1)))};
    }
    case GradeState::CannotTell:
        return {VerdictShape::Hollow, 0, say("judge-bench.cannot-tell")};
    case GradeState::NotVisible:
        return {VerdictShape::Dash, 0, say("pips.not-from-here")};
    case GradeState::NotApplicable:
        return {VerdictShape::Dash, 0, say("pips.does-not-apply")};
    case GradeState::FaultAbsent:
        return {VerdictShape::Pips, 5, say("judge-bench.fault-absent")};
    case GradeState::SetAside:
        break;
    }
    return {VerdictShape::Dash, 0, say("pips.set-aside")};
}

} // namespace jg::ui
