// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/record/people.h"

namespace jg {

std::string_view idOf(Owes owes) {
    return owes == Owes::House ? "house" : "athlete";
}

std::string_view idOf(Kept kept) {
    constexpr std::string_view ids[] = {"open", "kept", "broken"};
    return ids[static_cast<int>(kept)];
}

int Athlete::ageOn(Date date) const {
    int age = static_cast<int>(date.year()) - static_cast<int>(born.year());
    if (date.month() < born.month() || (date.month() == born.month() && date.day() < born.day())) --age;
    return age;
}

double Athlete::heightOn(Date date) const {
    double height = heights.empty() ? heightM.value_or(0) : heights.front().metres;
    for (const HeightOn& h : heights)
        if (h.on <= date) height = h.metres;
    return height;
}

} // namespace jg
