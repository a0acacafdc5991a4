// SPDX-License-Identifier: GPL-3.0-or-later
// What leaves the house, and what comes in: several views on a sheet each.
#pragma once

#include "tests/shots/photographer.h"

namespace jg::test {

/// `film`: the review in hand, whose film is watched. What was remembered of its stops goes along.
void shootFilm(Photographer& p);
/// `post`: all ready letters, the outbox, the server, and a mail that is being taken in
/// when it returns.
void shootPost(Photographer& p);
/// `letters`: the first page of the review in hand for each reader in each language, and on a phone. Changes
/// the review.
void shootLetters(Photographer& p);

} // namespace jg::test
