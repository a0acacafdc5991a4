// SPDX-License-Identifier: GPL-3.0-or-later
#include "coaching/causes.h"

#include "coaching/cause_graph.h"

#include <algorithm>
#include <deque>
#include <set>
#include <tuple>
#include <utility>

namespace jg {

std::string_view idOf(Stance stance) {
    constexpr std::string_view ids[] = {"open", "agreed", "refused"};
    return ids[static_cast<int>(stance)];
}

const Root* CauseReport::root(std::string_view id) const {
    const auto it = std::find_if(roots.begin(), roots.end(), [&](const Root& r) { return r.id == id; });
    return it == roots.end() ? nullptr : &*it;
}

const CauseChoice* choiceOf(const std::vector<CauseChoice>& choices, const std::string& from,
                            const std::string& to) {
    const auto it = std::find_if(choices.begin(), choices.end(),
                                 [&](const CauseChoice& c) { return c.from == from && c.to == to; });
    return it == choices.end() ? nullptr : &*it;
}

Looked lookedAt(const Known& known, std::string_view id) {
    const auto it = known.find(id);
    return it == known.end() ? Looked::NotLookedAt : it->second;
}

namespace {

template <typename T, typename U>
bool holds(const std::vector<T>& all, const U& one) {
    return std::find(all.begin(), all.end(), one) != all.end();
}

bool isListed(const Playbook& playbook, const std::string& from, const std::string& to) {
    return std::any_of(playbook.causes.begin(), playbook.causes.end(),
                       [&](const Cause& c) { return c.from == from && c.to == to; });
}

int bodyRank(const std::string& group) {
    return group == "lower" ? 0 : group == "trunk" ? 1 : 2;
}

/// Links from one finding to others, straight or through what is not known.
class Links {
public:
    Links(const Playbook& playbook, const std::vector<Cause>& causes,
          const std::map<std::string, SidedRow>& found, const Known& known,
          const std::vector<CauseChoice>& choices)
        : playbook_(playbook)
        , found_(found)
        , known_(known)
        , choices_(choices) {
        for (const Cause& c : causes) out_[c.from].push_back(&c);
    }

    std::vector<CauseLink> from(const SidedRow& start) const {
        std::vector<CauseLink> links;
        struct Way {
            SidedRow at;
            std::vector<std::string> through;
            const Cause* first;
        };
        std::deque<Way> open = {{start, {}, nullptr}};
        std::set<std::string> passed = {start.row};
        while (!open.empty()) {
            const Way way = std::move(open.front());
            open.pop_front();
            const auto edges = out_.find(way.at.row);
            if (edges == out_.end()) continue;
            for (const Cause* c : edges->second) {
                if (!meets(way.at, c->cause())) continue;
                const Cause* first = way.first ? way.first : c;
                if (const auto there = found_.find(c->to); there != found_.end()) {
                    if (meets(there->second, c->consequence()) && passed.insert(c->to).second)
                        links.push_back(linkOf(start.row, *c, *first, way.through));
                } else if (lookedAt(known_, c->to) != Looked::Good &&
                           passed.insert(textOf(c->consequence())).second) {
                    auto through = way.through;
                    through.push_back(c->to);
                    open.push_back({c->consequence(), std::move(through), first});
                }
            }
        }
        return links;
    }

private:
    CauseLink linkOf(const std::string& start, const Cause& last, const Cause& first,
                     const std::vector<std::string>& through) const {
        CauseLink link{start,     last.to,      through.empty() ? last.why : first.why + " " + last.why,
                       last.says, Stance::Open, false,
                       through};
        if (const CauseChoice* choice = choiceOf(choices_, start, last.to)) {
            link.stance = choice->stance;
            link.own = !isListed(playbook_, link.from, link.to);
        }
        return link;
    }

    const Playbook& playbook_;
    const std::map<std::string, SidedRow>& found_;
    const Known& known_;
    const std::vector<CauseChoice>& choices_;
    std::map<std::string, std::vector<const Cause*>> out_;
};

/// What stands first among findings whatever causes what.
auto weightOf(const Playbook& playbook, const Finding& f) {
    return std::tuple(f.verdict == Verdict::Protect ? 0 : 1, f.verdict == Verdict::Nearly,
                      bodyRank(playbook.groupOfFinding(f.id)), -f.gapInSds, f.id);
}

Message namesOf(const Playbook& playbook, const std::vector<std::string>& ids) {
    std::vector<Message> names;
    for (const std::string& id : ids) names.push_back(asIs(playbook.nameOfFinding(id)));
    return joined(ListStyle::And, std::move(names));
}

/// What the other ends of a root's own links say of it.
void addDoubts(Root& root, const Playbook& playbook, const std::vector<Cause>& causes, const Known& known,
               const std::map<std::string, SidedRow>& found) {
    std::set<std::string> told;
    for (const Cause& c : causes) {
        if (!meets(found.at(root.id), c.cause())) continue;
        const auto there = found.find(c.to);
        const bool otherWay = there != found.end() && !meets(there->second, c.consequence());
        if ((there != found.end() && !otherWay) || !told.insert(c.to).second) continue;
        const Message what = asIs(playbook.nameOfFinding(c.to));
        if (otherWay) {
            root.against.push_back(msg("causes.other-way", {{"finding", what}}));
            continue;
        }
        const Looked state = lookedAt(known, c.to);
        if (state == Looked::Good)
            root.against.push_back(msg("causes.is-good", {{"finding", what}}));
        else
            root.unknown.push_back(msg(state == Looked::CannotTell   ? "causes.cannot-tell"
                                       : state == Looked::NotVisible ? "causes.not-visible"
                                                                     : "causes.not-looked-at",
                                       {{"finding", what}}));
    }
}

} // namespace

std::vector<Cause> causesFor(const Playbook& playbook, const std::vector<CauseChoice>& choices) {
    std::vector<Cause> held;
    for (const Cause& c : playbook.causes) {
        const CauseChoice* choice = choiceOf(choices, c.from, c.to);
        if (!choice || choice->stance != Stance::Refused) held.push_back(c);
    }
    for (const CauseChoice& c : choices)
        if (c.stance != Stance::Refused && !isListed(playbook, c.from, c.to))
            held.push_back({c.from, c.to, "", "", c.words});
    return held;
}

const Root* CauseReport::rootOf(std::string_view finding) const {
    if (const Root* own = root(finding)) return own;
    for (const Root& r : roots)
        if (holds(r.circle, finding) || holds(r.explains, finding)) return &r;
    return nullptr;
}

namespace {

/// The findings as nodes, each once, with the links between them.
class Explanation {
public:
    Explanation(const Playbook& playbook, const std::vector<Finding>& findings, const Known& known,
                const std::vector<CauseChoice>& choices)
        : playbook_(playbook)
        , known_(known)
        , causes_(causesFor(playbook, choices)) {
        for (const Finding& f : findings)
            if (place_.emplace(f.id, nodes_.size()).second) nodes_.push_back(&f), found_[f.id] = f.sided();
        const Links links(playbook, causes_, found_, known, choices);
        std::vector<std::pair<std::size_t, std::size_t>> arrows;
        for (const Finding* f : nodes_) {
            weights_.push_back(weightOf(playbook, *f));
            for (CauseLink& link : links.from(f->sided())) {
                arrows.emplace_back(place_.at(link.from), place_.at(link.to));
                links_.push_back(std::move(link));
            }
        }
        search_ = findRoots(nodes_.size(), arrows);
    }

    CauseReport report() const {
        CauseReport report;
        for (const std::size_t head : heads()) report.roots.push_back(rootAt(head));
        report.order = order();
        report.links = links_;
        return report;
    }

private:
    /// The weightiest of each circle that none leads to.
    std::vector<std::size_t> heads() const {
        std::vector<std::size_t> heads;
        for (const std::size_t circle : search_.roots) {
            const auto& members = search_.circles[circle];
            heads.push_back(*std::min_element(members.begin(), members.end(),
                                              [this](auto a, auto b) { return weights_[a] < weights_[b]; }));
        }
        std::sort(heads.begin(), heads.end());
        return heads;
    }

    Root rootAt(std::size_t head) const {
        Root root{nodes_[head]->id, {}, {}, {}, {}, {}};
        for (std::size_t n = 0; n < nodes_.size(); ++n) {
            if (n == head || !search_.reaches[head][n]) continue;
            root.explains.push_back(nodes_[n]->id);
            if (search_.reaches[n][head]) root.circle.push_back(nodes_[n]->id);
        }
        for (const CauseLink& link : links_) {
            const std::size_t from = place_.at(link.from);
            if ((from == head || search_.reaches[head][from]) && link.to != root.id) addEvidence(root, link);
        }
        addDoubts(root, playbook_, causes_, known_, found_);
        return root;
    }

    void addEvidence(Root& root, const CauseLink& link) const {
        if (!link.through.empty())
            root.unknown.push_back(msg("causes.through", {{"to", playbook_.nameOfFinding(link.to)},
                                                          {"through", namesOf(playbook_, link.through)}}));
        else
            root.evidence.push_back(link.says.empty()
                                        ? asIs(link.why)
                                        : msg("causes.evidence", {{"why", link.why}, {"who", link.says}}));
    }

    /// How many others stand above each; on a circle the weightier do.
    std::vector<int> depths() const {
        std::vector<int> depth(nodes_.size());
        for (std::size_t n = 0; n < nodes_.size(); ++n)
            for (std::size_t other = 0; other < nodes_.size(); ++other)
                if (other != n && search_.reaches[other][n])
                    depth[n] += !search_.reaches[n][other] || weights_[other] < weights_[n];
        return depth;
    }

    std::vector<std::string> order() const {
        const std::vector<int> depth = depths();
        std::vector<std::size_t> sorted(nodes_.size());
        for (std::size_t n = 0; n < nodes_.size(); ++n) sorted[n] = n;
        const auto key = [&](std::size_t n) {
            const auto& [protects, nearly, body, gap, id] = weights_[n];
            return std::tuple(protects, nearly, depth[n], body, gap);
        };
        std::stable_sort(sorted.begin(), sorted.end(),
                         [&](std::size_t a, std::size_t b) { return key(a) < key(b); });
        std::vector<std::string> ids;
        for (const std::size_t n : sorted) ids.push_back(nodes_[n]->id);
        return ids;
    }

    using Weight = decltype(weightOf(std::declval<Playbook>(), std::declval<Finding>()));

    const Playbook& playbook_;
    const Known& known_;
    std::vector<Cause> causes_;
    std::map<std::string, std::size_t> place_;
    std::vector<const Finding*> nodes_;
    std::vector<Weight> weights_;
    std::map<std::string, SidedRow> found_;
    std::vector<CauseLink> links_;
    RootSearch search_;
};

} // namespace

CauseReport explain(const Playbook& playbook, const std::vector<Finding>& findings, const Known& known,
                    const std::vector<CauseChoice>& choices) {
    return Explanation(playbook, findings, known, choices).report();
}

} // namespace jg
