#include "ui/pips.h"

#include "letter/palette.h"
#include "ui/words.h"

#include <QPainter>
#include <QPainterPath>

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

void paintVerdict(QPainter& p, QPointF at, const VerdictLook& look, const QColor& ink) {
    p.save();
    p.setRenderHint(QPainter::Antialiasing);
    p.setPen(QPen(look.shape == VerdictShape::Hollow ? palette::quiet : ink, 1.2));
    if (look.shape == VerdictShape::Pips || look.shape == VerdictShape::Hollow) {
        for (int i = 0; i < 5; ++i) {
            p.setBrush(look.shape == VerdictShape::Pips && i < look.filled ? QBrush(ink) : Qt::NoBrush);
            p.drawEllipse(at + QPointF(5 + i * 9, 0), 3.4, 3.4);
        }
    } else if (look.shape == VerdictShape::Shield) {
        QPainterPath shield(at + QPointF(2, -6));
        shield.lineTo(at + QPointF(8, -7.5));
        shield.lineTo(at + QPointF(14, -6));
        shield.quadTo(at + QPointF(15, 3), at + QPointF(8, 8));
        shield.quadTo(at + QPointF(1, 3), at + QPointF(2, -6));
        p.setPen(Qt::NoPen);
        p.setBrush(palette::clay);
        p.drawPath(shield);
    } else if (look.shape == VerdictShape::Dash) {
        QPen pen(palette::quiet, 1.6);
        pen.setDashPattern({2, 2});
        p.setPen(pen);
        p.drawLine(at + QPointF(2, 0), at + QPointF(44, 0));
    }
    p.restore();
}

} // namespace jg::ui
