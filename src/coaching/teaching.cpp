// SPDX-License-Identifier: GPL-3.0-or-later
#include "coaching/teaching.h"

#include "base/unfit.h"
#include "coaching/row_order.h"

#include <algorithm>
#include <array>

namespace jg {

namespace {

constexpr std::array<std::string_view, 4> kIds = {"", "from-the-feet", "from-the-end", "from-the-start"};

/// What stands on the ground first; what is of no part of the body is taken up with the arm.
double heightOf(const Playbook& playbook, const std::string& finding) {
    return static_cast<double>(std::min(placeInBody(playbook.groupOfFinding(finding)), placeInBody("arm")));
}

double placeOf(const Playbook& playbook, Teaching teaching, const std::string& finding) {
    const auto moment = playbook.shownAt(finding);
    switch (teaching) {
    case Teaching::FromTheFeet:
        return heightOf(playbook, finding);
    case Teaching::FromTheEnd:
        return moment ? -placeInTime(*moment) : 0;
    case Teaching::FromTheStart:
        return moment ? placeInTime(*moment) : 0;
    case Teaching::ByWeight:
        break;
    }
    return 0;
}

} // namespace

std::string_view idOf(Teaching teaching) {
    return kIds.at(static_cast<std::size_t>(teaching));
}

Teaching teachingFromId(std::string_view id) {
    const auto it = std::find(kIds.begin(), kIds.end(), id);
    if (it == kIds.end()) unfit(msg("playbook.unknown-teaching", {{"id", id}}));
    return static_cast<Teaching>(it - kIds.begin());
}

Message nameOf(Teaching teaching) {
    static constexpr std::array names = {"teaching.by-weight", "teaching.from-the-feet",
                                         "teaching.from-the-end", "teaching.from-the-start"};
    return msg(names.at(static_cast<std::size_t>(teaching)));
}

const std::vector<Teaching>& allTeachings() {
    static const std::vector all = {Teaching::ByWeight, Teaching::FromTheFeet, Teaching::FromTheEnd,
                                    Teaching::FromTheStart};
    return all;
}

std::vector<std::string> inTeachingOrder(const Playbook& playbook, Teaching teaching,
                                         std::vector<std::string> findings) {
    std::stable_sort(findings.begin(), findings.end(), [&](const std::string& x, const std::string& y) {
        return placeOf(playbook, teaching, x) < placeOf(playbook, teaching, y);
    });
    return findings;
}

} // namespace jg
