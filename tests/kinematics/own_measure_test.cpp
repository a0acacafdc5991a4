// SPDX-License-Identifier: GPL-3.0-or-later
// Measures a coach makes: each kind gives the number its shipped like gives, and what is missing is said.
#include "kinematics/own_measure.h"

#include "kinematics/measure.h"

#include "tests/support/core.h"
#include "words/words.h"

#include <gtest/gtest.h>

#include <nlohmann/json.hpp>

namespace jg {
namespace {

using L = Landmark;

MeasureDefinition made(const OwnMeasureOrder& order) {
    const auto row = ownMeasureRow(order, english());
    EXPECT_TRUE(row) << (row ? "" : said(row.error().text));
    const auto all = parseMeasures(nlohmann::json{{"measures", {nlohmann::json::parse(*row)}}}.dump());
    EXPECT_TRUE(all);
    return all->front();
}

TEST(OwnMeasure, BehavesLikeAShippedOne) {
    const MeasureDefinition m =
        made({"Back shin at plant", "tilt", {L::BackAnkle, L::BackKnee}, {Moment::Plant}});
    EXPECT_EQ(m.id, "own-back-shin-at-plant");
    EXPECT_EQ(m.group, "own");
    MeasureInput in;
    in.points[m.slots[0].name] = {{100, 200}, 2};
    in.points[m.slots[1].name] = {{150, 113.4}, 2};
    const MeasureValue v = evaluate(m, in);
    ASSERT_TRUE(v.value);
    EXPECT_NEAR(*v.value, 30, 0.05); // tan 30 = 50 / 86.6
    EXPECT_GT(v.sd, 0);
    in.hand = Hand::Left; // the plate lies on the other side
    EXPECT_NEAR(*evaluate(m, in).value, -30, 0.05);
    in.view = View::Front;
    EXPECT_EQ(evaluate(m, in).state, MeasureState::NotVisible);
}

TEST(OwnMeasure, EveryKindCanBeMade) {
    const L joints[] = {L::BackHip, L::BackKnee, L::LeadHip, L::LeadKnee};
    for (const OwnMeasureKind& kind : ownMeasureKinds()) {
        OwnMeasureOrder order{"Trial " + std::string(kind.id), std::string(kind.id), {}, {Moment::Plant}};
        for (std::size_t i = 0; i < kind.points.size(); ++i) order.landmarks.push_back(joints[i]);
        if (kind.twoPositions) order.positions.push_back(Moment::Release);
        const MeasureDefinition m = made(order);
        EXPECT_EQ(m.unit, kind.unit) << kind.id;
        EXPECT_FALSE(m.formula.empty());
        if (m.hasPoints()) {
            MeasureInput in; // asks for its first point, as a shipped one does
            EXPECT_EQ(evaluate(m, in).state, MeasureState::NotLookedAt);
        }
    }
}

TEST(OwnMeasure, WhatIsMissingIsSaidInASentence) {
    const auto wrong = [](OwnMeasureOrder order) {
        const auto row = ownMeasureRow(order, english());
        return row ? std::string("nothing is wrong") : said(row.error().text);
    };
    EXPECT_EQ(wrong({"", "tilt", {L::BackAnkle, L::BackKnee}, {Moment::Plant}}),
              "Give the measure a name with a letter in it.");
    EXPECT_EQ(wrong({"Shin", "guess", {}, {}}), "Choose what kind of measure it is.");
    EXPECT_EQ(wrong({"Shin", "tilt", {L::BackAnkle, L::BackAnkle}, {Moment::Plant}}),
              "The back ankle stands there twice. Choose another one.");
    EXPECT_EQ(wrong({"Shin", "tilt", {L::BackAnkle}, {Moment::Plant}}),
              "Tilt of a line needs 2 landmarks. Choose each.");
    EXPECT_EQ(wrong({"Wait", "timeBetween", {}, {Moment::Release, Moment::Plant}}),
              "Plant does not come after Release. Choose a later one.");
    EXPECT_EQ(wrong({"Wait", "timeBetween", {}, {Moment::Plant}}),
              "Choose the two positions it lies between.");
    // Two lines may share an end, one line may not be a point.
    EXPECT_EQ(
        wrong({"Lines", "lineToLine", {L::BackHip, L::BackKnee, L::BackKnee, L::BackAnkle}, {Moment::Plant}}),
        "nothing is wrong");
    EXPECT_NE(
        wrong({"Lines", "lineToLine", {L::BackHip, L::BackHip, L::BackKnee, L::BackAnkle}, {Moment::Plant}}),
        "nothing is wrong");
}

} // namespace
} // namespace jg
