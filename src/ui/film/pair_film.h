// SPDX-License-Identifier: GPL-3.0-or-later
// One film of two that go together: the newest wish is shown, whatever comes late is not.
#pragma once

#include "desk/jobs/film_thread.h"

#include <QObject>

#include <memory>

namespace jg::ui {

class PairFilm : public QObject {
    Q_OBJECT
public:
    PairFilm(const std::filesystem::path& film, const std::filesystem::path& scrub, QObject* parent);
    /// Wants a frame. While it plays every picture is taken as it comes, else only that of this frame.
    void want(std::int64_t frame, bool playing);
    std::int64_t shownFrame() const { return shown_; }
    const Picture& picture() const { return picture_; }
    bool exact() const { return exact_; }
    const FilmInfo& info() const { return info_; } ///< no frames until opened()

Q_SIGNALS:
    void opened();
    void shown();
    void failed(const Message& why);

private:
    void take(qint64 frame, const Picture& picture, bool exact);

    std::int64_t wanted_ = 0, shown_ = -1;
    bool playing_ = false, exact_ = false;
    Picture picture_;
    FilmInfo info_;
    std::unique_ptr<FilmThread> film_;
};

} // namespace jg::ui
