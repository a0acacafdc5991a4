// SPDX-License-Identifier: GPL-3.0-or-later
// How a letter leaves the house: one way for the window, the post and the command line.
#pragma once

#include "base/clock.h"
#include "desk/sending/dispatch.h"

#include <functional>
#include <stop_token>
#include <string>
#include <vector>

namespace jg {

/// What is being done while a letter goes out. Waiting: it is made, and can still be taken back; the progress
/// is the seconds left.
enum class SendStep { Making, Waiting, HandingOver };

/// How long a letter can be taken back after it was sent, seconds. What is made meanwhile counts.
inline constexpr int kTakeBackS = 20;

/// Where a letter goes out to, and who is told.
struct SendOrder {
    MailServer server;
    std::string from;
    int takeBackS = 0; ///< nothing is handed over for so long
    /// Told what changed while the letter was on its way, so that it was made anew. In the sending thread.
    std::function<void(const Message&)> madeAnew = {};
};

/// Keeps what was typed as mail settings, all or none. Errors: BadInput naming what is no address, Stale for
/// one that another window changed since it was shown, those of writing.
Status keepMailSettings(Library& library, const std::vector<SettingChange>& typed);

/// The server of the library's settings, with the password the caller asked for, and its time to take a
/// letter back (setting `mail.takeBackS`).
SendOrder sendOrderOf(Library& library, const std::string& password);

using SendProgress = std::function<void(SendStep, double)>;

/// Makes letter and film, waits as long as it can be taken back, keeps the mail in the outbox, hands it to
/// the server, and keeps how that ended. The last look at today's athlete, films, consent and review is taken
/// before the last bytes are handed over: what changed since `recipe` was gathered is made anew, and what
/// stands against sending now, or another address, holds it. Any one thread, with a library of its own. What
/// goes wrong before the mail lies in the outbox leaves nothing; after it, it waits there. Errors: Refused as
/// Store::mayHandOver() and dispatchRecipe(), those of packParcel(), the library and sendMail().
Result<OutboxItem> sendLetter(Library& library, const DispatchRecipe& recipe, const SendOrder& order,
                              const Clock& clock, IdSource& ids, std::stop_token stop = {},
                              const SendProgress& progress = {}, Repeat repeat = Repeat::Never);

/// Makes letter and film and keeps the mail in the outbox, ready to be handed over by sendAgain(). Errors: as
/// sendLetter() before the handing over.
Result<OutboxItem> layReady(Library& library, const DispatchRecipe& recipe, const Clock& clock, IdSource& ids,
                            std::stop_token stop = {}, const SendProgress& progress = {});

/// Sends a mail that lies in the outbox: checked and made anew from today's athlete, films and review, for
/// they may have changed since. One that may have gone out is sent again, unless a letter of its review was
/// sent since and `repeat` does not say Always. Errors: Refused with the first reason of the check, which is
/// kept with the mail, and as above.
Status sendAgain(Library& library, const Playbook& playbook, OutboxItem item, const SendOrder& order,
                 const Clock& clock, std::stop_token stop = {}, const SendProgress& progress = {},
                 Repeat repeat = Repeat::Never);

} // namespace jg
