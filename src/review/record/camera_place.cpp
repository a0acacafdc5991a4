// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/record/camera_place.h"

#include "kinematics/geometry.h"
#include "kinematics/place.h"

#include <algorithm>
#include <cmath>

namespace jg {

namespace {

/// A click whose error nobody measured or gave.
bool isUsual(const ClickedPoint& click) {
    return click.sigmaPx == kDefaultClickSigmaPx;
}

} // namespace

Estimate StandingBody::height() const {
    const auto error = [](const ClickedPoint& p) { return std::hypot(p.sigmaPx, p.leanPx); };
    return {length(ground.at - crown.at), std::hypot(error(crown), error(ground))};
}

ImagePoint StandingBody::middle() const {
    return {(crown.at.x + ground.at.x) / 2, (crown.at.y + ground.at.y) / 2};
}

std::optional<StandingBody> standingAtSet(const DeliveryMarks& delivery) {
    const auto set = delivery.frameOf(Moment::Set);
    if (!set) return std::nullopt;
    const PointMark *crown = delivery.seenPoint(*set, Landmark::Crown),
                    *ground = delivery.seenPoint(*set, Landmark::Ground);
    if (!crown || !ground) return std::nullopt;
    StandingBody body{crown->point, ground->point};
    const double height = length(body.ground.at - body.crown.at);
    for (ClickedPoint* end : {&body.crown, &body.ground})
        if (isUsual(*end)) end->leanPx = kDefaultLeanPart * height;
    return body;
}

Estimate heightOf(const DeliveryMarks& delivery) {
    const auto body = standingAtSet(delivery);
    return body ? body->height() : Estimate{0, 0};
}

ClickedPoint withLean(ClickedPoint click, const Clip& clip, double heightPx) {
    if (!isUsual(click)) return click;
    click.sigmaPx *= std::max(1.0, clip.height / kClickLines);
    click.leanPx = kDefaultLeanPart * heightPx;
    return click;
}

ImagePoint centreOf(const Clip& clip) {
    return {clip.width / 2.0, clip.height / 2.0};
}

std::optional<CameraPlace> cameraPlaceOf(const DeliveryMarks& delivery, const Clip& clip) {
    constexpr Estimate kDistance = {4.2, 1.0}; // own choice, standing heights: phones are held 5 to 9 m away
    constexpr Estimate kLens = {0.6, 0.15}; // own choice: between belt and chest, as a re-film request asks
    const auto body = standingAtSet(delivery);
    if (!body) return std::nullopt;
    const ImagePoint centre = centreOf(clip);
    const double below = (body->ground.at.y - centre.y) / std::max(1.0, body->height().value);
    return CameraPlace{centre, kDistance, pitchFromGround(below, kLens, kDistance), body->middle()};
}

} // namespace jg
