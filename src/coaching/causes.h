// SPDX-License-Identifier: GPL-3.0-or-later
// Root before consequence: which findings explain the others, and what speaks for and against it.
#pragma once

#include "coaching/playbook.h"

#include <map>
#include <string>
#include <vector>

namespace jg {

/// What is known of a possible cause on this athlete. What is in no list was not looked at.
enum class Looked { NotLookedAt, Fault, Good, CannotTell, NotVisible };
/// By row; `sides` on which a fault is off, where that is known.
struct Known : std::map<std::string, Looked, std::less<>> {
    using std::map<std::string, Looked, std::less<>>::map;
    std::map<std::string, std::string, std::less<>> sides = {};

    /// A row with the side on which it was found off.
    SidedRow found(const std::string& row) const {
        const auto it = sides.find(row);
        return {row, it == sides.end() ? std::string() : it->second};
    }
};

/// What the coach says of a link of causes: followed as the playbook has it, agreed to, or not so here.
enum class Stance { Open, Agreed, Refused };
std::string_view idOf(Stance stance);

/// The coach's word on one link for one athlete. A link that no playbook has is the coach's own, in `words`.
struct CauseChoice {
    std::string from, to;
    Stance stance = Stance::Open;
    std::string words;
    bool operator==(const CauseChoice&) const = default;
};

/// The coach's word on a link; null for none.
const CauseChoice* choiceOf(const std::vector<CauseChoice>& choices, const std::string& from,
                            const std::string& to);

/// What is known of a measure or an item.
Looked lookedAt(const Known& known, std::string_view id);

/// A cause between two findings of this athlete.
struct CauseLink {
    std::string from, to;
    std::string why, says;
    Stance stance = Stance::Open;
    bool own = false;                 ///< the coach's, for this athlete only
    std::vector<std::string> through; ///< what lies between and is not known; empty = direct
};

/// A finding that no other finding of the set explains, and what it explains itself.
struct Root {
    std::string id;
    std::vector<std::string> circle; ///< others that cause it and are caused by it: worked on as one
    std::vector<std::string> explains;
    std::vector<Message> evidence; ///< sentences for
    std::vector<Message> against;  ///< sentences against: what should suffer too and is good
    std::vector<Message> unknown;  ///< what would speak for or against and is not known
};

struct CauseReport {
    std::vector<Root> roots;        ///< the smallest set that explains all findings
    std::vector<std::string> order; ///< all findings in the order to work on them
    std::vector<CauseLink> links;   ///< between findings, for the picture

    const Root* root(std::string_view id) const;
    /// The root that a finding belongs to: itself, or the first that explains it. Null for none.
    const Root* rootOf(std::string_view finding) const;
};

/// One finding to put in order.
struct Finding {
    std::string id;
    Verdict verdict = Verdict::Adjust;
    double gapInSds = 0;
    std::string side = {}; ///< on which it is off; empty = its only one, or not known

    SidedRow sided() const { return {id, side}; }
};

/// Roots and order of the findings by the playbook's graph and the coach's own word on its links. An edge
/// holds between its sides only. A chain may pass what was not looked at or can't be told, never what was
/// found good or off the other way. Arm protection first, then real
/// changes before near misses, roots before consequences, lower body before upper, larger standardised gap
/// before smaller. Pure. Source: common practice, no source.
CauseReport explain(const Playbook& playbook, const std::vector<Finding>& findings, const Known& known = {},
                    const std::vector<CauseChoice>& choices = {});

/// The opinions that hold for an athlete: the playbook's without those the coach refused, and the coach's
/// own.
std::vector<Cause> causesFor(const Playbook& playbook, const std::vector<CauseChoice>& choices);

} // namespace jg
