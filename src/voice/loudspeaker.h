// SPDX-License-Identifier: GPL-3.0-or-later
// Sound out: the loudspeaker and a silent stand-in behind one seam.
#pragma once

#include "base/message.h"

#include <memory>
#include <optional>
#include <vector>

namespace jg {

/// Mono samples -1..1 at kSampleRate.
using Samples = std::shared_ptr<const std::vector<float>>;

/// Plays one sound at a time. Lives in the window's thread.
class Loudspeaker {
public:
    virtual ~Loudspeaker() = default;
    /// Nothing when sound can be heard, else why not.
    virtual std::optional<Message> problem() const = 0;
    /// Plays from `fromS` seconds; what played before stops. Does nothing when there is a problem.
    virtual void play(Samples samples, double fromS) = 0;
    virtual void stop() = 0;
    /// Seconds into the samples as heard now; nothing when all is silent or at the end.
    virtual std::optional<double> position() const = 0;
};

/// The machine's own loudspeaker, through Qt Multimedia.
std::unique_ptr<Loudspeaker> makeLoudspeaker();

/// Makes no sound and keeps time by the clock: for tests and for machines without a loudspeaker.
std::unique_ptr<Loudspeaker> makeStandInLoudspeaker();

} // namespace jg
