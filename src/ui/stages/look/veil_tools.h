// SPDX-License-Identifier: GPL-3.0-or-later
// Somebody else in the picture is made unrecognizable: a box drawn by hand and followed through the film.
#pragma once

#include "ui/bench/bench.h"

#include <optional>

namespace jg {
class Job;
}

namespace jg::ui {

/// Draws boxes on the stage while it is asked to, and follows each in a job. Lives beside its bench.
class VeilTools : public StageTool {
public:
    VeilTools(QWidget* parent, ReviewContext& context)
        : parent_(parent)
        , c_(context) {}

    /// The next drag on the picture is a box; while one is followed, stops that.
    void hide();
    /// Asks whom to show again.
    void showAgain();
    /// True while the next drag is a box.
    bool drawing() const { return drawing_; }
    void stopDrawing();

    bool press(ImagePoint at, double reach) override;
    void drag(ImagePoint at) override;
    void release(ImagePoint at) override;
    void paintOver(QPainter& p, const ViewTransform& view) override;

private:
    void follow(PictureBox box);

    QWidget* parent_;
    ReviewContext& c_;
    bool drawing_ = false;
    std::optional<PictureBox> box_; ///< while it is being drawn
    Job* following_ = nullptr;
};

} // namespace jg::ui
