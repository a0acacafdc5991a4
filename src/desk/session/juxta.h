// SPDX-License-Identifier: GPL-3.0-or-later
// Reviews of a library as a sheet of deliveries under each other.
#pragma once

#include "letter/juxta_sheet.h"
#include "library/library.h"

#include <stop_token>
#include <vector>

namespace jg {

/// A delivery of a review as it stands in a sheet, with what its measures mean. Pure.
JuxtaEntry juxtaEntryOf(const Review& review, int delivery, const Athlete& athlete,
                        const std::vector<Clip>& clips, Assessment results,
                        std::map<std::string, std::string> definitions);

/// These deliveries, whoever's, with what they say: of those sent as they were told, of others as they are
/// now. Errors: those of reading the store; NotFound for a delivery or a film that is not there.
Result<std::vector<JuxtaEntry>> juxtaEntries(Store& store, const Playbook& playbook,
                                             const std::vector<JuxtaKey>& keys);

/// Whether a sheet may leave the house: one of a single athlete always, of several only when each of them
/// allowed to be shown to others, or as a model. Errors: Refused, those of reading the store.
Status mayLeave(Store& store, const JuxtaSheet& sheet, Date today);

/// A delivery that can stand in a sheet, in short.
struct JuxtaOffer {
    JuxtaKey key;
    Athlete athlete;
    Date when{};
    View view = View::Open;
    Conditions conditions;
    std::string baseline; ///< what the coach calls it; may be empty
    int positions = 0;    ///< that are set on it
};

/// Every delivery with a position on it: those of `first` before all others, each athlete's by date.
/// Errors: those of reading the store.
Result<std::vector<JuxtaOffer>> juxtaOffers(Store& store, const AthleteId& first);

/// The same of one athlete only. Errors: those of reading the store.
Result<std::vector<JuxtaOffer>> juxtaOffersOf(Store& store, const Athlete& athlete);

/// Every delivery of an athlete with its numbers, by date: what one long table is made of. Errors: those of
/// reading the store; NotFound when there is none.
Result<std::vector<JuxtaEntry>> allDeliveries(Store& store, const Playbook& playbook,
                                              const AthleteId& athlete);

/// Where a sheet's pictures come from: the exact frame of the film, or a near one of its scrub copy, which is
/// much quicker and sharp enough for a cell of the window; the film itself where there is no copy.
enum class Stills { Exact, Near };

/// Reads frames of a sheet's films, each film opened once. Owned by one thread.
class JuxtaFilms {
public:
    JuxtaFilms(const Library& library, const JuxtaSheet& sheet, Stills stills, std::stop_token stop);
    ~JuxtaFilms();
    /// Errors: those of Reader.
    Result<Picture> picture(std::size_t row, std::int64_t frame);

private:
    struct Inner;
    std::unique_ptr<Inner> inner_;
};

/// The picture of a sheet, its frames read from the library's films. Runs in any one thread with a library of
/// its own. Errors: those of Reader and drawJuxta().
Result<QImage> juxtaPicture(const Library& library, const JuxtaSheet& sheet, const Playbook& playbook,
                            const Words& words, std::stop_token stop = {},
                            const std::function<void(double)>& progress = {});

} // namespace jg
