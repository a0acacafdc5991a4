// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/record/review.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <utility>

namespace jg {

namespace {
constexpr std::array<std::string_view, 8> kStageIds = {"look", "positions", "measure", "judge",
                                                       "say",  "prescribe", "send",    "sent"};
} // namespace

std::string_view idOf(Stage stage) {
    return kStageIds.at(static_cast<std::size_t>(stage));
}

Message nameOf(Stage stage) {
    return msg("stage." + std::string(idOf(stage)));
}

std::optional<Stage> stageFromId(std::string_view id) {
    const auto it = std::find(kStageIds.begin(), kStageIds.end(), id);
    if (it == kStageIds.end()) return std::nullopt;
    return static_cast<Stage>(it - kStageIds.begin());
}

std::string_view idOf(MarkKind kind) {
    static constexpr std::array<std::string_view, 6> ids = {"plumb",    "level", "line",
                                                            "head-box", "angle", "mound"};
    return ids.at(static_cast<std::size_t>(kind));
}

Message nameOf(MarkKind kind) {
    return msg("mark." + std::string(idOf(kind)));
}

std::size_t pointsOf(MarkKind kind) {
    return kind == MarkKind::Angle ? 3 : 2;
}

std::string_view idOf(GradeState state) {
    static constexpr std::array<std::string_view, 6> ids = {"graded",        "cannotTell",  "notVisible",
                                                            "notApplicable", "faultAbsent", "setAside"};
    return ids.at(static_cast<std::size_t>(state));
}

std::string_view idOf(FindingSize size) {
    constexpr std::string_view ids[] = {"small", "real", "growth", "good-for-age", "style"};
    return ids[static_cast<int>(size)];
}

std::optional<FindingSize> findingSizeFromId(std::string_view id) {
    for (const FindingSize size : kFindingSizes)
        if (idOf(size) == id) return size;
    return std::nullopt;
}

Message nameOf(FindingSize size) {
    return msg("finding-size." + std::string(idOf(size)));
}

std::string_view idOf(StopKind kind) {
    static constexpr std::array<std::string_view, 4> ids = {"strength", "correction", "recap", "own"};
    return ids.at(static_cast<std::size_t>(kind));
}

std::optional<std::int64_t> DeliveryMarks::frameOf(Moment moment) const {
    const auto it = moments.find(moment);
    return it == moments.end() ? std::nullopt : it->second.frame;
}

std::optional<std::int64_t> DeliveryMarks::frameOf(const Slot& slot) const {
    const auto frame = frameOf(slot.at);
    return frame ? std::optional(*frame + slot.frames) : std::nullopt;
}

const PointMark* DeliveryMarks::point(std::int64_t frame, Landmark landmark) const {
    const auto it = points.find({frame, landmark});
    return it == points.end() ? nullptr : &it->second;
}

const PointMark* DeliveryMarks::seenPoint(std::int64_t frame, Landmark landmark) const {
    const PointMark* p = point(frame, landmark);
    return p && p->hidden.empty() ? p : nullptr;
}

std::vector<Target> Review::walkTargets() const {
    std::vector<Target> all;
    for (const Target& t : approach().targets)
        if (t.type != TargetType::Any) all.push_back(t);
    for (const std::string& id : extras) {
        if (approach().targetOf(id)) continue;
        Target recorded;
        recorded.measure = id;
        recorded.type = TargetType::Record;
        all.push_back(std::move(recorded));
    }
    return all;
}

ClickedPoint DeliveryMarks::steadied(std::int64_t frame, const ClickedPoint& point) const {
    if (!shake || !shake->on) return point;
    const auto it = shake->shifts.find(frame);
    if (it == shake->shifts.end()) return point;
    return {point.at - it->second, std::hypot(point.sigmaPx, shake->sdPx)};
}

const WhyNot* Plan::whyNotOf(std::string_view finding) const {
    const auto it =
        std::find_if(whyNot.begin(), whyNot.end(), [&](const WhyNot& w) { return w.finding == finding; });
    return it == whyNot.end() ? nullptr : &*it;
}

const Stop* Review::stop(const StopId& stopId) const {
    const auto it = std::find_if(stops.begin(), stops.end(), [&](const Stop& s) { return s.id == stopId; });
    return it == stops.end() ? nullptr : &*it;
}

std::int64_t Take::kept() const {
    std::int64_t all = samples;
    for (const SampleSpan& cut : cuts) all -= cut.length();
    return all;
}

std::vector<std::string> Review::takeFiles() const {
    std::vector<std::string> files;
    for (const auto& [id, take] : takes) files.push_back(take.file);
    for (const auto& [id, spares] : spareTakes)
        for (const Take& take : spares) files.push_back(take.file);
    return files;
}

const OwnFinding* Review::ownFinding(std::string_view id) const {
    const auto it = std::find_if(own.begin(), own.end(), [&](const OwnFinding& f) { return f.id == id; });
    return it == own.end() ? nullptr : &*it;
}

const DeliveryMarks* Review::delivery(int wanted) const {
    const auto it = std::find_if(deliveries.begin(), deliveries.end(),
                                 [&](const DeliveryMarks& d) { return d.number == wanted; });
    return it == deliveries.end() ? nullptr : &*it;
}

DeliveryMarks* Review::delivery(int wanted) {
    return const_cast<DeliveryMarks*>(std::as_const(*this).delivery(wanted));
}

int Review::leading() const {
    const DeliveryMarks* chosen = delivery(lead);
    if (chosen && !chosen->blank()) return lead;
    const auto marked =
        std::find_if(deliveries.begin(), deliveries.end(), [](const DeliveryMarks& d) { return !d.blank(); });
    return marked == deliveries.end() ? lead : marked->number;
}

const DeliveryMarks& Review::deliveryOr(int wanted) const {
    for (const int number : {wanted, leading()})
        if (const DeliveryMarks* d = delivery(number)) return *d;
    return deliveries.front();
}

const Grade* Judging::grade(int delivery, const std::string& item) const {
    const auto it = grades.find({delivery, item});
    return it == grades.end() ? nullptr : &it->second;
}

} // namespace jg
