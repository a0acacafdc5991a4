// SPDX-License-Identifier: GPL-3.0-or-later
// A few points clicked one after the other for something other than the guide: a free mark, a scale, the
// rubber.
#pragma once

#include "letter/mark_painter.h"
#include "review/record/review.h"

#include <QStringList>

#include <functional>
#include <optional>
#include <vector>

namespace jg::ui {

/// What is being drawn. Lives in its bench.
class Drawing {
public:
    using Done = std::function<void(const std::vector<ImagePoint>&)>;
    /// `asks` says what to click, one line a point; the kind decides how it looks meanwhile.
    Drawing(MarkKind kind, QStringList asks, Done done)
        : kind_(kind)
        , asks_(std::move(asks))
        , done_(std::move(done)) {}

    /// What to click next.
    QString ask() const { return asks_.value(static_cast<int>(corners_.size()), asks_.last()); }
    /// Takes a corner; true when it was the last one.
    bool place(ImagePoint at);
    void finish() const { done_(corners_); }
    /// The lines so far, and the one to the pointer.
    void paint(QPainter& p, const ViewTransform& view, std::optional<ImagePoint> pointer) const;

private:
    MarkKind kind_;
    QStringList asks_;
    Done done_;
    std::vector<ImagePoint> corners_;
};

} // namespace jg::ui
