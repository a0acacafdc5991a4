// SPDX-License-Identifier: GPL-3.0-or-later
// Targets as data, and the verdict on a value against one.
#pragma once

#include "base/date.h"
#include "kinematics/anatomy.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace jg {

/// What a target asks of a measure at one position. Options asks for one of a seen measure's answers. Any and
/// Record ask nothing; Record keeps the number.
enum class TargetType { AtLeast, AtMost, Band, Options, Any, Record };

/// Who set a target for one athlete, when and why.
struct TargetOwner {
    std::string who;
    Date on{};
    std::string reason;
    bool operator==(const TargetOwner&) const = default;
};

/// A target of one measure at one position, in the measure's unit. `soft` is the margin of a small miss.
struct Target {
    std::string measure;
    Moment position = Moment::Set;
    TargetType type = TargetType::Any;
    double x = 0; ///< limit, or the band's low end
    double y = 0; ///< the band's high end
    double soft = 0;
    std::optional<double> good; ///< better than merely inside
    std::string unit;
    std::vector<std::string> wanted = {};  ///< of Options: the answers asked for
    std::vector<std::string> nearly = {};  ///< of Options: a small miss
    std::string why = {};                  ///< in the playbook's words
    int ageFrom = 0, ageTo = 99;           ///< whom the number is meant for
    std::optional<TargetOwner> owner = {}; ///< set for one athlete; nothing = the approach's own

    /// False for a number that is meant for others. 0 = the age is not known.
    bool meantFor(int age) const { return age == 0 || (ageFrom <= age && age <= ageTo); }
    bool asksNothing() const { return type == TargetType::Any || type == TargetType::Record; }
    bool operator==(const Target&) const = default;
};

std::string_view idOf(TargetType type);
std::optional<TargetType> targetTypeFromId(std::string_view id);

/// The target in a value's unit: a length of inches where the value is in centimetres. Nothing when they
/// can't be compared, as a share of the height with a length.
std::optional<Target> targetIn(const Target& target, const std::string& unit);

/// "at least 106", "135 to 140", "at most 33 ms", "back knee first"; degrees carry no unit word. Empty for
/// Any and Record.
Message wordsOf(const Target& target);

/// Verdict by word; Keep is best. Protect stands for arm protection.
enum class Verdict { Keep, Nearly, Adjust, Change, Protect };

/// Why there is a verdict, or none.
enum class JudgeState { Graded, CannotTell, NotVisible, NotLookedAt, NotApplicable, Recorded };

std::string_view idOf(Verdict verdict);
std::optional<Verdict> verdictFromId(std::string_view id);
std::string_view idOf(JudgeState state);

/// The judgement of one number.
struct Judgement {
    JudgeState state = JudgeState::NotLookedAt;
    std::optional<Verdict> verdict; ///< set when state is Graded
    double gap = 0;                 ///< how far outside the target, signed (value - limit); 0 inside
    double gapInSds = 0;            ///< |gap| over the sd that the interval has on its side
    Message text;                   ///< one sentence
};

/// A number with the interval that is shown of it.
struct Shown {
    double value, low95, high95;
};

/// Judges a number. A target that its interval reaches is CannotTell, never a fault. Beyond it: up to
/// `soft` is Nearly, up to twice that Adjust, else Change; any real miss of an arm measure is Protect.
/// Pure. Source: own choice of steps; the rule on the error is common practice.
Judgement judge(const Target& target, const Shown& number, bool protectsArm);

/// Judges what was seen, one of the measure's options, against a target of Options: keep for what is wanted,
/// nearly for what is listed so, else change (protect for an arm measure). Pure. Source: own choice of steps.
Judgement judgeSeen(const Target& target, const std::string& seen, bool protectsArm);

/// 5 for keep ... 1 for change; protect has 0 (it is drawn as a shield).
int pipsOf(Verdict verdict);

} // namespace jg
