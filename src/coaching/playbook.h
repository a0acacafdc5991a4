// SPDX-License-Identifier: GPL-3.0-or-later
// The playbook: measures, approaches, graded items, causes and drills, all as data.
#pragma once

#include "base/message.h"
#include "coaching/side.h"
#include "coaching/target.h"
#include "coaching/trials.h"
#include "kinematics/body_depths.h"
#include "kinematics/catalogue.h"

#include <memory>
#include <optional>
#include <string>
#include <vector>

namespace jg {

/// In which order a school takes up what is to be worked on.
enum class Teaching { ByWeight, FromTheFeet, FromTheEnd, FromTheStart };

/// A part of a card with a name and rows of its own.
struct CardPart {
    std::string name;
    std::vector<std::string> rows; ///< ids of items
    bool operator==(const CardPart&) const = default;
};

/// A named way of judging: its targets and its card of graded items. Versioned.
struct Approach {
    std::string id;
    std::string name;
    int version = 1;
    int ageFrom = 0;
    int ageTo = 99;
    std::string about;
    std::vector<Target> targets;
    std::vector<std::string> graded;
    std::string basedOn;              ///< of a copy: name and edition of what it was made from
    std::vector<std::string> lenient; ///< rows that may stay open and whose misses are small ones
    std::vector<CardPart> parts;      ///< of its card; none = the parts of the body
    Teaching teaching = Teaching::ByWeight;
    std::string power; ///< where it says that power comes from

    const Target* targetOf(std::string_view measure) const;
    bool isLenient(std::string_view row) const;
    /// False for a way of judging that is meant for others. 0 = the age is not known.
    bool meantFor(int age) const { return age == 0 || (ageFrom <= age && age <= ageTo); }
    bool operator==(const Approach&) const = default;
};

/// A graded item with no number.
struct GradedItem {
    std::string id;
    std::string name;  ///< how it looks when it is good; what a strength is called
    std::string fault; ///< how it looks when it is not
    std::string goal;  ///< what a correction is called
    std::string group;
    Moment position = Moment::Set;
    std::vector<View> views;
    std::string coach;            ///< what it means, for the coach
    std::string young;            ///< a cue for a player under 12
    std::string player;           ///< a cue for older ones
    std::string parent;           ///< why it matters, for a parent
    std::string praise = {};      ///< what is good when it is so, and what that does, to the player
    std::string measure;          ///< whose number tells the same; empty = none does
    std::string measureSide = {}; ///< on which side that number is then off; empty = on either
    /// Of an item that can be off two ways, each with words of its own; empty for all others.
    struct Side {
        std::string id, fault, goal, young, player;
        bool operator==(const Side&) const = default;
    };
    std::vector<Side> sides = {};
    bool protectsArm = false;

    bool seenFrom(View view) const;
    /// The side of that name; null for none.
    const Side* side(std::string_view name) const;
    /// The cue for a reader of this age.
    const std::string& cueFor(int age) const { return age < kYoung && !young.empty() ? young : player; }
    static constexpr int kYoung = 12; ///< own choice
};

/// A few rows of an approach for one question; what lies outside is neither asked nor open.
struct FocusCard {
    std::string id;
    std::string name;
    std::vector<std::string> rows;    ///< measures and items
    std::vector<std::string> lenient; ///< those of them that may stay open
    std::vector<Target> adds = {};    ///< asked even where the approach has no target for them
};

/// The rows of an approach that lie in a focus, and those that the focus adds, under both names.
Approach focused(const Approach& approach, const FocusCard& focus);

/// "`from` may cause `to`", each off on its side: an opinion, with its owner and the effect it is said to
/// have. An empty side means any, as in playbooks of older reviews.
struct Cause {
    std::string from;
    std::string to;
    std::string says;
    std::string effect;
    std::string why;
    std::string fromSide = {}, toSide = {};

    SidedRow cause() const { return {from, fromSide}; }
    SidedRow consequence() const { return {to, toSide}; }
};

/// Whose opinion counts in every school.
inline constexpr std::string_view kSeveralSchools = "several schools";

struct Dose {
    int sets = 0;
    int reps = 0;
    int days = 0; ///< days a week
    bool missing() const { return sets <= 0 || reps <= 0 || days <= 0; }
    bool operator==(const Dose&) const = default;
};

Message wordsOf(const Dose& dose); ///< "3 x 8", "25 throws" is left to the caller

/// A step of a drill over the weeks: what is done, and what must be seen before the next one begins.
struct DrillStage {
    std::string what;
    std::string until;
    bool operator==(const DrillStage&) const = default;
};

struct Drill {
    std::string id;
    std::string name;
    std::string body;                      ///< lower | upper
    std::vector<std::string> needs;        ///< ids of Need
    std::vector<std::string> serves;       ///< what it trains, each "row:side"
    std::vector<std::string> against = {}; ///< what it would make worse, alike
    std::vector<std::string> supports =
        {}; ///< ids of measureGroups(): helps every finding there, by its needs
    std::string equipment;
    std::string how;
    Dose dose;
    std::string distance;
    std::string link; ///< to the coach's own film or picture of it, https; empty = none
    bool ball = false;
    bool throwing = false; ///< its motion is a throw, with a ball, a towel or nothing in the hand
    std::string armLoad;
    int ageFrom = 0;
    std::string notFor; ///< for whom it is wrong, in words
    int lookAgainDays = 28;
    int minutes = 0; ///< of one day; 0 = not known
    std::vector<DrillStage> stages = {};

    bool trains(const SidedRow& finding) const { return anyMeets(serves, finding); }
    /// True where its words ask for the opposite. A side that is not known is trained against by nothing.
    bool trainsAgainst(const SidedRow& finding) const;
};

/// A simple test without a machine that tells what keeps an athlete from a position. No diagnosis.
struct Screen {
    std::string id;
    std::string name;
    std::string how;
    std::string pass, fail;          ///< how each looks
    std::string tells;               ///< id of the Need that a failure shows
    std::vector<std::string> groups; ///< ids of measureGroups() it is for
    std::string notFor;
};

/// Everything together. Immutable after loading; share by const reference between threads.
struct Playbook {
    std::vector<MeasureDefinition> measures;
    std::vector<Approach> approaches;
    std::vector<GradedItem> items;
    std::vector<Cause> causes;
    std::vector<Drill> drills;
    std::vector<FocusCard> focuses;
    std::vector<Screen> screens;
    LengthUnit lengths = LengthUnit::Inches; ///< by the coach's choice
    BodyDepths depths; ///< of the body's parts, for the error of what a picture can't show
    Trials trials;     ///< how the measures' intervals did where the truth was known
    /// What it was read from, but for depths and trials, with the coach's own rows: a review keeps it
    /// (thawPlaybook). Null for one made by hand.
    std::shared_ptr<const std::string> text;
    std::shared_ptr<const std::string> shipped; ///< the same as it came with the program, without own rows

    const MeasureDefinition* measure(std::string_view id) const { return findMeasure(measures, id); }
    const Approach* approach(std::string_view id) const;
    const GradedItem* item(std::string_view id) const;
    const Drill* drill(std::string_view id) const;
    const FocusCard* focus(std::string_view id) const;
    /// The name of a finding, be it a measure or an item; the id itself when unknown.
    std::string nameOfFinding(std::string_view id) const;
    /// The part of the body it belongs to, an id of measureGroups(); empty when unknown.
    std::string groupOfFinding(std::string_view id) const;
    bool isFinding(std::string_view id) const { return measure(id) || item(id); }
    /// The same with a side that the row has, or without one.
    bool isFinding(const SidedRow& finding) const;
    /// The sides of a row that are told apart; empty for one that is off only one way.
    std::vector<std::string> sidesOf(std::string_view row) const;
    /// The moment at which a finding is read, and its picture is shown.
    std::optional<Moment> shownAt(std::string_view row) const;
};

} // namespace jg
