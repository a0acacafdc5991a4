// SPDX-License-Identifier: GPL-3.0-or-later
// Athletes and what they sent in.
#pragma once

#include "base/date.h"
#include "base/ids.h"
#include "coaching/target.h"
#include "review/record/audience.h"
#include "review/record/conditions.h"
#include "review/record/consent.h"

#include <cstdint>
#include <map>
#include <optional>
#include <string>
#include <vector>

namespace jg {

/// On the way back from an injury. Their clinician's plan comes before any drill.
struct ComingBack {
    std::string from;                  ///< what it was, in the coach's words
    std::optional<Date> planSeen = {}; ///< when the coach saw the clinician's plan; nothing = not yet
    bool operator==(const ComingBack&) const = default;
};

/// A delivery that the coach gave a name, to compare later ones with: "before the injury".
struct Baseline {
    std::string name;
    ReviewId review;
    int delivery = 0; ///< 0 = the review's lead
    bool operator==(const Baseline&) const = default;
};

/// Two numbers that the coach compares although the program holds them for unlike; on record.
struct Overruled {
    std::string measure;
    std::string why; ///< in the coach's words
    Date on{};
    bool operator==(const Overruled&) const = default;
};

/// One standing height, on a day: growth is kept apart from technique.
struct HeightOn {
    Date on{};
    double metres = 0;
    bool operator==(const HeightOn&) const = default;
};

/// An outing as it was told: how much was thrown, and how it felt.
struct PitchCount {
    Date on{};
    int pitches = 0;
    std::string felt;
    bool operator==(const PitchCount&) const = default;
};

/// A person whose delivery is reviewed. Mail goes to the guardian while they are under 18.
struct Athlete {
    AthleteId id;
    std::string firstName;
    std::string lastName;
    Date born{};
    Hand hand = Hand::Right;
    std::string level;
    std::string email;
    std::string guardianName;
    std::string guardianEmail;
    std::optional<double> heightM = {}; ///< standing, as last entered
    std::string approach = {};          ///< id; empty = the house's usual one
    std::vector<Target> targets = {};   ///< set for them alone, each with its owner
    std::optional<ComingBack> comingBack = {};
    std::vector<Baseline> baselines = {};  ///< the first is what a new review is compared with
    std::vector<Overruled> overruled = {}; ///< one a measure
    std::vector<HeightOn> heights = {};    ///< by date, the last is heightM
    std::vector<PitchCount> outings = {};  ///< by date
    Language language = Language::English; ///< of what is sent
    std::optional<Consent> consent = {};   ///< nothing = none is on record
    std::string model =
        {}; ///< what they agreed to, when their deliveries may be shown as a model; empty = not

    std::string fullName() const { return lastName.empty() ? firstName : firstName + " " + lastName; }
    int ageOn(Date date) const;
    /// Standing height on a day, metres: the last one measured until then, else the first; 0 = none is known.
    double heightOn(Date date) const;
    bool isMinorOn(Date date) const { return ageOn(date) < 18; }
    bool operator==(const Athlete&) const = default;
};

/// A delivery found in a film by its motion, with where positions may lie. Only ever a suggestion.
struct FoundDelivery {
    std::int64_t first = 0, last = 0;
    struct Place {
        std::int64_t frame = 0;
        bool sure = false;
        bool operator==(const Place&) const = default;
    };
    std::map<Moment, Place> places;
    bool operator==(const FoundDelivery&) const = default;
};

/// One film as it lies in the library. The original is kept under its content hash and never changed.
struct Clip {
    ClipId id;
    AthleteId athlete;
    std::string mediaHash; ///< SHA-256 of the original, hex
    std::string extension; ///< ".mp4"
    std::string fileName;  ///< as it was called when it came in
    View view = View::Open;
    double captureFps = 0; ///< 0 = unknown
    std::string captureSource;
    std::int64_t frames = 0;
    int width = 0;
    int height = 0;
    std::optional<double> tiltDeg; ///< clockwise, by upright edges of the place; nothing = too few
    std::vector<std::pair<std::int64_t, std::int64_t>> damaged; ///< first and last of each damaged stretch
    std::vector<FoundDelivery> deliveries;
    std::vector<Message> check; ///< the film check, the gravest first
    /// A damaged document kept neither its length nor its size: it must be looked at again.
    bool unseen() const { return frames <= 0; }
    bool operator==(const Clip&) const = default;
};

/// How a report of pain ended, in the coach's words and on record.
struct PainClosed {
    Date on{};
    std::string words;
    bool operator==(const PainClosed&) const = default;
};

/// What came in at once: films, the question, any pain, and when an answer was promised.
struct Submission {
    SubmissionId id;
    AthleteId athlete;
    Date received{};
    std::optional<Date> promised;
    std::string asked;
    std::string pain; ///< in the sender's words; empty = none reported
    std::optional<PainClosed> painClosed;
    Start start = Start::Unknown; ///< with surface: what a new delivery begins with
    Surface surface = Surface::Unknown;
    std::vector<Clip> clips;
    std::string mail = {}; ///< by what the mail is known that brought it; empty = none did

    /// A report counts for the athlete, whatever film it came with, until the coach closes it.
    bool painOpen() const { return !pain.empty() && !painClosed; }
    /// The report as it is shown; the program's own words when a damaged one was lost.
    Message painWords() const;
    bool operator==(const Submission&) const = default;
};

/// Who owes what was promised.
enum class Owes { House, Athlete };
/// How a promise stands. Broken is said by the coach, never by the calendar.
enum class Kept { Open, Kept, Broken };
std::string_view idOf(Owes owes);
std::string_view idOf(Kept kept);

/// Something promised aloud: a debt with a date.
struct Promise {
    AthleteId athlete;
    Message text;
    std::optional<Date> due;
    Owes owes = Owes::House;
    Kept kept = Kept::Open;
    std::optional<Date> made = {};
    std::optional<Date> closed = {}; ///< when it was kept or broken
    std::string words = {};          ///< the coach's, on closing it
    ReviewId review = {};            ///< in which it was made; empty = in none
    std::int64_t row = 0;            ///< its row in the library; 0 = not stored

    bool open() const { return kept == Kept::Open; }
    bool operator==(const Promise&) const = default;
};

} // namespace jg
