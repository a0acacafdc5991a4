// SPDX-License-Identifier: GPL-3.0-or-later
// Letter, film and mail of a finished review.
#pragma once

#include "base/clock.h"
#include "desk/sending/dispatch_recipe.h"
#include "desk/session/review_session.h"
#include "post/smtp.h"
#include "review/tell/send_check.h"

#include <filesystem>
#include <functional>
#include <stop_token>
#include <string>
#include <vector>

namespace jg {

/// What lies ready.
struct Parcel {
    std::string bytes; ///< the mail
    std::string subject;
};

/// The prompt of a stop, with what has changed from the delivery beside it.
Prompt promptOf(const ReviewSession& session, const Stop& stop);

/// All that stands against sending, or should be thought of: checkBeforeSending(), and the coach's own
/// sentences that no longer fit.
std::vector<SendProblem> problemsOf(const ReviewSession& session);

/// Gathers values from the session. Errors: Refused, with the first reason of the send check.
Result<DispatchRecipe> dispatchRecipe(const ReviewSession& session);
/// The same without the check, for exports and previews.
DispatchRecipe previewRecipe(const ReviewSession& session);

/// Films lie under the hash of what was taken in: one that was altered or swapped under its name does not
/// leave. Errors: Refused, Unreadable, Cancelled.
Status filmsAreWhatCameIn(const DispatchRecipe& recipe, std::stop_token stop = {});

/// Makes letter and film in `workFolder` and packs them into a mail. Progress covers the film.
/// Errors: Cancelled, DiskFull, WriteFailed, Damaged, BadInput.
Result<Parcel> packParcel(const DispatchRecipe& recipe, const std::filesystem::path& workFolder,
                          FileStore& files, std::stop_token stop = {},
                          const std::function<void(double)>& progress = {});

/// Writes a mail's bytes under a name of their own, so that nobody who sends the same letter writes over
/// them; gives the file's name. Errors: those of writing.
Result<std::string> layMail(Library& library, const std::string& item, const std::string& bytes);

/// Keeps the mail as waiting in the outbox. Errors: those of Library.
Result<OutboxItem> putInOutbox(Library& library, const ReviewId& review, const DispatchRecipe& recipe,
                               const Parcel& parcel, const Clock& clock, IdSource& ids);

/// Keeps how the handing over of `item` ended, unless somebody else has settled it; once it went out, the
/// review is kept as it was sent, as sent today, and so is what it promises (a review sent before stays as it
/// was). Errors: those of Store.
Status settleMail(Store& store, const OutboxItem& item, const FilmRecipe& sent, const Status& result,
                  const Clock& clock);

} // namespace jg
