// SPDX-License-Identifier: GPL-3.0-or-later
#include "coaching/throwing_guidance.h"

namespace jg {

namespace {

// From memory of the published table; checked as a whole in the tests' worked examples.
constexpr ThrowingGuidance kTable[] = {
    {7, 8, 50, {20, 35, 50, 65}},    {9, 10, 75, {20, 35, 50, 65}},  {11, 12, 85, {20, 35, 50, 65}},
    {13, 14, 95, {20, 35, 50, 65}},  {15, 16, 95, {30, 45, 60, 75}}, {17, 18, 105, {30, 45, 60, 80}},
    {19, 22, 120, {30, 45, 60, 80}},
};

} // namespace

int ThrowingGuidance::restAfter(int pitches) const {
    int rest = 0;
    while (rest < 4 && pitches > upTo[rest]) ++rest;
    return pitches <= 0 ? 0 : rest;
}

std::optional<ThrowingGuidance> throwingGuidance(int age) {
    for (const ThrowingGuidance& row : kTable)
        if (row.ageFrom <= age && age <= row.ageTo) return row;
    return std::nullopt;
}

Message guidanceInWords(int age) {
    const auto row = throwingGuidance(age);
    if (!row) return msg("guidance.none", {{"age", age}});
    return msg("guidance.row", {{"age", age},
                                {"most", row->mostADay},
                                {"none", row->upTo[0]},
                                {"one", row->upTo[1]},
                                {"two", row->upTo[2]},
                                {"three", row->upTo[3]}});
}

} // namespace jg
