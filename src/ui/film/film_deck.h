// SPDX-License-Identifier: GPL-3.0-or-later
// Film and sound of the open review: brings the playhead's frame to the stage.
#pragma once

#include "desk/jobs/film_thread.h"
#include "desk/jobs/job.h"
#include "ui/film/playhead.h"
#include "ui/film/stage_view.h"
#include "voice/loudspeaker.h"

#include <filesystem>
#include <memory>

namespace jg::ui {

/// Asks for what the playhead wants and shows what comes: the exact picture, until then a near one. Plays the
/// film's sound while it runs forward at true speed.
class FilmDeck : public QObject {
    Q_OBJECT
public:
    FilmDeck(StageView& stage, Playhead& playhead, Loudspeaker& loudspeaker, QObject* parent);
    /// `captureFps` is the clip's true rate; 0 = unknown, then the film's own times count.
    void open(const std::filesystem::path& film, const std::filesystem::path& scrub, double captureFps);
    /// Ends decoding and sound; no picture comes after it.
    void close();
    /// Of the open film; no frames until it is open.
    const FilmInfo& info() const { return info_; }
    double captureFps() const { return captureFps_; }
    /// Shows or hides the line of figures.
    void toggleDetails();

Q_SIGNALS:
    /// A sentence for the coach; `lasting` when the film can't go on.
    void tell(const QString& sentence, bool lasting);
    void pictureShown();

private:
    void opened(const FilmInfo& info);
    void show(qint64 frame, const Picture& picture, bool exact);
    void loadSound();
    void followPlaying();
    void refreshDetails();

    StageView& stage_;
    Playhead& playhead_;
    Loudspeaker& loudspeaker_;
    std::filesystem::path path_;
    double captureFps_ = 0;
    FilmInfo info_;
    Samples sound_; ///< empty while it is not read, or when there is none
    bool details_ = false;
    std::unique_ptr<FilmThread> film_;
};

} // namespace jg::ui
