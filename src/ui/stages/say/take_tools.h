// SPDX-License-Identifier: GPL-3.0-or-later
// The takes of a stop: which is heard, what of it is left out, and what a killed program left of one.
#pragma once

#include "ui/bench/bench.h"
#include "ui/stages/say/narration.h"

namespace jg::ui {

/// Changes takes; each change is one edit. Lives beside its bench.
class TakeTools {
public:
    TakeTools(QWidget* parent, ReviewContext& context, Narration& narration, PerformEdit perform)
        : parent_(parent)
        , c_(context)
        , narration_(narration)
        , perform_(std::move(perform)) {}

    /// What is heard of a stop; null while it is not said, or without a stop.
    const Take* of(const Stop* stop) const;
    /// A take becomes the one that is heard of its stop; the one before it is kept as a spare one.
    bool put(const Message& label, const StopId& stop, const Take& take);
    /// The takes beside each other: each is heard, one key takes another, the last one throws the spare ones
    /// away.
    void choose(const Stop* stop);
    /// Leaves out the ends' silence, then too long pauses as well, then nothing again.
    void shorten(const Stop* stop);
    /// What a killed program left of a take is offered once it can belong to nobody else.
    void offerUnfinished();

private:
    const Review& review() const { return c_.session.review(); }

    QWidget* parent_;
    ReviewContext& c_;
    Narration& narration_; ///< plays them
    PerformEdit perform_;
};

} // namespace jg::ui
