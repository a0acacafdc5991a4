#include "coaching/causes.h"

#include <algorithm>
#include <deque>
#include <map>
#include <set>
#include <tuple>

namespace jg {

namespace {

/// Everything reachable downstream of `start`, with the edge that led there.
std::map<std::string, const Cause*> consequencesOf(const Playbook& playbook, const std::string& start) {
    std::map<std::string, const Cause*> reached;
    std::deque<std::string> queue = {start};
    while (!queue.empty()) {
        const std::string at = queue.front();
        queue.pop_front();
        for (const Cause& c : playbook.causes)
            if (c.from == at && c.to != start && reached.emplace(c.to, &c).second) queue.push_back(c.to);
    }
    return reached;
}

std::string groupOf(const Playbook& playbook, const std::string& id) {
    if (const auto* m = playbook.measure(id)) return m->group;
    if (const auto* i = playbook.item(id)) return i->group;
    return "";
}

int bodyRank(const std::string& group) {
    return group == "lower" ? 0 : group == "trunk" ? 1 : 2;
}

/// What stands first among findings whatever causes what.
auto weightOf(const Playbook& playbook, const Finding& f) {
    return std::tuple(f.verdict == Verdict::Protect ? 0 : 1, f.verdict == Verdict::Nearly,
                      bodyRank(groupOf(playbook, f.id)), -f.gapInSds, f.id);
}

using Reach = std::map<std::string, std::map<std::string, const Cause*>>;

/// Whether `one` stands above `other` as its cause. Of two that cause each other the weightier one does, so
/// that every circle has a root.
bool above(const Playbook& playbook, const Reach& reach, const Finding& one, const Finding& other) {
    if (one.id == other.id || !reach.at(one.id).contains(other.id)) return false;
    if (!reach.at(other.id).contains(one.id)) return true;
    return weightOf(playbook, one) < weightOf(playbook, other);
}

} // namespace

CauseReport explain(const Playbook& playbook, const std::vector<Finding>& findings) {
    Reach reach;
    for (const Finding& f : findings) reach[f.id] = consequencesOf(playbook, f.id);
    std::map<std::string, int> depth; // how many other findings stand above it
    for (const Finding& f : findings)
        for (const Finding& other : findings) depth[f.id] += above(playbook, reach, other, f);

    CauseReport report;
    for (const Finding& f : findings) {
        if (depth[f.id] > 0) continue;
        Root root{f.id, {}, {}, {}};
        for (const Finding& other : findings) {
            const auto it = reach[f.id].find(other.id);
            if (it == reach[f.id].end()) continue;
            root.explains.push_back(other.id);
            root.evidence.push_back(
                msg("causes.evidence", {{"why", it->second->why}, {"who", it->second->says}}));
        }
        for (const Cause& c : playbook.causes) {
            const bool found =
                std::any_of(findings.begin(), findings.end(), [&](const auto& x) { return x.id == c.to; });
            if (c.from == f.id && !found)
                root.against.push_back(msg("causes.not-found", {{"finding", playbook.nameOfFinding(c.to)}}));
        }
        report.roots.push_back(std::move(root));
    }
    auto sorted = findings;
    std::stable_sort(sorted.begin(), sorted.end(), [&](const Finding& a, const Finding& b) {
        const auto key = [&](const Finding& f) {
            return std::tuple(f.verdict == Verdict::Protect ? 0 : 1, f.verdict == Verdict::Nearly,
                              depth[f.id], bodyRank(groupOf(playbook, f.id)), -f.gapInSds);
        };
        return key(a) < key(b);
    });
    for (const Finding& f : sorted) report.order.push_back(f.id);
    return report;
}

} // namespace jg
