// SPDX-License-Identifier: GPL-3.0-or-later
// The film as it will go out, watched before it does.
#pragma once

#include "desk/jobs/film_thread.h"
#include "letter/narrated_film.h"
#include "library/work_folder.h"
#include "review/compare/lockstep.h"
#include "voice/loudspeaker.h"

#include <QDialog>
#include <QTimer>

#include <memory>

class QLabel;
class QSlider;
class QPushButton;

namespace jg::ui {

class RowList;

/// Shows a picture, as wide as it has room, or as wide as on a phone.
class WatchScreen : public QWidget {
public:
    explicit WatchScreen(QWidget* parent = nullptr);
    void setPicture(const Picture& picture);
    void setCaption(const QString& words);
    void setPhone(bool on);
    bool phone() const { return phone_; }

protected:
    void paintEvent(QPaintEvent*) override;

private:
    Picture picture_;
    QString caption_;
    bool phone_ = false;
};

/// What is watched.
struct WatchedFilm {
    std::shared_ptr<WorkFolder> folder; ///< with film.mp4 in it; gone when the window closes
    FilmMade made;
    std::vector<float> sound;
    QString to; ///< who gets it
};

/// Plays a finished film with its sound and captions; the chapters are a list. Deletes itself and the film's
/// folder when closed.
class FilmWatch : public QDialog {
    Q_OBJECT
public:
    FilmWatch(WatchedFilm film, Loudspeaker& loudspeaker, QWidget* parent);
    ~FilmWatch() override;
    double seconds() const { return at_; }
    bool playing() const { return clock_.isActive(); }

protected:
    void keyPressEvent(QKeyEvent* event) override;

private:
    void play(bool on);
    void goTo(double seconds);
    void tick();
    void showAt(double seconds);
    void chapter(int by);
    double length() const;

    WatchedFilm film_;
    Samples sound_;
    Loudspeaker& loudspeaker_;
    std::unique_ptr<FilmThread> frames_;
    FrameTimes times_; ///< empty until the film is open
    QTimer clock_;
    double at_ = 0;
    WatchScreen* screen_;
    RowList* chapters_;
    QSlider* slider_;
    QPushButton* play_;
    QLabel* time_;
    bool captionsOn_ = false;
};

} // namespace jg::ui
