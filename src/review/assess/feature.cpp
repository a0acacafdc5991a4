// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/assess/feature.h"

#include <algorithm>
#include <array>

namespace jg {

namespace {

struct FeatureInfo {
    Feature feature;
    const char *id, *unit, *name, *moment;
};
constexpr std::array<FeatureInfo, 8> kFeatures = {
    {{Feature::FrontKnee, "front-knee", "deg", "feature.front-knee", "feature.front-knee-moment"},
     {Feature::Hand, "hand", "%", "feature.hand", "feature.hand-moment"},
     {Feature::Hip, "hip", "%", "feature.hip", "feature.hip-moment"},
     {Feature::Head, "head", "%", "feature.head", "feature.head-moment"},
     {Feature::BackKnee, "back-knee", "deg", "feature.back-knee", "feature.back-knee-moment"},
     {Feature::Elbow, "elbow", "deg", "feature.elbow", "feature.elbow-moment"},
     {Feature::Trunk, "trunk", "deg", "feature.trunk", "feature.trunk-moment"},
     {Feature::Ball, "ball", "%", "feature.ball", "feature.ball-moment"}}};

const FeatureInfo& infoOf(Feature feature) {
    return kFeatures.at(static_cast<std::size_t>(feature));
}

} // namespace

std::span<const Feature> allFeatures() {
    static constexpr std::array all = {Feature::FrontKnee, Feature::Hand,  Feature::Hip,   Feature::Head,
                                       Feature::BackKnee,  Feature::Elbow, Feature::Trunk, Feature::Ball};
    return all;
}

Message nameOf(Feature feature) {
    return msg(infoOf(feature).name);
}

Message momentOf(Feature feature) {
    return msg(infoOf(feature).moment);
}

std::string unitOf(Feature feature) {
    return infoOf(feature).unit;
}

std::string_view idOf(Feature feature) {
    return infoOf(feature).id;
}

std::optional<Feature> featureFromId(std::string_view id) {
    const auto it =
        std::find_if(kFeatures.begin(), kFeatures.end(), [&](const auto& f) { return f.id == id; });
    return it == kFeatures.end() ? std::nullopt : std::optional(it->feature);
}

} // namespace jg
