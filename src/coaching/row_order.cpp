// SPDX-License-Identifier: GPL-3.0-or-later
#include "coaching/row_order.h"

#include <array>

namespace jg {

double placeInTime(Moment moment) {
    using M = Moment;
    static constexpr std::array<std::pair<Moment, double>, 36> places = {{
        {M::Set, 0},          {M::TravelStarts, 1},  {M::LiftTop, 2},           {M::KneeDown, 3},
        {M::HandBreak, 3},    {M::BackKneeBends, 3}, {M::HandLowest, 4},        {M::Load, 4},
        {M::BackHeelOff, 5},  {M::ElbowHighest, 5},  {M::GloveFurthest, 5},     {M::BeforeTouch, 5},
        {M::FootTouch, 5},    {M::PelvisTurns, 6},   {M::HandAboveShoulder, 6}, {M::Plant, 6},
        {M::TrunkOpens, 6},   {M::TrunkTilts, 6},    {M::HandHighest, 6},       {M::LaybackFrom, 7},
        {M::ElbowForward, 7}, {M::Layback, 7},       {M::LaybackTo, 7},         {M::FrontKneeExtends, 8},
        {M::HandForward, 8},  {M::BeforeRelease, 8}, {M::BackToeOff, 8},        {M::Release, 8},
        {M::BallAway, 9},     {M::BallAtPlate, 9},   {M::Finish, 10},           {M::Address, 0},
        {M::FirstStep, 0},    {M::Pivot, 0},         {M::LeadFootOff, 1},       {M::MostSeparation, 6},
    }};
    for (const auto& [m, place] : places)
        if (m == moment) return place;
    return 0;
}

bool isLater(const Playbook& playbook, std::string_view from, std::string_view to) {
    const auto cause = playbook.shownAt(from), effect = playbook.shownAt(to);
    return cause && effect && placeInTime(*cause) > placeInTime(*effect);
}

} // namespace jg
