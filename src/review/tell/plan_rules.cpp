// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/tell/plan_rules.h"

#include "coaching/gap.h"
#include "coaching/teaching.h"

#include <algorithm>

namespace jg {

namespace {

Looked lookedOf(const MeasureRow& row) {
    switch (row.judgement.state) {
    case JudgeState::CannotTell:
        return Looked::CannotTell;
    case JudgeState::NotVisible:
        return Looked::NotVisible;
    default:
        return Looked::NotLookedAt;
    }
}

Looked lookedOf(const ItemRow& row) {
    if (!row.grade) return row.seenFromHere ? Looked::NotLookedAt : Looked::NotVisible;
    switch (row.grade->state) {
    case GradeState::FaultAbsent:
        return Looked::Good;
    case GradeState::CannotTell:
        return Looked::CannotTell;
    case GradeState::NotVisible:
        return Looked::NotVisible;
    default:
        return Looked::NotLookedAt;
    }
}

/// An item and the measure whose number tells the same are one thing to work on, on whichever side.
bool tellTheSame(const Playbook& playbook, const std::string& one, const std::string& other) {
    const auto measureOf = [&](const std::string& id) {
        const GradedItem* item = playbook.item(id);
        return item ? item->measure : id;
    };
    return one == other || (!measureOf(one).empty() && measureOf(one) == measureOf(other));
}

/// Builds a proposal, one finding after the other in the order to work on them.
class Chooser {
public:
    Chooser(const Playbook& playbook, const Plan& plan, const Assessment& a, const CauseReport& causes,
            int age)
        : playbook_(playbook)
        , plan_(plan)
        , a_(a)
        , causes_(causes)
        , most_(mostCorrections(age)) {}

    void choose(Proposal& p) {
        for (const std::string& id : causes_.order) place(p, id);
        const bool only = p.work.empty(); // near misses alone: the first of them
        const auto first = std::find_if(p.later.begin(), p.later.end(), [&](const Proposed& later) {
            return !isStyle(plan_, a_, later.finding);
        });
        if (only && first != p.later.end()) {
            p.work.push_back(std::move(*first));
            p.later.erase(first);
        }
    }

    /// What was chosen by its weight is taken up as the school teaches; what protects the arm stays first.
    void order(Proposal& p, Teaching teaching) const {
        if (teaching == Teaching::ByWeight || p.work.size() < 2) return;
        const auto second = std::stable_partition(p.work.begin(), p.work.end(), [&](const Proposed& w) {
            return a_.judged(w.finding)->finding.verdict == Verdict::Protect;
        });
        std::vector<std::string> ids;
        std::transform(second, p.work.end(), std::back_inserter(ids),
                       [](const Proposed& w) { return w.finding; });
        ids = inTeachingOrder(playbook_, teaching, std::move(ids));
        const auto place = [&](const Proposed& w) { return std::find(ids.begin(), ids.end(), w.finding); };
        std::sort(second, p.work.end(),
                  [&](const Proposed& x, const Proposed& y) { return place(x) < place(y); });
        for (auto it = second; it != p.work.end(); ++it)
            it->reasons.push_back(msg("proposal.taught", {{"order", nameOf(teaching)}}));
    }

private:
    void place(Proposal& p, const std::string& id) {
        const Judged* judged = a_.judged(id);
        if (!judged) return;
        if (isStyle(plan_, a_, id)) return later(p, id, msg("proposal.style"));
        if (const Proposed* same = chosenLike(p, id))
            return later(p, id, msg("proposal.same-as", {{"other", goalOf(playbook_, a_, same->finding)}}));
        const bool protects = judged->finding.verdict == Verdict::Protect;
        const Root* root = causes_.rootOf(id);
        const bool follows = root && root->id != id;
        if (!protects && follows)
            return later(p, id, msg("proposal.follows", {{"root", goalOf(playbook_, a_, root->id)}}));
        if (judged->finding.verdict == Verdict::Nearly) return later(p, id, msg("proposal.near-miss"));
        if (p.work.size() >= most_) return later(p, id, msg("proposal.enough", {{"most", most_}}));
        p.work.push_back({id, reasonsFor(*judged, root, protects)});
    }

    const Proposed* chosenLike(const Proposal& p, const std::string& id) const {
        const auto it = std::find_if(p.work.begin(), p.work.end(), [&](const Proposed& w) {
            return tellTheSame(playbook_, w.finding, id);
        });
        return it == p.work.end() ? nullptr : &*it;
    }

    std::vector<Message> reasonsFor(const Judged& judged, const Root* root, bool protects) const {
        std::vector<Message> reasons;
        if (protects) reasons.push_back(msg("proposal.protects"));
        if (root && root->id == judged.finding.id && !root->explains.empty())
            reasons.push_back(msg("proposal.root", {{"count", root->explains.size()}}));
        else if (root && root->id == judged.finding.id)
            reasons.push_back(msg("proposal.alone"));
        if (playbook_.groupOfFinding(judged.finding.id) == "lower") reasons.push_back(msg("proposal.lower"));
        if (playbook_.measure(judged.finding.id) && judged.finding.gapInSds > 0)
            reasons.push_back(
                msg("proposal.gap", {{"times", Decimal{inErrors(judged.finding.gapInSds), 1}}}));
        return reasons;
    }

    static void later(Proposal& p, const std::string& id, Message why) {
        p.later.push_back({id, {std::move(why)}});
    }

    const Playbook& playbook_;
    const Plan& plan_;
    const Assessment& a_;
    const CauseReport& causes_;
    std::size_t most_;
};

void addKeeps(const Playbook& playbook, const Review& review, const Assessment& a, Proposal& p) {
    const auto take = [&](const std::string& id, Message why) {
        const auto same = [&](const Proposed& x) { return tellTheSame(playbook, x.finding, id); };
        if (p.keep.size() >= mostKept(p.work.size()) || std::any_of(p.keep.begin(), p.keep.end(), same) ||
            std::any_of(p.work.begin(), p.work.end(), same))
            return;
        p.keep.push_back({id, {std::move(why)}});
    };
    const auto isStrength = [&](const std::string& id) {
        const Judged* j = a.judged(id);
        const MeasureRow* row = a.measure(id);
        return j && j->strength && (!row || isSurelyGood(*row));
    };
    for (const Stop& s : review.stops)
        if (s.kind == StopKind::Strength && isStrength(s.finding)) take(s.finding, msg("proposal.spoken"));
    for (const Judged& j : a.findings)
        if (!j.cannotTell && isStrength(j.finding.id)) take(j.finding.id, msg("proposal.unspoken"));
}

} // namespace

Known knownOf(const Assessment& a) {
    Known known;
    for (const MeasureRow& row : a.measures)
        if (const Looked looked = lookedOf(row); looked != Looked::NotLookedAt) known[row.id] = looked;
    for (const ItemRow& row : a.items)
        if (const Looked looked = lookedOf(row); looked != Looked::NotLookedAt) known[row.id] = looked;
    for (const Judged& j : a.findings) {
        known[j.finding.id] = j.cannotTell ? Looked::CannotTell : j.strength ? Looked::Good : Looked::Fault;
        if (const std::string side = a.sided(j.finding.id).side; !side.empty())
            known.sides[j.finding.id] = side;
    }
    return known;
}

CauseReport causesOf(const Playbook& playbook, const Assessment& a, const Plan& plan) {
    return explain(playbook, a.faults(), knownOf(a), plan.causes);
}

bool isStyle(const Plan& plan, const Assessment& a, std::string_view finding) {
    const auto size = plan.sizes.find(std::string(finding));
    const Judged* judged = a.judged(finding);
    return size != plan.sizes.end() && size->second == FindingSize::Style &&
           !(judged && judged->finding.verdict == Verdict::Protect);
}

DrillGates gatesFor(const Plan& plan, const Assessment& a, const Athlete& athlete,
                    const Submission& submission, Date today, bool painElsewhere) {
    DrillGates gates{athlete.ageOn(today), submission.painOpen() || painElsewhere, submission.pain,
                     athlete.comingBack && !athlete.comingBack->planSeen, plan.circumstances};
    for (const std::string& id : plan.corrections) gates.chosen.push_back(a.sided(id));
    if (gates.returning) gates.backFrom = athlete.comingBack->from;
    return gates;
}

Proposal proposePriorities(const Playbook& playbook, const Review& review, const Assessment& a,
                           const CauseReport& causes, int age) {
    Proposal p;
    Chooser chooser(playbook, review.plan, a, causes, age);
    chooser.choose(p);
    chooser.order(p, review.approach().teaching);
    addKeeps(playbook, review, a, p);
    return p;
}

} // namespace jg
