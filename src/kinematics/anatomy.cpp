// SPDX-License-Identifier: GPL-3.0-or-later
#include "kinematics/anatomy.h"

#include <array>

namespace jg {

namespace {

constexpr std::array kLandmarks = {
    LandmarkInfo{Landmark::Head, "head"},
    LandmarkInfo{Landmark::Crown, "crown"},
    LandmarkInfo{Landmark::Chin, "chin"},
    LandmarkInfo{Landmark::Neck, "neck"},
    LandmarkInfo{Landmark::MidBack, "mid-back"},
    LandmarkInfo{Landmark::Pelvis, "pelvis"},
    LandmarkInfo{Landmark::LeadShoulder, "lead-shoulder"},
    LandmarkInfo{Landmark::BackShoulder, "back-shoulder"},
    LandmarkInfo{Landmark::LeadElbow, "lead-elbow"},
    LandmarkInfo{Landmark::BackElbow, "back-elbow"},
    LandmarkInfo{Landmark::LeadWrist, "lead-wrist"},
    LandmarkInfo{Landmark::BackWrist, "back-wrist"},
    LandmarkInfo{Landmark::LeadHip, "lead-hip"},
    LandmarkInfo{Landmark::BackHip, "back-hip"},
    LandmarkInfo{Landmark::LeadKnee, "lead-knee"},
    LandmarkInfo{Landmark::BackKnee, "back-knee"},
    LandmarkInfo{Landmark::LeadAnkle, "lead-ankle"},
    LandmarkInfo{Landmark::BackAnkle, "back-ankle"},
    LandmarkInfo{Landmark::LeadHeel, "lead-heel"},
    LandmarkInfo{Landmark::BackHeel, "back-heel"},
    LandmarkInfo{Landmark::LeadToe, "lead-toe"},
    LandmarkInfo{Landmark::BackToe, "back-toe"},
    LandmarkInfo{Landmark::Ball, "ball"},
    LandmarkInfo{Landmark::Glove, "glove"},
    LandmarkInfo{Landmark::Rubber, "rubber"},
    LandmarkInfo{Landmark::Ground, "ground"},
};

constexpr std::array kMoments = {
    MomentInfo{Moment::Set, "set"},
    MomentInfo{Moment::LiftTop, "lift-top"},
    MomentInfo{Moment::HandBreak, "hand-break"},
    MomentInfo{Moment::Load, "load"},
    MomentInfo{Moment::FootTouch, "foot-touch"},
    MomentInfo{Moment::Plant, "plant"},
    MomentInfo{Moment::Layback, "layback"},
    MomentInfo{Moment::Release, "release"},
    MomentInfo{Moment::Finish, "finish"},
    MomentInfo{Moment::HandAboveShoulder, "hand-above-shoulder"},
    MomentInfo{Moment::KneeDown, "knee-down"},
    MomentInfo{Moment::BackKneeBends, "back-knee-bends"},
    MomentInfo{Moment::BackHeelOff, "back-heel-off"},
    MomentInfo{Moment::BackToeOff, "back-toe-off"},
    MomentInfo{Moment::BeforeTouch, "before-touch"},
    MomentInfo{Moment::PelvisTurns, "pelvis-turns"},
    MomentInfo{Moment::TrunkOpens, "trunk-opens"},
    MomentInfo{Moment::TrunkTilts, "trunk-tilts"},
    MomentInfo{Moment::FrontKneeExtends, "front-knee-extends"},
    MomentInfo{Moment::ElbowForward, "elbow-forward"},
    MomentInfo{Moment::HandForward, "hand-forward"},
    MomentInfo{Moment::ElbowHighest, "elbow-highest"},
    MomentInfo{Moment::HandLowest, "hand-lowest"},
    MomentInfo{Moment::LaybackFrom, "layback-from"},
    MomentInfo{Moment::LaybackTo, "layback-to"},
    MomentInfo{Moment::BeforeRelease, "before-release"},
    MomentInfo{Moment::BallAway, "ball-away"},
    MomentInfo{Moment::BallAtPlate, "ball-at-plate"},
    MomentInfo{Moment::HandHighest, "hand-highest"},
    MomentInfo{Moment::GloveFurthest, "glove-furthest"},
    MomentInfo{Moment::TravelStarts, "travel-starts"},
    MomentInfo{Moment::Address, "address"},
    MomentInfo{Moment::FirstStep, "first-step"},
    MomentInfo{Moment::Pivot, "pivot"},
    MomentInfo{Moment::LeadFootOff, "lead-foot-off"},
    MomentInfo{Moment::MostSeparation, "most-separation"},
};

constexpr std::size_t kKeyPositions = 9;

} // namespace

std::span<const LandmarkInfo> allLandmarks() {
    return kLandmarks;
}

Message LandmarkInfo::name() const {
    return msg("landmark." + std::string(id));
}

Message LandmarkInfo::where() const {
    return msg("landmark-where." + std::string(id));
}

Message MomentInfo::name() const {
    return msg("moment." + std::string(id));
}

Message MomentInfo::shortly() const {
    return msg("moment-short." + std::string(id));
}

Message MomentInfo::how() const {
    return msg("moment-how." + std::string(id));
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

Message nameOf(Hand hand) {
    return hand == Hand::Right ? msg("hand.right") : msg("hand.left");
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

Message nameOf(View view) {
    return msg("view." + std::string(idOf(view)));
}

Message viewsInWords(const std::vector<View>& views) {
    std::vector<Message> names;
    for (const View v : views) names.push_back(nameOf(v));
    return joined(ListStyle::Or, std::move(names));
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

Message placeOf(View view, Hand hand) {
    if (view == View::Front) return msg("place.behind-plate");
    if (view == View::Rear) return msg("place.second-base");
    const bool thirdBase = (view == View::Open) == (hand == Hand::Right);
    return thirdBase ? msg("place.third-base") : msg("place.first-base");
}

} // namespace jg
