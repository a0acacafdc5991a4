// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/session/follow_paths.h"

#include "film/follow.h"

#include <algorithm>

namespace jg {

namespace {

void add(FollowedPath& path, const PathStretch& stretch, const Followed& followed) {
    if (path.from.empty() || path.from.back().frame != stretch.from.frame) path.from.push_back(stretch.from);
    path.from.push_back(stretch.to);
    for (const FollowedPlace& p : followed.places)
        if (path.places.empty() || path.places.back().frame < p.frame)
            path.places.push_back({p.frame, {p.at.x, p.at.y}, p.sdPx});
    if (followed.lost) path.asks.push_back((followed.lost->first + followed.lost->second) / 2);
}

} // namespace

Result<FollowPlan> followPlan(const Library& library, const Clip& clip, const DeliveryMarks& delivery) {
    FollowPlan plan{filesOf(library, clip), stretchesToFollow(delivery)};
    if (plan.stretches.empty()) return fail(ErrorCode::Refused, msg("follow.click-first"));
    return plan;
}

Result<std::map<Landmark, FollowedPath>> followPaths(const FollowPlan& plan, std::stop_token stop,
                                                     const std::function<void(double)>& progress) {
    auto clip = OpenClip::open(plan.files, stop);
    if (!clip) return clip.error();
    std::vector<FollowOrder> orders;
    for (const PathStretch& s : plan.stretches)
        orders.push_back(
            {s.from.frame, s.to.frame, {s.from.at.x, s.from.at.y}, {s.to.at.x, s.to.at.y}, s.from.sdPx});
    auto followed = followPoints(clip->source(), orders, stop, progress);
    if (!followed) return followed.error();
    std::map<Landmark, FollowedPath> paths;
    for (std::size_t i = 0; i < plan.stretches.size(); ++i)
        add(paths[plan.stretches[i].landmark], plan.stretches[i], (*followed)[i]);
    return paths;
}

Message wordsOf(const std::map<Landmark, FollowedPath>& paths) {
    const auto lost =
        std::count_if(paths.begin(), paths.end(), [](const auto& p) { return !p.second.asks.empty(); });
    if (lost == 0) return msg("follow.all", {{"count", paths.size()}});
    return msg("follow.lost", {{"count", paths.size()}, {"lost", lost}});
}

} // namespace jg
