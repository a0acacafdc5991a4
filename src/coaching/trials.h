// SPDX-License-Identifier: GPL-3.0-or-later
// How each measure's interval did when it was tried on made bodies whose truth is known.
#pragma once

#include "base/result.h"

#include <map>
#include <string>
#include <string_view>

namespace jg {

/// What one measure's interval did.
struct Trial {
    int tried = 0;          ///< deliveries with a number
    double heldPercent = 0; ///< of them those whose 95 % interval held the truth
    /// Mean of value less truth, in the measure's unit: the lowest and the highest over makers of bodies and
    /// coaches, as how far a number leans depends on how the body is made.
    double leastLean = 0, mostLean = 0;
    std::string unit;
    /// How much larger than the number, which is that in the picture's plane, the angle or length in space
    /// was on average; 0 = within the error, or there is none.
    double inSpace = 0;
    /// Nothing is promised below this: own choice.
    bool keepsItsPromise() const { return heldPercent >= 94; }
    /// Whether it leans by so much that the number would be shown as another one.
    bool leans() const;
    bool operator==(const Trial&) const = default;
};

/// Less than this is not shown of a number in this unit.
double leastShown(const std::string& unit);

/// How a delivery was filmed, as far as trials tell apart.
struct TrialCamera {
    bool turned = false;                                  ///< said to stand turned from square
    bool fast = false;                                    ///< from kFastFps on
    auto operator<=>(const TrialCamera&) const = default; // NOLINT(modernize-use-nullptr)
};
/// Frames a second between the two rates that were tried, 60 and 240.
inline constexpr double kFastFps = 120;

/// The table of data/playbook/trials.json, which `accuracy --trials` writes.
class Trials {
public:
    /// Errors: BadInput naming the row.
    static Result<Trials> parse(std::string_view json);
    /// The same table as text.
    std::string toJson() const;

    void set(TrialCamera camera, const std::string& measure, Trial trial);
    /// Null for what was not tried. Valid while the table lives.
    const Trial* of(TrialCamera camera, const std::string& measure) const;

private:
    std::map<TrialCamera, std::map<std::string, Trial>> rows_;
};

} // namespace jg
