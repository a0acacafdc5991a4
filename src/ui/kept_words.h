// What stands in the foot about keeping.
#pragma once

#include "library/library.h"
#include "ui/words.h"

namespace jg::ui {

/// Whether what is done is kept: "kept", or why not.
inline QString keptWords(const Library& library) {
    return say(namesAreHidden()     ? "main-window.names-hidden"
               : library.readOnly() ? "main-window.to-read-only-nothing-is-kept"
                                    : "review-place.kept");
}

} // namespace jg::ui
