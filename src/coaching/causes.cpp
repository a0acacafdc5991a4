#include "coaching/causes.h"

#include "coaching/cause_graph.h"

#include <algorithm>
#include <deque>
#include <set>
#include <tuple>

namespace jg {

std::string_view idOf(Stance stance) {
    constexpr std::string_view ids[] = {"open", "agreed", "refused"};
    return ids[static_cast<int>(stance)];
}

const Root* CauseReport::root(std::string_view id) const {
    const auto it = std::find_if(roots.begin(), roots.end(), [&](const Root& r) { return r.id == id; });
    return it == roots.end() ? nullptr : &*it;
}

namespace {

template <typename T, typename U>
bool holds(const std::vector<T>& all, const U& one) {
    return std::find(all.begin(), all.end(), one) != all.end();
}

const CauseChoice* choiceOf(const std::vector<CauseChoice>& choices, const std::string& from,
                            const std::string& to) {
    const auto it = std::find_if(choices.begin(), choices.end(),
                                 [&](const CauseChoice& c) { return c.from == from && c.to == to; });
    return it == choices.end() ? nullptr : &*it;
}

Looked stateOf(const Known& known, const std::string& id) {
    const auto it = known.find(id);
    return it == known.end() ? Looked::NotLookedAt : it->second;
}

int bodyRank(const std::string& group) {
    return group == "lower" ? 0 : group == "trunk" ? 1 : 2;
}

/// Links from one finding to others, straight or through what is not known.
class Links {
public:
    Links(const Playbook& playbook, const std::vector<Finding>& findings, const Known& known,
          const std::vector<CauseChoice>& choices)
        : causes_(causesFor(playbook, choices))
        , playbook_(playbook)
        , known_(known)
        , choices_(choices) {
        for (const Finding& f : findings) found_.insert(f.id);
        for (const Cause& c : causes_) out_[c.from].push_back(&c);
    }

    std::vector<CauseLink> from(const std::string& start) const {
        std::vector<CauseLink> links;
        struct Way {
            std::string at;
            std::vector<std::string> through;
            const Cause* first;
        };
        std::deque<Way> open = {{start, {}, nullptr}};
        std::set<std::string> passed = {start};
        while (!open.empty()) {
            const Way way = std::move(open.front());
            open.pop_front();
            const auto edges = out_.find(way.at);
            if (edges == out_.end()) continue;
            for (const Cause* c : edges->second) {
                if (!passed.insert(c->to).second) continue;
                const Cause* first = way.first ? way.first : c;
                if (found_.contains(c->to))
                    links.push_back(linkOf(start, *c, *first, way.through));
                else if (stateOf(known_, c->to) != Looked::Good) {
                    auto through = way.through;
                    through.push_back(c->to);
                    open.push_back({c->to, std::move(through), first});
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
            link.own = std::none_of(playbook_.causes.begin(), playbook_.causes.end(),
                                    [&](const Cause& c) { return c.from == link.from && c.to == link.to; });
        }
        return link;
    }

    std::vector<Cause> causes_;
    const Playbook& playbook_;
    const Known& known_;
    const std::vector<CauseChoice>& choices_;
    std::set<std::string> found_;
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
               const std::set<std::string>& found) {
    std::set<std::string> told;
    for (const Cause& c : causes) {
        if (c.from != root.id || found.contains(c.to) || !told.insert(c.to).second) continue;
        const Message what = asIs(playbook.nameOfFinding(c.to));
        const Looked state = stateOf(known, c.to);
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
    for (const CauseChoice& c : choices) {
        const bool listed = std::any_of(playbook.causes.begin(), playbook.causes.end(),
                                        [&](const Cause& k) { return k.from == c.from && k.to == c.to; });
        if (!listed && c.stance != Stance::Refused) held.push_back({c.from, c.to, "", "", c.words});
    }
    return held;
}

const Root* CauseReport::rootOf(std::string_view finding) const {
    if (const Root* own = root(finding)) return own;
    for (const Root& r : roots)
        if (holds(r.circle, finding) || holds(r.explains, finding)) return &r;
    return nullptr;
}

CauseReport explain(const Playbook& playbook, const std::vector<Finding>& findings, const Known& known,
                    const std::vector<CauseChoice>& choices) {
    CauseReport report;
    std::map<std::string, std::size_t> place;
    for (const Finding& f : findings) place.emplace(f.id, place.size());
    std::vector<const Finding*> nodes(place.size());
    for (const Finding& f : findings)
        if (!nodes[place.at(f.id)]) nodes[place.at(f.id)] = &f;
    const Links links(playbook, findings, known, choices);
    std::vector<std::pair<std::size_t, std::size_t>> arrows;
    for (const Finding* f : nodes)
        for (CauseLink& link : links.from(f->id)) {
            arrows.emplace_back(place.at(link.from), place.at(link.to));
            report.links.push_back(std::move(link));
        }
    const RootSearch search = findRoots(nodes.size(), arrows);
    const auto weightier = [&](std::size_t a, std::size_t b) {
        return weightOf(playbook, *nodes[a]) < weightOf(playbook, *nodes[b]);
    };
    std::vector<int> depth(nodes.size()); // how many others stand above each; on a circle the weightier do
    for (std::size_t n = 0; n < nodes.size(); ++n)
        for (std::size_t other = 0; other < nodes.size(); ++other)
            if (other != n && search.reaches[other][n])
                depth[n] += !search.reaches[n][other] || weightier(other, n);

    const auto causes = causesFor(playbook, choices);
    std::set<std::string> found;
    for (const Finding* f : nodes) found.insert(f->id);
    std::vector<std::size_t> heads;
    for (const std::size_t circle : search.roots)
        heads.push_back(
            *std::min_element(search.circles[circle].begin(), search.circles[circle].end(), weightier));
    std::sort(heads.begin(), heads.end());
    for (const std::size_t head : heads) {
        Root root{nodes[head]->id, {}, {}, {}, {}, {}};
        for (std::size_t n = 0; n < nodes.size(); ++n) {
            if (n == head || !search.reaches[head][n]) continue;
            root.explains.push_back(nodes[n]->id);
            if (search.reaches[n][head]) root.circle.push_back(nodes[n]->id);
        }
        for (const CauseLink& link : report.links) {
            const bool inside = link.from == root.id || holds(root.explains, link.from);
            if (!inside || link.to == root.id) continue;
            const Message says = link.says.empty()
                                     ? asIs(link.why)
                                     : msg("causes.evidence", {{"why", link.why}, {"who", link.says}});
            if (link.through.empty())
                root.evidence.push_back(says);
            else
                root.unknown.push_back(msg("causes.through", {{"to", playbook.nameOfFinding(link.to)},
                                                              {"through", namesOf(playbook, link.through)}}));
        }
        addDoubts(root, playbook, causes, known, found);
        report.roots.push_back(std::move(root));
    }
    std::vector<std::size_t> sorted(nodes.size());
    for (std::size_t n = 0; n < nodes.size(); ++n) sorted[n] = n;
    std::stable_sort(sorted.begin(), sorted.end(), [&](std::size_t a, std::size_t b) {
        const auto key = [&](std::size_t n) {
            const Finding& f = *nodes[n];
            return std::tuple(f.verdict == Verdict::Protect ? 0 : 1, f.verdict == Verdict::Nearly, depth[n],
                              bodyRank(playbook.groupOfFinding(f.id)), -f.gapInSds);
        };
        return key(a) < key(b);
    });
    for (const std::size_t n : sorted) report.order.push_back(nodes[n]->id);
    return report;
}

} // namespace jg
