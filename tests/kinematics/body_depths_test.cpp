// The table of the body's depths.
#include "kinematics/body_depths.h"

#include "tests/support/fixtures.h"

namespace jg {
namespace {

TEST(BodyDepths, AreMirroredForTheOtherSideAndFilledByMoment) {
    const auto depths = BodyDepths::parse(
        R"({"depths": {"plant": {"lead-knee": [0.1, 0.02, 0.3, 0.04]}, "set": {"pelvis": [0.01, 0, -0.2, 0.03]}}})");
    ASSERT_TRUE(depths);
    EXPECT_EQ(depths->toward(View::Open, Moment::Plant, Landmark::LeadKnee)->value, 0.1);
    EXPECT_EQ(depths->toward(View::Closed, Moment::Plant, Landmark::LeadKnee)->value, -0.1);
    EXPECT_EQ(depths->toward(View::Rear, Moment::Plant, Landmark::LeadKnee)->value, -0.3);
    EXPECT_FALSE(depths->toward(View::Open, Moment::Load, Landmark::LeadKnee));
    MeasureInput in;
    depths->fill(*test::playbook().measure("front-knee-plant"), in);
    EXPECT_EQ(in.depths.size(), 1U); // the table knows one of its three points
    EXPECT_EQ(in.depths.at("knee").sd, 0.02);
    EXPECT_EQ(in.heightDepth.value, 0.01);
}

TEST(BodyDepths, ABrokenTableIsRefusedWithTheRowNamed) {
    for (const char* text : {"", "{}", R"({"depths": {"plant": {"nose": [0, 0, 0, 0]}}})",
                             R"({"depths": {"plant": {"head": [0, 0]}}})"}) {
        const auto depths = BodyDepths::parse(text);
        ASSERT_FALSE(depths) << text;
        EXPECT_EQ(depths.error().code, ErrorCode::BadInput);
    }
    EXPECT_NE(
        BodyDepths::parse(R"({"depths": {"plant": {"head": [0, 0]}}})").error().text.find("plant, head"),
        std::string::npos);
}

TEST(BodyDepths, TheShippedTableKnowsEveryLandmarkAtEveryKeyPosition) {
    for (const MomentInfo& m : keyPositions())
        for (const LandmarkInfo& l : allLandmarks())
            EXPECT_TRUE(test::playbook().depths.toward(View::Open, m.moment, l.landmark))
                << m.id << " " << l.id;
}

} // namespace
} // namespace jg
