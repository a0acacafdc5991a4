// SPDX-License-Identifier: GPL-3.0-or-later
// A finished review of a small generated film, for the letter, the film and the desk.
#pragma once

#include "base/clock.h"
#include "demo/library/demo_review.h"
#include "desk/intake/intake.h"
#include "desk/sending/letter_files.h"
#include "tests/support/fixtures.h"

#include <functional>

namespace jg::test {

/// A library with one athlete, one small film taken in, and a review made from its truth: made once for all
/// tests of a program, and copied.
struct Walk {
    explicit Walk(Stage until = Stage::Send, Hand hand = Hand::Right, int age = 15,
                  const std::string& pain = "", const Playbook& book = playbook());
    const Playbook& book; ///< the review is begun with it; it must outlive the walk
    TempFolder folder;
    std::unique_ptr<Library> library;
    FixedClock clock{today()};
    IdSource ids{43};
    FilmOrder order;
    Athlete athlete;
    Submission submission;
    Review review;
    /// A session on the review.
    std::unique_ptr<ReviewSession> session();
};

/// The submission once more under ids of its own ("sub-NAME", clips with "-NAME" behind theirs), and a review
/// put on it.
Submission onceMore(const Submission& submission, const std::string& name, Review* review = nullptr);

/// Keeps the walk's review once more, so many days earlier and with a submission of its own ("rev-NAME",
/// "sub-NAME"), as `change` makes it; its results are kept with it.
Review keepEarlier(Walk& walk, const std::string& name, int days,
                   const std::function<void(Review&)>& change = {});

/// Takes out of the walk's review what is said, in the library, too: a letter alone is quick to make.
void leaveUnsaid(Walk& walk);

/// Turns the event loop until `done`; false when it did not come.
bool turnUntil(const std::function<bool()>& done, int ms = 20000);

} // namespace jg::test
