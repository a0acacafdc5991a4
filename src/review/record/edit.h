// SPDX-License-Identifier: GPL-3.0-or-later
// Edits of a review with exact undo: commands that hold ids and values, never pointers.
#pragma once

#include "review/record/review.h"

#include <optional>
#include <string>
#include <variant>
#include <vector>

namespace jg {

// Each change sets one keyed value; nothing = remove.
struct SetDelivery {
    int number;
    std::optional<DeliveryMarks> value;
};
struct SetConditions {
    Conditions value;
};
struct SetLead {
    int value;
};
struct SetPitch {
    int value;
};
struct SetCut {
    std::optional<FrameSpan> value;
};
struct SetTurn {
    std::optional<CameraTurn> value;
};
struct SetShake {
    std::optional<CameraShake> value;
};
struct SetScale {
    ScaleKind kind;
    std::optional<ScaleMark> value;
};
struct SetMoment {
    Moment moment;
    std::optional<MomentMark> value;
};
struct SetPoint {
    PointKey key;
    std::optional<PointMark> value;
};
struct SetPath {
    Landmark landmark;
    std::optional<FollowedPath> value;
};
struct SetMark {
    std::string id;
    std::optional<FreeMark> value;
};
struct SetGrade {
    std::size_t judging; ///< its place in the review
    GradeKey key;
    std::optional<Grade> value;
};
struct SetJudging {
    std::size_t judging;
    Judging value;
};
/// What a judging asks of a measure.
struct SetTarget {
    std::size_t judging;
    std::string measure;
    std::optional<Target> value;
};
struct SetOwnFindings {
    std::vector<OwnFinding> value;
};
struct SetMeasureNote {
    std::string measure;
    std::optional<MeasureNote> value;
};
struct SetAnswer {
    std::string measure;
    std::optional<MeasureAnswer> value;
};
struct SetGoal {
    std::string measure;
    std::optional<HandGoal> value;
};
struct SetExtras {
    std::vector<std::string> value;
};
struct SetStops {
    std::vector<Stop> value;
};
struct SetTake {
    StopId stop;
    std::optional<Take> value;
};
struct SetSpareTakes {
    StopId stop;
    std::optional<std::vector<Take>> value;
};
struct SetVeil {
    std::string id;
    std::optional<Veil> value;
};
struct SetPlan {
    Plan value;
};
using Change = std::variant<SetDelivery, SetConditions, SetLead, SetPitch, SetCut, SetTurn, SetShake,
                            SetScale, SetMoment, SetPoint, SetPath, SetMark, SetGrade, SetJudging, SetTarget,
                            SetOwnFindings, SetMeasureNote, SetAnswer, SetGoal, SetExtras, SetStops, SetTake,
                            SetSpareTakes, SetVeil, SetPlan>;

/// What of a review has changed, for who shows a part of it. Several may at once.
enum class Part : unsigned {
    Film = 1,     ///< which delivery is in hand, or its film
    Marks = 2,    ///< positions, points, the camera, answers
    Judged = 4,   ///< grades, targets, notes, what is asked
    Talk = 8,     ///< stops and takes
    Plan = 16,    ///< corrections, drills, the letter's own sentences
    People = 32,  ///< athlete, submission, pain
    Playbook = 64 ///< measures, approaches, drills
};

/// A set of parts.
class Parts {
public:
    constexpr Parts() = default;
    constexpr Parts(Part part)
        : bits_(static_cast<unsigned>(part)) {}
    static constexpr Parts all() { return Parts(127U); }
    constexpr Parts operator|(Parts other) const { return Parts(bits_ | other.bits_); }
    constexpr bool has(Parts any) const { return (bits_ & any.bits_) != 0; } ///< one of them at least
    constexpr bool operator==(const Parts&) const = default;

private:
    constexpr explicit Parts(unsigned bits)
        : bits_(bits) {}
    unsigned bits_ = 0;
};
constexpr Parts operator|(Part a, Parts b) {
    return Parts(a) | b;
}

/// One step of the history: what it is called, which delivery it is for, and what it changes.
struct Edit {
    Message label; ///< "Place the lead knee"
    std::vector<Change> changes;
    int delivery = 0; ///< its number in the review; what belongs to a film is set there
};

/// True when every delivery the edit is for is part of the review, or made by it.
bool canApply(const Review& review, const Edit& edit);

/// The parts that an edit is about. Pure.
Parts partsOf(const Edit& edit);

/// Applies an edit and returns the edit that takes it back. It must be one that canApply().
Edit apply(Review& review, const Edit& edit);

/// Undo and redo. Not thread-safe; lives beside its review.
class History {
public:
    /// Applies and remembers. While a gesture is open, edits for one delivery join into one step.
    void perform(Review& review, const Edit& edit);
    /// A drag: everything performed until endGesture() is one step.
    void beginGesture() {
        gesture_ = true;
        gestureSteps_ = 0;
    }
    void endGesture() { gesture_ = false; }
    bool inGesture() const { return gesture_; }
    /// Takes the last step back; the number of its delivery, nothing when there is no step. What is dragged
    /// on after it is a step of its own.
    std::optional<int> undo(Review& review);
    std::optional<int> redo(Review& review);
    bool canUndo() const { return !undo_.empty(); }
    bool canRedo() const { return !redo_.empty(); }
    /// What the next step back or on is about.
    Parts undoParts() const { return undo_.empty() ? Parts() : partsOf(undo_.back()); }
    Parts redoParts() const { return redo_.empty() ? Parts() : partsOf(redo_.back()); }
    Message undoLabel() const { return undo_.empty() ? Message{} : undo_.back().label; }
    Message redoLabel() const { return redo_.empty() ? Message{} : redo_.back().label; }

private:
    std::vector<Edit> undo_; ///< inverses
    std::vector<Edit> redo_;
    bool gesture_ = false;
    int gestureSteps_ = 0;
};

} // namespace jg
