#include "kinematics/anatomy.h"

#include <array>

namespace jg {

namespace {

constexpr std::array kLandmarks = {
    LandmarkInfo{Landmark::Head, "head", "head", "middle of the head, at the ear"},
    LandmarkInfo{Landmark::Crown, "crown", "top of the head", "highest point of the head or cap"},
    LandmarkInfo{Landmark::Chin, "chin", "chin", "tip of the chin"},
    LandmarkInfo{Landmark::Neck, "neck", "neck", "base of the neck, between the collarbones"},
    LandmarkInfo{Landmark::MidBack, "mid-back", "middle of the back", "halfway between neck and belt"},
    LandmarkInfo{Landmark::Pelvis, "pelvis", "pelvis", "the belt buckle"},
    LandmarkInfo{Landmark::LeadShoulder, "lead-shoulder", "lead shoulder", "middle of the shoulder joint"},
    LandmarkInfo{Landmark::BackShoulder, "back-shoulder", "throwing shoulder",
                 "middle of the shoulder joint"},
    LandmarkInfo{Landmark::LeadElbow, "lead-elbow", "lead elbow", "middle of the elbow"},
    LandmarkInfo{Landmark::BackElbow, "back-elbow", "throwing elbow", "middle of the elbow"},
    LandmarkInfo{Landmark::LeadWrist, "lead-wrist", "lead wrist", "middle of the wrist"},
    LandmarkInfo{Landmark::BackWrist, "back-wrist", "throwing wrist", "middle of the wrist"},
    LandmarkInfo{Landmark::LeadHip, "lead-hip", "lead hip", "where the thigh meets the pelvis, at the joint"},
    LandmarkInfo{Landmark::BackHip, "back-hip", "back hip", "where the thigh meets the pelvis, at the joint"},
    LandmarkInfo{Landmark::LeadKnee, "lead-knee", "lead knee", "middle of the cap"},
    LandmarkInfo{Landmark::BackKnee, "back-knee", "back knee", "middle of the cap"},
    LandmarkInfo{Landmark::LeadAnkle, "lead-ankle", "lead ankle", "the ankle bone"},
    LandmarkInfo{Landmark::BackAnkle, "back-ankle", "back ankle", "the ankle bone"},
    LandmarkInfo{Landmark::LeadHeel, "lead-heel", "lead heel", "back end of the sole"},
    LandmarkInfo{Landmark::BackHeel, "back-heel", "back heel", "back end of the sole"},
    LandmarkInfo{Landmark::LeadToe, "lead-toe", "lead toe", "front end of the sole"},
    LandmarkInfo{Landmark::BackToe, "back-toe", "back toe", "front end of the sole"},
    LandmarkInfo{Landmark::Ball, "ball", "ball", "middle of the ball"},
    LandmarkInfo{Landmark::Glove, "glove", "glove", "middle of the glove"},
    LandmarkInfo{Landmark::Rubber, "rubber", "rubber", "front edge of the rubber"},
    LandmarkInfo{Landmark::Ground, "ground", "ground", "where the soles meet the ground"},
};

constexpr std::array kMoments = {
    MomentInfo{Moment::Set, "set", "Set", "Set",
               "Hands together and still. Take the last frame before the lead foot grows light."},
    MomentInfo{Moment::LiftTop, "lift-top", "Top of the lift", "Top", "The lead knee is at its highest."},
    MomentInfo{Moment::HandBreak, "hand-break", "Hands part", "Part",
               "The first frame in which ball and glove are apart."},
    MomentInfo{Moment::Load, "load", "Deepest load", "Load",
               "The back knee is bent the most before the lead foot lands."},
    MomentInfo{Moment::FootTouch, "foot-touch", "First touch", "Touch",
               "The first frame in which any part of the lead foot is on the ground."},
    MomentInfo{Moment::Plant, "plant", "Plant", "Plant",
               "The lead foot is down and carries weight: the calf tightens. Often 1 to 3 frames after first "
               "touch."},
    MomentInfo{Moment::Layback, "layback", "Layback", "Lay", "The forearm is laid back as far as it goes."},
    MomentInfo{Moment::Release, "release", "Release", "Release",
               "The last frame with the ball in the hand. The next frame closes the bracket."},
    MomentInfo{Moment::Finish, "finish", "Finish", "Finish",
               "The arm is across the body and the back foot has come through."},
    MomentInfo{Moment::HandAboveShoulder, "hand-above-shoulder", "Hand above the shoulder", "Hand up",
               "The first frame in which the throwing hand is above the shoulder line."},
    MomentInfo{Moment::KneeDown, "knee-down", "Knee starts down", "Knee down",
               "The first frame in which the lead knee is lower than at the top of the lift."},
    MomentInfo{Moment::BackKneeBends, "back-knee-bends", "Back knee starts to bend", "Bends",
               "The first frame in which the back knee is more bent than at the top of the lift."},
    MomentInfo{Moment::BackHeelOff, "back-heel-off", "Back heel leaves the ground", "Heel off",
               "The first frame with light under the back heel."},
    MomentInfo{Moment::BackToeOff, "back-toe-off", "Back toe leaves the ground", "Toe off",
               "The first frame with the whole back foot off the ground."},
    MomentInfo{Moment::BeforeTouch, "before-touch", "Foot on its way down", "Before",
               "A frame about 50 ms before first touch, with the lead foot still in the air."},
    MomentInfo{Moment::PelvisTurns, "pelvis-turns", "Pelvis starts to turn", "Pelvis",
               "The first frame in which the belt turns toward the plate."},
    MomentInfo{Moment::TrunkOpens, "trunk-opens", "Shoulders start to turn", "Shoulders",
               "The first frame in which the shoulder line turns toward the plate."},
    MomentInfo{Moment::TrunkTilts, "trunk-tilts", "Trunk starts to tip", "Tips",
               "The first frame in which the trunk tips toward the plate."},
    MomentInfo{Moment::FrontKneeExtends, "front-knee-extends", "Front knee starts to straighten",
               "Straightens", "The first frame in which the front knee is straighter than the frame before."},
    MomentInfo{Moment::ElbowForward, "elbow-forward", "Elbow starts forward", "Elbow",
               "The first frame in which the throwing elbow moves toward the plate against the shoulder."},
    MomentInfo{Moment::HandForward, "hand-forward", "Hand starts forward", "Hand",
               "The first frame after layback in which the throwing hand moves toward the plate."},
    MomentInfo{Moment::ElbowHighest, "elbow-highest", "Elbow highest in the takeaway", "Elbow high",
               "The throwing elbow is at its highest between the parting of the hands and plant."},
    MomentInfo{Moment::HandLowest, "hand-lowest", "Hand lowest in the takeaway", "Hand low",
               "The throwing hand is at its lowest after the hands part."},
    MomentInfo{Moment::LaybackFrom, "layback-from", "Nearly laid back", "From",
               "The first frame with the forearm within about 10 degrees of its furthest."},
    MomentInfo{Moment::LaybackTo, "layback-to", "Leaves the layback", "To",
               "The last frame with the forearm within about 10 degrees of its furthest."},
    MomentInfo{Moment::BeforeRelease, "before-release", "Just before release", "Shortly",
               "A frame about 15 ms before release: one at 60 a second, four at 240."},
    MomentInfo{Moment::BallAway, "ball-away", "Ball on its way", "Away",
               "A frame a little after release, with the ball clear of the hand and still in the picture."},
    MomentInfo{Moment::BallAtPlate, "ball-at-plate", "Ball at the plate", "Plate",
               "The first frame in which the ball is at the plate, the net or the glove."},
};

constexpr std::size_t kKeyPositions = 9;

} // namespace

std::span<const LandmarkInfo> allLandmarks() {
    return kLandmarks;
}

const LandmarkInfo& info(Landmark landmark) {
    return kLandmarks.at(static_cast<std::size_t>(landmark));
}

std::optional<Landmark> landmarkFromId(std::string_view id) {
    for (const auto& row : kLandmarks)
        if (row.id == id) return row.landmark;
    return std::nullopt;
}

std::span<const MomentInfo> allMoments() {
    return kMoments;
}

std::span<const MomentInfo> keyPositions() {
    return std::span<const MomentInfo>(kMoments).first(kKeyPositions);
}

const MomentInfo& info(Moment moment) {
    return kMoments.at(static_cast<std::size_t>(moment));
}

std::optional<Moment> momentFromId(std::string_view id) {
    for (const auto& row : kMoments)
        if (row.id == id) return row.moment;
    return std::nullopt;
}

bool isKeyPosition(Moment moment) {
    return static_cast<std::size_t>(moment) < kKeyPositions;
}

std::string_view idOf(Hand hand) {
    return hand == Hand::Right ? "R" : "L";
}

std::optional<Hand> handFromId(std::string_view id) {
    if (id == "R" || id == "right") return Hand::Right;
    if (id == "L" || id == "left") return Hand::Left;
    return std::nullopt;
}

std::string_view nameOf(Hand hand) {
    return hand == Hand::Right ? "right" : "left";
}

std::string_view idOf(View view) {
    switch (view) {
    case View::Open:
        return "open";
    case View::Closed:
        return "closed";
    case View::Front:
        return "front";
    case View::Rear:
        break;
    }
    return "rear";
}

std::optional<View> viewFromId(std::string_view id) {
    for (const View view : {View::Open, View::Closed, View::Front, View::Rear})
        if (idOf(view) == id) return view;
    return std::nullopt;
}

std::string_view nameOf(View view) {
    switch (view) {
    case View::Open:
        return "open side";
    case View::Closed:
        return "closed side";
    case View::Front:
        return "front";
    case View::Rear:
        break;
    }
    return "rear";
}

bool isSideView(View view) {
    return view == View::Open || view == View::Closed;
}

int targetDirectionX(Hand hand, View view) {
    if (!isSideView(view)) return 0;
    const int openSide = hand == Hand::Right ? 1 : -1;
    return view == View::Open ? openSide : -openSide;
}

int gloveDirectionX(Hand hand, View view) {
    if (isSideView(view)) return 0;
    const int front = hand == Hand::Right ? 1 : -1;
    return view == View::Front ? front : -front;
}

std::string_view placeOf(View view, Hand hand) {
    if (view == View::Front) return "behind the plate";
    if (view == View::Rear) return "from second base";
    const bool thirdBase = (view == View::Open) == (hand == Hand::Right);
    return thirdBase ? "the third-base side" : "the first-base side";
}

} // namespace jg
