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

std::string_view placeOf(View view, Hand hand) {
    if (view == View::Front) return "behind the plate";
    if (view == View::Rear) return "from second base";
    const bool thirdBase = (view == View::Open) == (hand == Hand::Right);
    return thirdBase ? "the third-base side" : "the first-base side";
}

} // namespace jg
