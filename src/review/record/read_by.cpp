// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/record/read_by.h"

#include "review/record/people.h"
#include "review/record/review.h"

namespace jg {

ReadBy readBy(const Review& review, const Athlete& athlete) {
    constexpr int kNoLongerYoung = 12;
    const int age = athlete.ageOn(review.date);
    const Audience usual = 0 < age && age < kNoLongerYoung ? Audience::Young : Audience::Player;
    unsigned wording = 0; // the same on every machine, as std::hash is not
    for (const char c : review.id.value) wording = wording * 31 + static_cast<unsigned char>(c);
    return {review.plan.reader.value_or(usual), age, athlete.heightOn(review.date), wording % kWordings};
}

} // namespace jg
