// SPDX-License-Identifier: GPL-3.0-or-later
// A delivery that is compared with others, as a value.
#pragma once

#include "review/assess/assess.h"

#include <map>
#include <string>

namespace jg {

/// Which delivery of which review.
struct JuxtaKey {
    ReviewId review;
    int delivery = 0; ///< 0 = the review's lead
    bool operator==(const JuxtaKey&) const = default;
};

/// A delivery that is to stand in a sheet.
struct JuxtaEntry {
    JuxtaKey key;
    AthleteId athlete;
    std::string name;     ///< whose, as they are called
    std::string baseline; ///< what the coach calls it, "before the injury"; may be empty
    int age = 0;          ///< on that day
    Date when{};
    double heightM = 0; ///< of the body on that day; 0 = not known
    Hand hand = Hand::Right;
    Clip clip;
    DeliveryMarks marks;
    Assessment results;
    std::map<std::string, std::string> definitions; ///< of its measures, as it was judged by

    /// One of its measures that has a number; null when it has none.
    const MeasureRow* measured(const std::string& measure) const {
        const MeasureRow* row = results.measure(measure);
        return row && row->value.value ? row : nullptr;
    }
};

} // namespace jg
