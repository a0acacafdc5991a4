// SPDX-License-Identifier: GPL-3.0-or-later
// A stop being said or heard: what the picture shows of it, by the sound's own clock.
#pragma once

#include "desk/session/recorder.h"
#include "review/record/replay.h"
#include "ui/bench/bench.h"
#include "voice/loudspeaker.h"

#include <QObject>
#include <QTimer>

#include <optional>
#include <utility>

namespace jg::ui {

/// Records a stop with all that is shown and drawn meanwhile, and plays it back the same way: what is on the
/// stage is always what the film will show at that moment. Lives beside its bench.
class Narration : public QObject, public StageTool {
    Q_OBJECT
public:
    Narration(ReviewContext& context, Microphone& microphone, Loudspeaker& loudspeaker);

    /// Says a stop that is in hand, from `head` on where there is one. Errors: those of Recorder::start().
    Status record(const Stop& stop, const std::optional<TakeHead>& head = {});
    /// Ends what is being said. Errors: those of Recorder::finish().
    Result<std::optional<Take>> finish();
    bool recording() const { return recorder_.recording(); }
    const Recorder& recorder() const { return recorder_; }

    /// Plays a stop that is in hand. Errors: Refused (no loudspeaker), those of readSound().
    Status listen(const Stop& stop, const Take& take);
    void stopListening();
    bool listening() const { return timer_.isActive(); }
    /// Where it is being heard, in samples of the take's file.
    std::optional<std::int64_t> heardAt() const;

    const StageState& state() const { return state_; }
    Pen pen() const { return pen_; }
    bool fades() const { return fades_; }
    /// The playhead has moved.
    void frameChanged();
    void choosePen(Pen pen);
    /// From now on what is drawn stays, or goes after a while.
    void toggleFades();
    void toggleMarks();
    void toggleGoal();
    /// Takes the last stroke back.
    void dropLast();
    void clear();
    /// Looks at the joints that are clicked on this frame, or at all of the picture again.
    void closer();

    bool press(ImagePoint at, double reach) override;
    void drag(ImagePoint at) override;
    void hover(ImagePoint at) override;
    void paintOver(QPainter& p, const ViewTransform& view) override;

Q_SIGNALS:
    void heard();                       ///< more sound has come
    void brokenOff(const Message& why); ///< the microphone went away
    void listened();                    ///< it was heard to its end, or stopped
    void toolsChanged();                ///< another pen, or another way of drawing

private:
    /// Nothing while nobody talks.
    void note(const TakeEvent& event);
    void noteLook();
    void lookAt(const std::optional<PictureBox>& part);
    void follow();
    void followSound();
    void show(StageState state);
    /// A clicked joint near a point of the shown frame; none for what is drawn freely.
    std::optional<std::pair<Landmark, ImagePoint>> jointNear(ImagePoint at) const;
    TakeEvent strokeAt(TakeEventKind kind, ImagePoint at) const;

    ReviewContext& c_;
    Recorder recorder_;
    Loudspeaker& loudspeaker_;
    QTimer timer_; ///< while it is listened to
    Stop stop_;    ///< that is said or heard
    Take heard_;
    StageState state_;
    TakeReplay replay_; ///< of what is said or heard
    Pen pen_ = Pen::Free;
    bool fades_ = false;
    double reach_ = 10; ///< ten view pixels in picture pixels
    std::optional<ImagePoint> pointer_;
};

} // namespace jg::ui
