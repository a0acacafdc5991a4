#include "review/edit.h"

#include <algorithm>
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

struct Applier {
    Review& r;
    Change operator()(const SetAside& c) {
        const auto it = std::find_if(r.aside.begin(), r.aside.end(),
                                     [&](const DeliveryMarks& d) { return d.number == c.delivery; });
        SetAside before{c.delivery, std::nullopt};
        if (it != r.aside.end()) {
            before.value = std::move(*it);
            r.aside.erase(it);
        }
        if (c.value) r.aside.push_back(*c.value);
        return before;
    }
    Change operator()(const SetPitch& c) { return SetPitch{std::exchange(r.pitch, c.value)}; }
    Change operator()(const SetCut& c) { return SetCut{std::exchange(r.cut, c.value)}; }
    Change operator()(const SetTurn& c) { return SetTurn{std::exchange(r.turn, c.value)}; }
    Change operator()(const SetShake& c) { return SetShake{std::exchange(r.shake, c.value)}; }
    Change operator()(const SetScale& c) { return SetScale{c.kind, exchangeIn(r.scales, c.kind, c.value)}; }
    Change operator()(const SetMoment& c) {
        return SetMoment{c.moment, exchangeIn(r.moments, c.moment, c.value)};
    }
    Change operator()(const SetPoint& c) { return SetPoint{c.key, exchangeIn(r.points, c.key, c.value)}; }
    Change operator()(const SetPath& c) {
        return SetPath{c.landmark, exchangeIn(r.paths, c.landmark, c.value)};
    }
    Change operator()(const SetMark& c) { return SetMark{c.id, exchangeIn(r.marks, c.id, c.value)}; }
    Change operator()(const SetGrade& c) { return SetGrade{c.item, exchangeIn(r.grades, c.item, c.value)}; }
    Change operator()(const SetMeasureNote& c) {
        return SetMeasureNote{c.measure, exchangeIn(r.measureNotes, c.measure, c.value)};
    }
    Change operator()(const SetAnswer& c) {
        return SetAnswer{c.measure, exchangeIn(r.answers, c.measure, c.value)};
    }
    Change operator()(const SetExtras& c) { return SetExtras{std::exchange(r.extras, c.value)}; }
    Change operator()(const SetStops& c) { return SetStops{std::exchange(r.stops, c.value)}; }
    Change operator()(const SetTake& c) { return SetTake{c.stop, exchangeIn(r.takes, c.stop, c.value)}; }
    Change operator()(const SetPlan& c) { return SetPlan{std::exchange(r.plan, c.value)}; }
};

} // namespace

Edit apply(Review& review, const Edit& edit) {
    if (edit.delivery != 0) review.takeInHand(edit.delivery);
    Edit inverse{edit.label, {}, review.number};
    for (const Change& c : edit.changes) inverse.changes.push_back(std::visit(Applier{review}, c));
    std::reverse(inverse.changes.begin(), inverse.changes.end());
    return inverse;
}

void History::perform(Review& review, const Edit& edit) {
    Edit inverse = apply(review, edit);
    redo_.clear();
    if (gesture_ && gestureSteps_++ > 0 && !undo_.empty()) {
        // The later inverse must run first, so it goes in front.
        auto& joined = undo_.back().changes;
        joined.insert(joined.begin(), inverse.changes.begin(), inverse.changes.end());
        return;
    }
    undo_.push_back(std::move(inverse));
}

bool History::undo(Review& review) {
    if (undo_.empty()) return false;
    const Edit step = std::move(undo_.back());
    undo_.pop_back();
    redo_.push_back(apply(review, step));
    return true;
}

bool History::redo(Review& review) {
    if (redo_.empty()) return false;
    const Edit step = std::move(redo_.back());
    redo_.pop_back();
    undo_.push_back(apply(review, step));
    return true;
}

} // namespace jg
