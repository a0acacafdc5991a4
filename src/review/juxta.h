// Deliveries under each other, position by position: what stands in the sheet and what has changed.
#pragma once

#include "coaching/change.h"
#include "review/assess.h"
#include "review/juxta_column.h"
#include "review/likeness.h"

#include <map>
#include <optional>
#include <set>
#include <string>
#include <vector>

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
};

/// How a film is laid into a cell so that all bodies are one height and stand on one line.
struct JuxtaFit {
    double heightPx = 0;   ///< of the body at Set
    double groundY = 0;    ///< of the ground there
    double middleX = 0;    ///< of the body there
    bool mirrored = false; ///< for the eye only: numbers are never turned
};

/// One still. Without a frame it says why.
struct JuxtaCell {
    std::optional<std::int64_t> frame;
    double middleX = 0; ///< of the body in that picture
    Message why;
};

/// A measure taken at a column's position, from the first row that has it to the last.
struct JuxtaChange {
    std::string measure;
    std::vector<std::optional<MeasureValue>> values; ///< by row
    std::size_t first = 0, last = 0;                 ///< the rows that are compared
    std::optional<Estimate> difference;              ///< last less first, when they may be compared
    std::optional<Trend> trend;
    Message notComparable;  ///< why there is neither
    bool overruled = false; ///< compared by the coach's word all the same
    Message name = {};      ///< of a feature's number; empty = the measure's own
};

struct JuxtaColumn {
    JuxtaAt at;
    std::vector<JuxtaCell> cells; ///< by row
    std::vector<JuxtaChange> changes;
};

struct JuxtaRow {
    JuxtaEntry entry;
    std::optional<JuxtaFit> fit; ///< nothing until crown and ground at Set are clicked
};

struct JuxtaSheet {
    std::vector<JuxtaRow> rows;
    std::vector<JuxtaColumn> columns;

    std::size_t compared() const; ///< numbers with a trend
    std::size_t changed() const;  ///< of them really
    /// A child beside an adult: what one does is no model for the other.
    bool childBesideAdult() const;
};

/// What the coach wants of a sheet.
struct JuxtaWish {
    std::vector<JuxtaAt> columns = {};    ///< in that order; empty = every key position with a shared number
    bool asGiven = false;                 ///< rows in the order given, else by date
    std::set<std::string> overruled = {}; ///< measures that are compared although they are not alike
};

inline constexpr std::size_t kMostJuxtaRows = 12;

/// How a delivery's film is laid into a cell beside those of hand `leading`. Pure.
std::optional<JuxtaFit> juxtaFitOf(const JuxtaEntry& entry, Hand leading);

/// The cell of a frame, its body in the middle. Pure.
JuxtaCell cellAt(const JuxtaEntry& entry, std::int64_t frame);

/// Where the body's middle is on any frame: between frames with joints as if it went evenly, x in the film's
/// pixels. Pure.
double bodyMiddleAt(const JuxtaEntry& entry, std::int64_t frame);

/// The sheet of two to kMostJuxtaRows deliveries. Errors: BadInput. Pure.
Result<JuxtaSheet> layOutJuxta(std::vector<JuxtaEntry> entries, const Playbook& playbook,
                               const JuxtaWish& wish = {});

/// One measure of two deliveries, as a sheet compares them; nothing when one has no number. Pure.
std::optional<JuxtaChange> compareMeasure(const JuxtaEntry& one, const JuxtaEntry& other,
                                          const std::string& measure, bool overruled = false);

/// Compares the numbers of a change's first and last row, like with like or by the coach's word: difference
/// and trend, or why not. Inches and percent of height can't be taken from each other, whatever is said.
/// Pure.
void tellChange(JuxtaChange& change, const Likeness& first, const Likeness& last, const Target& target,
                const OwnSpread& spread, bool overruled);

/// What a change is of, in short as it stands in a sheet, or in full.
Message shortNameOf(const JuxtaChange& change, const Playbook& playbook);
Message fullNameOf(const JuxtaChange& change, const Playbook& playbook);

/// What each measure of a playbook means, as text: two of one id with another text are not compared. Pure.
std::map<std::string, std::string> definitionsOf(const Playbook& playbook);

/// A number with the error that is shown of it, and how far one lies beyond another. Pure.
Estimate asShown(const MeasureValue& value);
Estimate differenceOf(const Estimate& before, const Estimate& after);

/// "Ludo · 29 September 2026", or what the coach calls it.
Message captionOf(const JuxtaEntry& entry);
/// Whose deliveries stand in a sheet, and how they are shown: a child beside an adult comes before all.
Message titleOf(const JuxtaSheet& sheet);
Message mannerOf(const JuxtaSheet& sheet);

} // namespace jg
