// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/tell/stops.h"

#include <algorithm>
#include <cmath>

namespace jg {

std::int64_t frameOfFinding(const DeliveryMarks& delivery, const Playbook& playbook,
                            std::string_view finding) {
    if (const auto moment = playbook.shownAt(finding))
        if (const auto frame = delivery.frameOf(*moment)) return *frame;
    for (const MomentInfo& m : keyPositions())
        if (const auto frame = delivery.frameOf(m.moment)) return *frame;
    return 0;
}

FindingPlace placeOfFinding(const Review& review, const Playbook& playbook, const Assessment& a,
                            std::string_view finding) {
    if (const OwnFinding* own = review.ownFinding(finding)) return {own->delivery, own->frame};
    const MeasureRow* row = a.measure(finding);
    const int delivery = row ? row->delivery : a.delivery;
    return {delivery, frameOfFinding(review.deliveryOr(delivery), playbook, finding)};
}

std::optional<Stop> stopFor(const Review& review, const Playbook& playbook, const Assessment& a,
                            std::string_view finding, StopId id) {
    if (!playbook.isFinding(finding)) return std::nullopt;
    const Judged* judged = a.judged(finding);
    const bool strength = judged && judged->strength;
    Stop stop;
    stop.id = std::move(id);
    stop.kind = strength ? StopKind::Strength : StopKind::Correction;
    stop.finding = std::string(finding);
    stop.title = strength ? playbook.nameOfFinding(finding) : goalOf(playbook, a, finding);
    const FindingPlace place = placeOfFinding(review, playbook, a, finding);
    stop.delivery = place.delivery;
    stop.frame = place.frame;
    return stop;
}

std::vector<Stop> withStop(std::vector<Stop> stops, Stop stop) {
    const auto after = std::find_if(stops.begin(), stops.end(), [&](const Stop& s) {
        return s.kind > stop.kind && s.kind != StopKind::Own;
    });
    stops.insert(after, std::move(stop));
    return stops;
}

std::vector<Stop> withOwnStop(std::vector<Stop> stops, Stop stop, std::optional<std::size_t> behind) {
    stop.kind = StopKind::Own;
    auto at =
        std::find_if(stops.begin(), stops.end(), [](const Stop& s) { return s.kind == StopKind::Recap; });
    if (behind && *behind < stops.size()) at = stops.begin() + static_cast<std::ptrdiff_t>(*behind) + 1;
    stops.insert(at, std::move(stop));
    return stops;
}

std::vector<Judged> unsaid(const Review& review, const Assessment& a) {
    std::vector<Judged> open;
    for (const Judged& j : a.findings) {
        const bool said = std::any_of(review.stops.begin(), review.stops.end(),
                                      [&](const Stop& s) { return s.finding == j.finding.id; });
        if (!said) open.push_back(j);
    }
    const auto place = [](const Judged& j) { return j.strength ? 0 : j.cannotTell ? 2 : 1; };
    std::stable_sort(open.begin(), open.end(),
                     [&](const Judged& x, const Judged& y) { return place(x) < place(y); });
    return open;
}

} // namespace jg
