// SPDX-License-Identifier: GPL-3.0-or-later
// Through everything the window shows, at 1280 x 800, for tests that look at each of it.
#pragma once

#include "tests/ui/driver.h"

namespace jg::test {

using Look = std::function<void(QWidget& shown, const std::string& where)>;

/// All that a widget shows, says or is called.
QStringList textsOf(QWidget* w);
/// The same with what was typed, too: people's own words.
QStringList allTextsOf(QWidget* w);
/// Every place.
void tourPlaces(Driver& d, const Look& look);
/// Every stage of the walk's review, each on two rows of its list: another row says other things.
void tourStages(Driver& d, const Walk& walk, const Look& look);
/// The dialogs: keys, intake, athlete, film, another film, the camera's turn, scale, sequence.
void tourDialogs(Driver& d, const Walk& walk, const Look& look);

} // namespace jg::test
