// SPDX-License-Identifier: GPL-3.0-or-later
#include "ui/film/drawing.h"

#include "ui/kit/text_scale.h"
#include "ui/kit/words.h"

#include "letter/mark_scene.h"

namespace jg::ui {

bool Drawing::place(ImagePoint at) {
    corners_.push_back(at);
    return corners_.size() >= static_cast<std::size_t>(asks_.size());
}

void Drawing::paint(QPainter& p, const ViewTransform& view, std::optional<ImagePoint> pointer) const {
    if (corners_.empty()) return;
    MarkScene scene;
    std::vector<ImagePoint> line = corners_;
    if (pointer) line.push_back(*pointer);
    if (kind_ == MarkKind::HeadBox && line.size() == 2)
        scene.boxes.push_back({line[0], line[1]});
    else if (kind_ == MarkKind::Line) // one after the other, each with its two ends
        for (std::size_t i = 0; i + 1 < line.size(); i += 2)
            scene.lines.push_back({{line[i], line[i + 1]}, false, false});
    else
        scene.lines.push_back({line, kind_ != MarkKind::Angle, false});
    paintScene(p, scene, view, QRectF(0, 0, 1e5, 1e5), windowWords(), textScale());
}

} // namespace jg::ui
