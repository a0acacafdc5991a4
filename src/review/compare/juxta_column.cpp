// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/compare/juxta_column.h"

namespace jg {

Message nameOf(const JuxtaAt& at) {
    if (const auto* feature = std::get_if<Feature>(&at)) return momentOf(*feature);
    return info(std::get<Moment>(at)).name();
}

std::string_view idOf(const JuxtaAt& at) {
    if (const auto* feature = std::get_if<Feature>(&at)) return idOf(*feature);
    return info(std::get<Moment>(at)).id;
}

std::vector<JuxtaAt> allJuxtaColumns() {
    std::vector<JuxtaAt> all;
    for (const MomentInfo& m : keyPositions()) all.emplace_back(m.moment);
    for (const Feature f : allFeatures()) all.emplace_back(f);
    return all;
}

std::optional<JuxtaAt> juxtaColumnFromId(std::string_view id) {
    if (const auto moment = momentFromId(id)) return *moment;
    if (const auto feature = featureFromId(id)) return *feature;
    return std::nullopt;
}

} // namespace jg
