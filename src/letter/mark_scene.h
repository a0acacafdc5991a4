// SPDX-License-Identifier: GPL-3.0-or-later
// What is drawn over a picture: the same in the window, the film and the letter.
#pragma once

#include "review/assess/assess.h"
#include "review/assess/ghost.h"

#include <optional>
#include <string>
#include <vector>

namespace jg {

/// A line between points, in picture coordinates.
struct SceneLine {
    std::vector<ImagePoint> points;
    bool dashed = false;
    bool faint = false; ///< beside the matter: the other measures while one is spoken of
};

/// A clicked point.
struct ScenePoint {
    ImagePoint at;
    bool faint = false;
};

/// The arc of an angle at a vertex, between the directions to a and b.
struct SceneArc {
    ImagePoint a, vertex, b;
    bool faint = false;
};

/// A number beside its vertex.
struct SceneLabel {
    ImagePoint at;
    Message text;
    bool faint = false;
};

struct SceneBox {
    ImagePoint a, b;
};

/// The target's pose: dashed limbs, rings at the joints that move, and the target's number.
struct SceneGhost {
    std::vector<std::pair<ImagePoint, ImagePoint>> limbs;
    std::vector<ImagePoint> joints;
    SceneLabel label;
};

/// Everything drawn over one frame. Value; any thread.
struct MarkScene {
    std::vector<SceneLine> lines;
    std::vector<ScenePoint> points;
    std::vector<SceneArc> arcs;
    std::vector<SceneLabel> labels;
    std::vector<SceneBox> boxes;
    std::optional<SceneGhost> ghost;
};

/// The scene of a frame. With `focus` (a measure id) the other measures are drawn faint and unlabelled;
/// with an id that is no measure, all measures are. A ghost is drawn on its own frame. `family`: no number
/// carries a minus sign. Pure.
MarkScene sceneFor(const DeliveryMarks& delivery, const Playbook& playbook, const Assessment& a,
                   std::int64_t frame, const std::optional<std::string>& focus = std::nullopt,
                   const MeasureGhost* ghost = nullptr, bool family = false);

/// A scene without what is beside the matter: for who reads it once and does not measure. Pure.
MarkScene onlyTheMatter(MarkScene scene);

} // namespace jg
