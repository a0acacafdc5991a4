// Root before consequence: which findings explain the others.
#pragma once

#include "coaching/playbook.h"

#include <string>
#include <vector>

namespace jg {

/// A finding that no other finding of the set explains, and what it explains itself.
struct Root {
    std::string id;
    std::vector<std::string> explains;
    std::vector<Message> evidence; ///< sentences for
    std::vector<Message> against;  ///< sentences against: links of the chain that were not found
};

struct CauseReport {
    std::vector<Root> roots;
    std::vector<std::string> order; ///< all findings in the order to work on them
};

/// One finding to put in order.
struct Finding {
    std::string id;
    Verdict verdict = Verdict::Adjust;
    double gapInSds = 0;
};

/// Roots and order of the findings by the playbook's graph. Arm protection first, then real changes before
/// near misses, roots before consequences, lower body before upper, larger standardised gap before smaller.
/// Pure. Source: common practice, no source.
CauseReport explain(const Playbook& playbook, const std::vector<Finding>& findings);

} // namespace jg
