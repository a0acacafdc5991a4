// SPDX-License-Identifier: GPL-3.0-or-later
// A review as a value: positions, points, marks, grades, stops, takes and the plan.
#pragma once

#include "base/date.h"
#include "base/ids.h"
#include "base/message.h"
#include "base/sample_span.h"
#include "coaching/causes.h"
#include "coaching/needs.h"
#include "coaching/playbook.h"
#include "coaching/week.h"
#include "kinematics/measure.h"
#include "kinematics/path.h"
#include "kinematics/scale.h"
#include "review/record/audience.h"
#include "review/record/conditions.h"

#include <array>
#include <compare>
#include <cstdint>
#include <map>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace jg {

/// The seven stages of the walk, and what comes after.
enum class Stage { Look, Positions, Measure, Judge, Say, Prescribe, Send, Sent };

std::string_view idOf(Stage stage);
Message nameOf(Stage stage);
std::optional<Stage> stageFromId(std::string_view id);

/// Frames from the first to the last, both included.
struct FrameSpan {
    std::int64_t first = 0, last = 0;
    bool holds(std::int64_t frame) const { return first <= frame && frame <= last; }
    bool operator==(const FrameSpan&) const = default;
};

/// How far the camera was turned from square: toward the plate (side views) or the glove side. In the coach's
/// word, or from the rubber's corners.
struct CameraTurn {
    double deg = 0;
    double sdDeg = 3; ///< own choice for a turn judged by eye
    bool operator==(const CameraTurn&) const = default;
};

/// A camera of which nothing was said is square to within this: own choice.
inline constexpr CameraTurn kUnsaidTurn{0, 6};
/// One that the coach says was square, by eye: own choice.
inline constexpr CameraTurn kSquareTurn{0, 2};

/// How the camera shook: where the background lay on each frame, against the reference frame.
struct CameraShake {
    std::int64_t reference = 0;
    std::map<std::int64_t, ImagePoint> shifts;
    double sdPx = 0; ///< of a shift, on each axis
    bool on = true;  ///< taken out of the numbers
    bool operator==(const CameraShake&) const = default;
};

/// A thing of known length. The height has no ends of its own: it stands between crown and ground at Set.
struct ScaleMark {
    std::int64_t frame = 0;
    ImagePoint from, to;
    double metres = 0;
    bool operator==(const ScaleMark&) const = default;
};

/// Where a position is: a frame, or why it can't be seen.
struct MomentMark {
    std::optional<std::int64_t> frame;
    std::string notVisible;               ///< reason; set only without a frame
    std::vector<std::int64_t> again = {}; ///< rising; where it happened too, while numbers follow `frame`
    bool operator==(const MomentMark&) const = default;
};

/// A landmark on one frame. Keyed by frame, so a moved position asks again and a position moved back does
/// not.
struct PointKey {
    std::int64_t frame = 0;
    Landmark landmark = Landmark::Head;
    auto operator<=>(const PointKey&) const = default; // NOLINT(modernize-use-nullptr)
};

/// A clicked landmark, or why it is hidden.
struct PointMark {
    ClickedPoint point;
    std::string hidden; ///< reason; empty = visible
    bool operator==(const PointMark&) const = default;
};

/// A landmark followed between the frames it was clicked on; it holds while those points stay.
struct FollowedPath {
    Path places;
    std::vector<PathPlace> from;    ///< the clicked ends
    std::vector<std::int64_t> asks; ///< where it was lost: frames to click it on
    bool operator==(const FollowedPath&) const = default;
};

/// An upright box on a picture.
struct PictureBox {
    ImagePoint from, to; ///< upper left, lower right
    bool operator==(const PictureBox&) const = default;
};

/// Somebody else in the picture, made unrecognizable wherever it is shown. Between two of its frames the box
/// lies between theirs; before the first and after the last it stays.
struct Veil {
    std::map<std::int64_t, PictureBox> boxes; ///< never empty
    std::vector<std::int64_t> drawn;          ///< by hand on these frames, rising; followed on the others
    std::vector<std::int64_t> asks;           ///< it was lost there: to be drawn on these frames
    bool operator==(const Veil&) const = default;
};

using Veils = std::map<std::string, Veil>; ///< by id

enum class MarkKind { Plumb, Level, Line, HeadBox, Angle, Mound };
std::string_view idOf(MarkKind kind);
Message nameOf(MarkKind kind);
std::size_t pointsOf(MarkKind kind); ///< 2, or 3 for an angle

/// A free drawing on a frame. The head box stays on every frame; the others belong to theirs.
struct FreeMark {
    std::string id;
    MarkKind kind = MarkKind::Line;
    std::int64_t frame = 0;
    std::vector<ImagePoint> points;
    bool operator==(const FreeMark&) const = default;
};

/// States of a graded item that are not a step.
enum class GradeState { Graded, CannotTell, NotVisible, NotApplicable, FaultAbsent, SetAside };
std::string_view idOf(GradeState state);

/// A number that stood beside an item when it was graded.
struct SeenNumber {
    std::string measure;
    double value = 0, sd = 0;
    std::string unit;
    bool operator==(const SeenNumber&) const = default;
};

/// What a grade was given on: the frame that was shown, the numbers at that moment, and when.
struct Evidence {
    std::optional<std::int64_t> frame; ///< nothing when no picture was shown
    std::vector<SeenNumber> numbers;   ///< of the measures the item is joined with by a cause
    std::int64_t atUnix = 0;           ///< seconds since 1970 UTC; 0 = not known
    bool operator==(const Evidence&) const = default;
};

/// The coach's grade of an item: a step of 1 (change) to 5 (keep), or a state with a reason.
struct Grade {
    GradeState state = GradeState::Graded;
    int step = 0;
    std::string reason;
    Evidence evidence;
    std::string side = {}; ///< on which it is off; empty = its only one, or not said
    bool operator==(const Grade&) const = default;
};

/// An item as graded on one delivery.
struct GradeKey {
    int delivery = 1;
    std::string item;
    auto operator<=>(const GradeKey&) const = default; // NOLINT(modernize-use-nullptr)
};

/// What a review is judged by, frozen when it was begun, and the grades. `playbook` names the frozen text of
/// measures, items, causes and drills in the library (coaching/playbook_text.h); empty = none was kept.
struct Judging {
    Approach approach;
    std::string playbook;
    int age = 0; ///< of the athlete when it was begun; 0 = not known
    /// By item, or by measure where the coach judged it by hand.
    std::map<GradeKey, Grade> grades;
    /// Targets that were set for this review and which another approach or a focus may not ask for now; they
    /// come back with the rows they belong to.
    std::vector<Target> setAside = {};

    const Grade* grade(int delivery, const std::string& item) const;
    bool operator==(const Judging&) const = default;
};

inline constexpr std::string_view kOwnFinding = "own-finding-"; ///< what their ids begin with
/// Something a coach saw that no playbook lists, in their own words; its marks on that frame are its sketch.
/// It is graded, said, prescribed and written like an item.
struct OwnFinding {
    std::string id;
    std::string words;
    std::string group; ///< id of one of measureGroups()
    int delivery = 1;  ///< on which the frame lies
    std::int64_t frame = 0;
    std::string drill; ///< that helps; empty = none chosen
    bool operator==(const OwnFinding&) const = default;
};

/// What the coach said of a measure instead of a number.
struct MeasureNote {
    MeasureState state = MeasureState::NotVisible;
    std::string reason;
    bool operator==(const MeasureNote&) const = default;
};

/// What a measure without points asks of the coach.
struct MeasureAnswer {
    std::string seen;                      ///< one of its options
    std::map<std::string, double> numbers; ///< by name
    bool operator==(const MeasureAnswer&) const = default;
};

/// Own is about something that no finding names.
enum class StopKind { Strength, Correction, Recap, Own };
std::string_view idOf(StopKind kind);

/// Another delivery of the athlete beside a stop's own: the two are locked at a frame of each and go on in
/// real time from there.
struct Beside {
    ReviewId review;
    int delivery = 1;
    std::int64_t frame = 0; ///< of the other
    std::int64_t with = 0;  ///< of the stop's own delivery
    bool operator==(const Beside&) const = default;
};

/// One thing to say: a frame with its marks, and what it is about.
struct Stop {
    StopId id;
    StopKind kind = StopKind::Correction;
    std::string finding; ///< measure or item id; empty for the recap and one of the coach's own
    std::string title;
    std::int64_t frame = 0;
    int delivery = 1; ///< on which the frame lies
    /// What the coach wrote for its captions; empty = the words of its prompt.
    std::string words = {};
    bool still = false; ///< the film does not show the moment in motion before it
    std::optional<Beside> beside = {};
    bool operator==(const Stop&) const = default;
};

/// What is drawn with while talking: freely, or from where the hand began to where it ended.
enum class Pen { Free, Line, Arrow, Ring, Box };

enum class TakeEventKind {
    Frame,
    Pointer,
    PointerOff,
    StrokeBegin,
    StrokeTo,
    StrokesClear,
    MarksOn,
    MarksOff,
    StrokeDrop, ///< the last stroke is taken back
    GoalOn,
    GoalOff,
    View ///< a part of the picture is looked at, or all of it again
};

/// Something done while talking, on the audio clock.
struct TakeEvent {
    std::int64_t sample = 0;
    TakeEventKind kind = TakeEventKind::Frame;
    std::int64_t frame = 0; ///< for Frame
    ImagePoint at = {};     ///< for Pointer and strokes; a part's first corner for View
    Pen pen = Pen::Free;    ///< for StrokeBegin
    bool fades = false;     ///< for StrokeBegin
    /// For strokes: the clicked landmark that the point lies on, on the frame shown then; it goes with it.
    std::optional<Landmark> joint = {};
    ImagePoint to = {}; ///< a part's other corner for View; the same as `at` = all of the picture
    bool operator==(const TakeEvent&) const = default;
};

/// The sound of one stop and its events. `file` lies in the library's takes folder.
struct Take {
    std::string file;
    int sampleRate = 48000;
    std::int64_t samples = 0; ///< in the file
    std::string microphone;
    std::vector<TakeEvent> events;
    std::vector<SampleSpan> cuts = {}; ///< left out: within the file, rising, apart from each other
    std::int64_t atUnix = 0;           ///< when it was said; 0 = not known
    /// Samples that are heard.
    std::int64_t kept() const;
    double seconds() const { return static_cast<double>(kept()) / sampleRate; }
    bool operator==(const Take&) const = default;
};

/// A sentence of the letter in the coach's own words, and what the letter said there when it was written.
struct OwnSentence {
    std::string text;
    Message was;
    Language language = Language::English; ///< in which it was written
    bool operator==(const OwnSentence&) const = default;
};

/// What a coach says beside a finding: how much it is, that time brings it, or that it is the athlete's own
/// style, which is kept and never corrected.
enum class FindingSize { Small, Real, Growth, GoodForAge, Style };
inline constexpr std::array kFindingSizes = {FindingSize::Small, FindingSize::Real, FindingSize::Growth,
                                             FindingSize::GoodForAge, FindingSize::Style};
std::string_view idOf(FindingSize size);
std::optional<FindingSize> findingSizeFromId(std::string_view id);
Message nameOf(FindingSize size); ///< "a small thing"

/// What goes into the letter beside the findings.
struct Plan {
    std::vector<std::string> corrections; ///< finding ids, at most mostCorrections()
    std::vector<PlannedDrill> drills;
    std::vector<std::string> keeps = {};  ///< strengths that the letter names; empty = those that are spoken
    std::vector<CauseChoice> causes = {}; ///< the coach's word on links of causes
    std::vector<WhyNot> whyNot = {};      ///< of corrections
    std::map<std::string, FindingSize> sizes = {}; ///< by finding; nothing = not said
    Circumstances circumstances = {};
    std::optional<Date> nextLook;
    std::string opening;                               ///< first sentences of the letter
    std::string ask;                                   ///< what to film next
    std::map<std::string, OwnSentence> sentences = {}; ///< by LetterSentence::key
    bool painConfirmed = false;
    std::optional<Audience> reader = {}; ///< for whom the letter is written; nothing = by age

    /// Null while nothing was said.
    const WhyNot* whyNotOf(std::string_view finding) const;
    bool operator==(const Plan&) const = default;
};

/// Corrections in one letter: three, two for a child under 11. Source: common practice, no source.
constexpr std::size_t mostCorrections(int age) {
    return 0 < age && age < 11 ? 2 : 3;
}

inline constexpr std::size_t kMostKept = 3; ///< strengths in one letter
/// Strengths beside so many corrections: five where the delivery is strong. Source: own choice.
constexpr std::size_t mostKept(std::size_t corrections) {
    return corrections <= 1 ? 5 : kMostKept;
}

struct SentRecord {
    Date on{};
    std::string to;
    bool operator==(const SentRecord&) const = default;
};

/// Where a coach wants the joints of a measure's frame to be: set by hand, so without a number of its own.
struct HandGoal {
    std::int64_t frame = 0;
    std::map<Landmark, ImagePoint> joints; ///< all that were clicked there, those that stay too
    bool operator==(const HandGoal&) const = default;
};

/// What was found on one delivery, on one film of it.
struct DeliveryMarks {
    int number = 1; ///< its own within the review
    int pitch = 1;  ///< the pitch it shows; films of one pitch from two sides share it
    ClipId clip;
    Conditions conditions;
    std::optional<CameraTurn> turn;   ///< nothing = nobody said how it stood
    std::optional<FrameSpan> cut;     ///< where it lies on the film; nothing = the whole film
    std::optional<CameraShake> shake; ///< nothing = not looked for
    std::map<ScaleKind, ScaleMark> scales;
    std::map<Moment, MomentMark> moments;
    std::map<PointKey, PointMark> points;
    std::map<Landmark, FollowedPath> paths;
    std::map<std::string, FreeMark> marks;
    Veils veils;
    std::map<std::string, MeasureNote> measureNotes;
    std::map<std::string, MeasureAnswer> answers; ///< by measure
    std::map<std::string, HandGoal> goals;        ///< by measure; nothing = as reckoned from its target
    bool operator==(const DeliveryMarks&) const = default;

    std::optional<std::int64_t> frameOf(Moment moment) const;
    std::optional<std::int64_t> frameOf(const Slot& slot) const;
    const PointMark* point(std::int64_t frame, Landmark landmark) const;
    /// The same where it is clicked; null where it is marked as hidden.
    const PointMark* seenPoint(std::int64_t frame, Landmark landmark) const;
    /// A clicked point where it lies with the camera's shake taken out, its error with it; the same when
    /// there is none, it is off, or the frame is not in it.
    ClickedPoint steadied(std::int64_t frame, const ClickedPoint& point) const;
    /// True while nothing is set or placed on it.
    bool blank() const { return moments.empty() && points.empty(); }
};

/// One review: its deliveries, what they are judged by, and what is said of them together. A value: copying
/// it copies everything; no pointers. Which delivery is in hand is the window's affair.
struct Review {
    ReviewId id;
    SubmissionId submission;
    AthleteId athlete;
    Date date{};
    Stage stage = Stage::Look;
    std::vector<DeliveryMarks> deliveries = {DeliveryMarks{}}; ///< never empty, by rising number
    int lead = 1;                                ///< the delivery chosen for the letter: leading()
    std::vector<Judging> judgings = {Judging{}}; ///< never empty; the letter follows the first
    std::vector<std::string> extras;             ///< measures taken beside the approach's
    std::vector<OwnFinding> own;
    std::vector<Stop> stops;
    std::map<StopId, Take> takes;                   ///< what is heard of each stop
    std::map<StopId, std::vector<Take>> spareTakes; ///< said too, and kept: the newest first; never empty
    Plan plan;
    std::optional<SentRecord> sent;
    std::int64_t revision = 0; ///< in the library; 0 = not kept yet. Not part of the document.

    const Stop* stop(const StopId& id) const;
    /// The files of all takes, heard and spare.
    std::vector<std::string> takeFiles() const;
    const OwnFinding* ownFinding(std::string_view id) const;
    /// Null for none of that number.
    const DeliveryMarks* delivery(int number) const;
    DeliveryMarks* delivery(int number);
    /// The delivery whose numbers the letter tells: the lead, while nothing is on it the first that has
    /// something.
    int leading() const;
    /// The one of that number; the leading one, or else the first, when there is none.
    const DeliveryMarks& deliveryOr(int number) const;
    /// The first; most reviews have but this one.
    const DeliveryMarks& first() const { return deliveries.front(); }
    DeliveryMarks& first() { return deliveries.front(); }
    const Judging& judging() const { return judgings.front(); }
    Judging& judging() { return judgings.front(); }
    const Approach& approach() const { return judgings.front().approach; }
    /// The targets the walk measures: the approach's, and the extras that have none as recorded ones.
    std::vector<Target> walkTargets() const;
};

} // namespace jg
