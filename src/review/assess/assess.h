// SPDX-License-Identifier: GPL-3.0-or-later
// What a review says so far: every measure and item with its state, and the counts of the walk.
#pragma once

#include "coaching/causes.h"
#include "kinematics/foreshortening.h"
#include "review/assess/pitches.h"
#include "review/record/people.h"
#include "review/record/review.h"

#include <string>
#include <vector>

namespace jg {

/// One measure of the approach: number, judgement, and the words for both. The number is that of the delivery
/// assessed; when its film can't show the measure, that of a film that can.
struct MeasureRow {
    std::string id;
    MeasureValue value;
    Judgement judgement;
    Target target;
    int delivery = 1;                      ///< whose number it is
    std::vector<DeliveryValue> deliveries; ///< on each that has a number; empty while there is but one
    std::optional<PitchSpread> spread;     ///< over two pitches and more
    std::optional<Grade> byHand;           ///< the coach's own verdict, which counts before the target's
};

/// One graded item of the card.
struct ItemRow {
    std::string id;
    std::optional<Grade>
        grade; ///< of the delivery assessed, else of the first that has one; nothing = not looked at
    bool seenFromHere = true;
    int delivery = 1; ///< whose grade it is
};

struct Counts {
    int positions = 0, positionsAll = 0;
    int measures = 0, measuresAll = 0, measuresNotVisible = 0;
    int judged = 0, judgedAll = 0;
    int said = 0, saidAll = 0;
    int corrections = 0;
    int drills = 0, drillsWithoutDose = 0;
};

/// What a stage of the walk counts: how many of how many, and whether there is no more to do there.
struct StageWork {
    int done = 0, all = 0; ///< 0 of 0: the stage counts nothing
    bool complete = false;
};
StageWork workAt(Stage stage, const Counts& counts);

/// A finding and whether it is a strength.
struct Judged {
    Finding finding;
    bool strength = false;
    bool cannotTell = false;
};

struct Assessment {
    int delivery = 1; ///< the one assessed
    std::vector<MeasureRow> measures;
    std::vector<ItemRow> items;
    std::vector<Judged> findings; ///< everything with a verdict, strengths too
    std::vector<Message> notSeen; ///< what could not be seen, and what to ask for
    Counts counts;

    const MeasureRow* measure(std::string_view id) const;
    /// The verdict on a measure or an item; null when it has none.
    const Judged* judged(std::string_view id) const;
    /// A finding with the side on which it is off; without one for what is good, can't be told or has none.
    SidedRow sided(std::string_view id) const;
    /// Faults only, for the cause graph.
    std::vector<Finding> faults() const;
};

/// The input of a measure from all a delivery holds: points, positions, level marks, scales, the camera's
/// turn and answers. `limbs` as limbsTurned().
MeasureInput inputFor(const DeliveryMarks& delivery, const Playbook& playbook,
                      const MeasureDefinition& measure, const Clip& clip, Hand hand,
                      const std::vector<LimbTurn>& limbs = {});

/// The scales of a delivery whose length a film of this view shows.
std::vector<SeenLength> scalesSeen(const DeliveryMarks& delivery, View view);

/// Limbs that look shorter on one position than on another: they lie out of the picture's plane.
std::vector<LimbTurn> limbsTurned(const DeliveryMarks& delivery);

/// Assesses a whole review by its frozen approach, with all films of its submission, as seen from one of its
/// deliveries (kLead = the one the letter tells). Pure; any thread.
inline constexpr int kLead = 0;
Assessment assess(const Review& review, const Playbook& playbook, const std::vector<Clip>& clips, Hand hand,
                  int delivery = kLead);
/// The same with one film.
Assessment assess(const Review& review, const Playbook& playbook, const Clip& clip, Hand hand);

/// The same of numbers that were found elsewhere, in place of points. Pure.
Assessment assessGiven(const Review& review, const Playbook& playbook, const std::vector<Clip>& clips,
                       const std::vector<MeasureValue>& numbers);

/// The playbook with the review's own findings among its items.
Playbook withOwnFindings(Playbook playbook, const Review& review);

/// Whether there are findings and none of them is sure.
bool tellsNothing(const Assessment& a);

/// Whether a number and its error lie within what is wanted: only then is it praised. True for what has no
/// number, or no target. Pure.
bool isSurelyGood(const MeasureRow& row);

/// What a finding is called as something to work on: the goal of an item or of its side, what a measure's
/// number or answer is to do; its name when the playbook has no better word. Pure.
std::string goalOf(const Playbook& playbook, const Assessment& a, std::string_view finding);

/// The verdict a grade stands for.
std::optional<Verdict> verdictOf(const Grade& grade, bool protectsArm);

} // namespace jg
