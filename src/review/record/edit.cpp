// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/record/edit.h"

#include "coaching/approach_rows.h"

#include <algorithm>
#include <type_traits>
#include <utility>

namespace jg {

namespace {

/// Sets or removes map[key], returning what stood there.
template <typename Map, typename Key, typename Value>
std::optional<Value> exchangeIn(Map& map, const Key& key, const std::optional<Value>& value) {
    std::optional<Value> before;
    if (const auto it = map.find(key); it != map.end()) before = it->second;
    if (value)
        map[key] = *value;
    else
        map.erase(key);
    return before;
}

/// What belongs to the review as a whole, with the inverse of each.
struct ReviewChanges {
    Review& r;
    Change operator()(const SetDelivery& c) {
        auto& all = r.deliveries;
        const auto at = std::lower_bound(all.begin(), all.end(), c.number,
                                         [](const DeliveryMarks& d, int n) { return d.number < n; });
        SetDelivery before{c.number, std::nullopt};
        if (at != all.end() && at->number == c.number) {
            before.value = std::move(*at);
            if (c.value)
                *at = *c.value;
            else
                all.erase(at);
        } else if (c.value) {
            all.insert(at, *c.value);
        }
        return before;
    }
    Change operator()(const SetLead& c) { return SetLead{std::exchange(r.lead, c.value)}; }
    Change operator()(const SetGrade& c) {
        return SetGrade{c.judging, c.key, exchangeIn(r.judgings.at(c.judging).grades, c.key, c.value)};
    }
    Change operator()(const SetJudging& c) {
        return SetJudging{c.judging, std::exchange(r.judgings.at(c.judging), c.value)};
    }
    Change operator()(const SetTarget& c) {
        return SetTarget{c.judging, c.measure,
                         exchangeTarget(r.judgings.at(c.judging).approach, c.measure, c.value)};
    }
    Change operator()(const SetOwnFindings& c) { return SetOwnFindings{std::exchange(r.own, c.value)}; }
    Change operator()(const SetExtras& c) { return SetExtras{std::exchange(r.extras, c.value)}; }
    Change operator()(const SetStops& c) { return SetStops{std::exchange(r.stops, c.value)}; }
    Change operator()(const SetTake& c) { return SetTake{c.stop, exchangeIn(r.takes, c.stop, c.value)}; }
    Change operator()(const SetSpareTakes& c) {
        return SetSpareTakes{c.stop, exchangeIn(r.spareTakes, c.stop, c.value)};
    }
    Change operator()(const SetPlan& c) { return SetPlan{std::exchange(r.plan, c.value)}; }
};

/// What belongs to one delivery, with the inverse of each.
struct DeliveryChanges {
    Review& r;
    DeliveryMarks& d;
    Change operator()(const SetConditions& c) { return SetConditions{std::exchange(d.conditions, c.value)}; }
    Change operator()(const SetPitch& c) { return SetPitch{std::exchange(d.pitch, c.value)}; }
    Change operator()(const SetCut& c) { return SetCut{std::exchange(d.cut, c.value)}; }
    Change operator()(const SetTurn& c) { return SetTurn{std::exchange(d.turn, c.value)}; }
    Change operator()(const SetShake& c) { return SetShake{std::exchange(d.shake, c.value)}; }
    Change operator()(const SetScale& c) { return SetScale{c.kind, exchangeIn(d.scales, c.kind, c.value)}; }
    Change operator()(const SetMoment& c) {
        return SetMoment{c.moment, exchangeIn(d.moments, c.moment, c.value)};
    }
    Change operator()(const SetPoint& c) { return SetPoint{c.key, exchangeIn(d.points, c.key, c.value)}; }
    Change operator()(const SetPath& c) {
        return SetPath{c.landmark, exchangeIn(d.paths, c.landmark, c.value)};
    }
    Change operator()(const SetMark& c) { return SetMark{c.id, exchangeIn(d.marks, c.id, c.value)}; }
    /// Who is hidden is so on the whole film: in its other deliveries, too.
    Change operator()(const SetVeil& c) {
        for (DeliveryMarks& other : r.deliveries)
            if (&other != &d && other.clip == d.clip) exchangeIn(other.veils, c.id, c.value);
        return SetVeil{c.id, exchangeIn(d.veils, c.id, c.value)};
    }
    Change operator()(const SetMeasureNote& c) {
        return SetMeasureNote{c.measure, exchangeIn(d.measureNotes, c.measure, c.value)};
    }
    Change operator()(const SetAnswer& c) {
        return SetAnswer{c.measure, exchangeIn(d.answers, c.measure, c.value)};
    }
    Change operator()(const SetGoal& c) {
        return SetGoal{c.measure, exchangeIn(d.goals, c.measure, c.value)};
    }
};

bool isOfDelivery(const Change& change) {
    return std::visit([](const auto& c) { return !std::is_invocable_v<ReviewChanges, decltype(c)>; }, change);
}

Change applyOne(Review& review, int delivery, const Change& change) {
    return std::visit(
        [&](const auto& c) -> Change {
            if constexpr (std::is_invocable_v<ReviewChanges, decltype(c)>)
                return ReviewChanges{review}(c);
            else
                return DeliveryChanges{review, *review.delivery(delivery)}(c);
        },
        change);
}

} // namespace

bool canApply(const Review& review, const Edit& edit) {
    const bool made = std::any_of(edit.changes.begin(), edit.changes.end(), [&](const Change& c) {
        const auto* added = std::get_if<SetDelivery>(&c);
        return added && added->number == edit.delivery && added->value;
    });
    if (made || review.delivery(edit.delivery)) return true;
    return std::none_of(edit.changes.begin(), edit.changes.end(), isOfDelivery);
}

namespace {

template <typename T, typename... Kinds>
constexpr bool isOneOf = (std::is_same_v<T, Kinds> || ...);

Part partOf(const Change& change) {
    return std::visit(
        []<typename T>(const T&) {
            if constexpr (isOneOf<T, SetGrade, SetJudging, SetTarget, SetOwnFindings, SetMeasureNote,
                                  SetExtras>)
                return Part::Judged;
            else if constexpr (isOneOf<T, SetStops, SetTake, SetSpareTakes>)
                return Part::Talk;
            else if constexpr (isOneOf<T, SetPlan>)
                return Part::Plan;
            else if constexpr (isOneOf<T, SetDelivery, SetLead>)
                return Part::Film;
            else
                return Part::Marks;
        },
        change);
}

} // namespace

Parts partsOf(const Edit& edit) {
    Parts parts;
    for (const Change& change : edit.changes) parts = parts | partOf(change);
    return parts;
}

Edit apply(Review& review, const Edit& edit) {
    Edit inverse{edit.label, {}, edit.delivery};
    for (const Change& c : edit.changes) inverse.changes.push_back(applyOne(review, edit.delivery, c));
    std::reverse(inverse.changes.begin(), inverse.changes.end());
    return inverse;
}

void History::perform(Review& review, const Edit& edit) {
    Edit inverse = apply(review, edit);
    redo_.clear();
    if (gesture_ && gestureSteps_++ > 0 && !undo_.empty() && undo_.back().delivery == edit.delivery) {
        // The later inverse must run first, so it goes in front.
        auto& joined = undo_.back().changes;
        joined.insert(joined.begin(), inverse.changes.begin(), inverse.changes.end());
        return;
    }
    undo_.push_back(std::move(inverse));
}

namespace {

std::optional<int> step(Review& review, std::vector<Edit>& from, std::vector<Edit>& to) {
    if (from.empty()) return std::nullopt;
    const Edit edit = std::move(from.back());
    from.pop_back();
    to.push_back(apply(review, edit));
    return edit.delivery;
}

} // namespace

std::optional<int> History::undo(Review& review) {
    gestureSteps_ = 0;
    return step(review, undo_, redo_);
}

std::optional<int> History::redo(Review& review) {
    gestureSteps_ = 0;
    return step(review, redo_, undo_);
}

} // namespace jg
