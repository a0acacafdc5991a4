// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/forms/kept_words.h"

#include "ui/kit/key_cap.h"

namespace jg::ui {

QString keptWords(const Library& library) {
    return say(namesAreHidden()     ? "main-window.names-hidden"
               : library.readOnly() ? "main-window.to-read-only-nothing-is-kept"
                                    : "review-place.kept");
}

void showKept(const ReviewSession& session, Foot& foot) {
    switch (session.keepState()) {
    case KeepState::Kept:
        return foot.setKept(
            say("review-place.kept-time-of-day", {{"timeOfDay", session.clock().timeOfDay()}}));
    case KeepState::Keeping:
        return foot.setKept(say("review-place.keeping"));
    case KeepState::NotKept:
        foot.setKept(say("review-place.not-kept"));
        return foot.tell(say("review-place.tried-again", {{"session", session.keepError().text}}), 0);
    case KeepState::Elsewhere:
        foot.setKept(say("review-place.not-kept-here"));
        return foot.tell(say("review-place.changed-elsewhere-meanwhile-yours-is-kept"), 0);
    }
}

} // namespace jg::ui
