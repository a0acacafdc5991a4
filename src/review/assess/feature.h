// SPDX-License-Identifier: GPL-3.0-or-later
// Features of a delivery that are followed over time.
#pragma once

#include "base/message.h"

#include <optional>
#include <span>
#include <string>
#include <string_view>

namespace jg {

/// What is followed. Lengths in percent of the body's height at Set.
enum class Feature {
    FrontKnee, ///< interior angle, degrees
    Hand,      ///< throwing wrist above the ground
    Hip,       ///< pelvis toward the target, from where it was at Set
    Head,      ///< head toward the target, from where it was at Set
    BackKnee,  ///< interior angle, degrees
    Elbow,     ///< of the throwing arm: interior angle, degrees
    Trunk,     ///< pelvis to neck against the plumb line, toward the target positive, degrees
    Ball,      ///< from the middle between pelvis and neck: the lever's length in the picture
};
std::span<const Feature> allFeatures();
Message nameOf(Feature feature);
/// The moment that matters of it, as one says it: "Front knee most bent".
Message momentOf(Feature feature);
std::string unitOf(Feature feature);
std::string_view idOf(Feature feature);
std::optional<Feature> featureFromId(std::string_view id);

} // namespace jg
