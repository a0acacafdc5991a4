// SPDX-License-Identifier: GPL-3.0-or-later
// The words of the job: hands, views, landmarks and moments of a delivery.
#pragma once

#include "base/message.h"

#include <optional>
#include <span>
#include <string_view>
#include <vector>

namespace jg {

/// The throwing hand. A left-hander's numbers are never flipped; only the target's side in the picture is.
enum class Hand { Right, Left };

/// Where the camera stood. Open: it faces the chest at set. Closed: the back. Front: from the plate.
/// Rear: from second base.
enum class View { Open, Closed, Front, Rear };

/// Points of the body and the field a coach clicks. Lead = stride leg and glove side; back = drive leg and
/// throwing side.
enum class Landmark {
    Head,
    Crown,
    Chin,
    Neck,
    MidBack,
    Pelvis,
    LeadShoulder,
    BackShoulder,
    LeadElbow,
    BackElbow,
    LeadWrist,
    BackWrist,
    LeadHip,
    BackHip,
    LeadKnee,
    BackKnee,
    LeadAnkle,
    BackAnkle,
    LeadHeel,
    BackHeel,
    LeadToe,
    BackToe,
    Ball,
    Glove,
    Rubber,
    Ground,
};

/// The nine key positions in their order, then the extra moments some measures need.
enum class Moment {
    Set,
    LiftTop,
    HandBreak,
    Load,
    FootTouch,
    Plant,
    Layback,
    Release,
    Finish,
    HandAboveShoulder, ///< first frame with the throwing hand above the shoulder line before plant
    KneeDown,
    BackKneeBends,
    BackHeelOff,
    BackToeOff,
    BeforeTouch,
    PelvisTurns,
    TrunkOpens,
    TrunkTilts,
    FrontKneeExtends,
    ElbowForward,
    HandForward,
    ElbowHighest,
    HandLowest,
    LaybackFrom,
    LaybackTo,
    BeforeRelease,
    BallAway,
    BallAtPlate,
    HandHighest,
    GloveFurthest,
    TravelStarts,
    Address, ///< the feet are placed, before anything moves
    FirstStep,
    Pivot, ///< the back foot has turned along the rubber
    LeadFootOff,
    MostSeparation, ///< hips furthest ahead of the shoulders
};

struct LandmarkInfo {
    Landmark landmark;
    std::string_view id; ///< "back-knee"

    Message name() const;  ///< "back knee"
    Message where() const; ///< where exactly to click, in plain words
};

struct MomentInfo {
    Moment moment;
    std::string_view id; ///< "lift-top"

    Message name() const;    ///< "Top of the lift"
    Message shortly() const; ///< "Top"
    Message how() const;     ///< how it is recognised
};

std::span<const LandmarkInfo> allLandmarks();
const LandmarkInfo& info(Landmark landmark);
std::optional<Landmark> landmarkFromId(std::string_view id);

/// All moments; the first nine are the key positions in order.
std::span<const MomentInfo> allMoments();
/// The nine key positions in order.
std::span<const MomentInfo> keyPositions();
const MomentInfo& info(Moment moment);
std::optional<Moment> momentFromId(std::string_view id);
bool isKeyPosition(Moment moment);

std::string_view idOf(Hand hand); ///< "R" or "L"
std::optional<Hand> handFromId(std::string_view id);
Message nameOf(Hand hand); ///< "right" or "left"

std::string_view idOf(View view);
std::optional<View> viewFromId(std::string_view id);
Message nameOf(View view);                            ///< "open side" ...
Message viewsInWords(const std::vector<View>& views); ///< "front or rear"
bool isSideView(View view);

/// +1 when the plate lies to the right in the picture, -1 when to the left, 0 for front and rear.
int targetDirectionX(Hand hand, View view);

/// +1 when the glove side lies to the right in the picture, -1 when to the left, 0 for side views.
int gloveDirectionX(Hand hand, View view);

/// Where a coach should stand with the camera for this view, worded from the hand ("third-base side").
Message placeOf(View view, Hand hand);

} // namespace jg
