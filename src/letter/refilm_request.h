// SPDX-License-Identifier: GPL-3.0-or-later
// Asking for another film: what was wrong in words, where to stand as a drawing.
#pragma once

#include "review/record/people.h"
#include "words/words.h"

#include <QImage>

#include <string>

namespace jg {

/// The request as it goes out: none of the film check's notes, which are the coach's. Distances and heights
/// are own choice, for a phone's usual lens.
struct RefilmRequest {
    std::string text; ///< plain text to send, signed by the coach
    QImage drawing;   ///< 900 x 560: the place from above, the phone where it should stand
};

/// Needs a QGuiApplication. `coach` signs; `view` is the view asked for, `words`
/// the reader's language.
RefilmRequest refilmRequest(const Athlete& athlete, View view, const std::string& coach, const Words& words);

} // namespace jg
