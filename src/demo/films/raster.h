// SPDX-License-Identifier: GPL-3.0-or-later
// Painting solids into a picture with depth, light and shadow.
#pragma once

#include "demo/films/camera.h"
#include "demo/films/figure.h"

#include <cstdint>
#include <vector>

namespace jg {

/// A part of the picture, right and bottom edges excluded.
struct Box {
    int x0 = 0, y0 = 0, x1 = 0, y1 = 0;
    bool empty() const { return x1 <= x0 || y1 <= y0; }
    Box with(Box o) const;
};

/// Linear light, three floats a pixel, of the part `box` of a picture.
struct Canvas {
    Box box;
    std::vector<float> rgb;
    Canvas() = default;
    explicit Canvas(Box b) { begin(b); }
    /// Black, and of this part of the picture.
    void begin(Box b) {
        box = b;
        rgb.assign(static_cast<std::size_t>(b.x1 - b.x0) * static_cast<std::size_t>(b.y1 - b.y0) * 3, 0.0f);
    }
    std::size_t index(int x, int y) const {
        return static_cast<std::size_t>(y - box.y0) * static_cast<std::size_t>(box.x1 - box.x0) +
               static_cast<std::size_t>(x - box.x0);
    }
    float* at(int x, int y) { return &rgb[index(x, y) * 3]; }
    const float* at(int x, int y) const { return &rgb[index(x, y) * 3]; }
};

/// The part of the picture that the solids and their shadows touch.
Box boundsOf(const Camera& camera, const std::vector<RoundCone>& solids, const Delivery& delivery);

/// Darkens the ground of `canvas` where the solids keep the lamp's light away.
void paintShadow(Canvas& canvas, const Camera& camera, const std::vector<RoundCone>& solids,
                 const Delivery& delivery);

/// The light that solids send to a part of the picture while the shutter is open.
class Exposure {
public:
    /// Opens the shutter on a part of the picture.
    void begin(Box box);
    /// One moment more, seen through the camera displaced by (jitterX, jitterY) pixels.
    void add(const Camera& camera, const std::vector<RoundCone>& solids, double jitterX, double jitterY);
    /// Lays the mean of all moments over what stands behind; `background` has this box, `all` is how many
    /// moments were added.
    void over(Canvas& background, int all) const;

private:
    Canvas light_;
    std::vector<float> moments_; ///< in how many of them a solid was seen, by pixel
};

/// The empty shed seen through the camera: wall, windows, rails, mound, rubber.
Canvas paintShed(const Camera& camera, const Delivery& delivery);

} // namespace jg
