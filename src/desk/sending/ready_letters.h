// SPDX-License-Identifier: GPL-3.0-or-later
// All letters that are ready, looked at once and sent one after the other.
#pragma once

#include "base/clock.h"
#include "desk/sending/outgoing.h"

#include <functional>
#include <stop_token>
#include <string>
#include <vector>

namespace jg {

/// An unsent review that has come as far as Send, and who would get its letter.
struct ReadyLetter {
    ReviewId review;
    SubmissionId submission;
    std::string athlete; ///< as they are called in full
    Date date{};
    std::string toName, toAddress;
    bool toGuardian = false;
    std::size_t corrections = 0;
    double saidSeconds = 0;     ///< of the film; 0 = there is none
    std::vector<Message> think; ///< what the check would have the coach think of; nothing of it forbids
    Message notYet;             ///< why it can't go out; empty = it can
};

/// The unsent reviews that stand at Send, the oldest first, each with what the check says of it now. A review
/// that can't be opened is told in `notYet`. Errors: those of reading the store.
Result<std::vector<ReadyLetter>> readyLetters(Library& library, const Playbook& playbook, const Clock& clock);

/// How one of several letters ended.
struct SentLetter {
    ReviewId review;
    std::string athlete;
    Status result = Done{};
};

/// Where sending several stands: the how manieth (from 0), what is done to it, and how far.
using SendAllProgress = std::function<void(std::size_t, SendStep, double)>;

/// Sends them one after the other, each checked at its own moment as if it were sent alone. One that is
/// refused stops none of the others; a cancel leaves the rest unsent. They can be taken back once, before the
/// first goes. Any one thread, with a library of its own. Gives one row a letter that was begun.
std::vector<SentLetter> sendAll(Library& library, const Playbook& playbook,
                                const std::vector<ReadyLetter>& letters, SendOrder order, const Clock& clock,
                                IdSource& ids, std::stop_token stop = {},
                                const SendAllProgress& progress = {});

} // namespace jg
