// What an athlete, or who looks after them, allowed: to be filmed, to be shown to others, to be a model.
#pragma once

#include "base/date.h"
#include "base/message.h"

#include <optional>
#include <string>

namespace jg {

struct Athlete;

enum class Use { Filming, Showing, Model };

struct Consent {
    bool filming = false, showing = false, model = false;
    std::string by;                ///< who said so
    bool byGuardian = false;       ///< it ends at 18: then it is theirs to give
    Date on{};                     ///< when it was given
    std::optional<Date> until;     ///< the last day; nothing = until it is taken back
    std::optional<Date> takenBack; ///< from that day on nothing is allowed
    bool allows(Use use) const;
    bool operator==(const Consent&) const = default;
};

/// How a use stands on a day. Silent: nothing is on record; OwnWord: only the child said so, whose guardian
/// must.
enum class Allowed { Yes, Silent, No, Ended, TakenBack, GrownUp, OwnWord };

/// Pure. Common practice, no source: the law of the place and the club's own rules come first.
Allowed allowedOn(const Athlete& athlete, Use use, Date today);

/// Why not, and where to mend it, as a sentence; empty for Yes. Pure.
Message whyNotAllowed(const Athlete& athlete, Use use, Date today);

/// "filming and showing, by Parent of Ludo, until 3 May 2027"; what ended or was taken back says so. Empty
/// without a record. Pure.
Message consentInWords(const Athlete& athlete, Date today);

} // namespace jg
