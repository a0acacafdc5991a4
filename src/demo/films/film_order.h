// SPDX-License-Identifier: GPL-3.0-or-later
// One film to make, and what follows from its order alone.
#pragma once

#include "demo/films/camera.h"
#include "demo/films/delivery.h"
#include "demo/films/figure.h"

#include <cstdint>
#include <map>
#include <utility>

namespace jg {

/// One film to make. Faults are off unless asked for.
struct FilmOrder {
    DeliveryKnobs knobs;
    CameraSettings camera;
    Outfit outfit;
    Hand hand = Hand::Right;
    int fps = 60;
    double shakePx = 0;
    double shutter = 0.12; ///< fraction of a frame the shutter is open
    double noise = 0.006;
    double brightness = 1;
    double startAtS = -1e9; ///< the film begins here, seconds after first touch
    double cutAfterS = 1e9; ///< the film ends here, seconds after first touch
    int deliveries = 1;     ///< the delivery is thrown so many times, one after the other
    int repeat = 1;     ///< each picture is shown this often, at as many times the rate: a slow-motion copy
    bool mixed = false; ///< between two pictures lies their mean, at twice the rate: an editor's work
    int lost = 0;       ///< so many pictures are missing, spread over the middle of the film
    bool lostClosed = false; ///< and time is closed up over them, so that only the motion tells
    bool mirrored = false;   ///< the picture is turned left for right, and the athlete's hand is not
    int damagedBytes = 0;    ///< this many bytes in the middle third of the file are overwritten
    int rotationDeg = 0;     ///< display rotation written into the file
    bool sound = true;
    bool frameNumbers = false; ///< burns the frame number in as a bar code for tests
    std::uint64_t seed = 1;
};

/// When the film begins, seconds after first touch.
double filmStartS(const FilmOrder& order, const Delivery& delivery);

/// Pictures of one delivery of the film.
std::int64_t picturesOfOne(const FilmOrder& order, const Delivery& delivery);
/// When picture n is taken, seconds after the first touch of its own delivery.
double timeOfPicture(const FilmOrder& order, const Delivery& delivery, double n);

/// The picture points of all joints of one moment, as the film shows them.
std::map<Landmark, ImagePoint> projectJoints(const FilmOrder& order, const Pose& pose);

/// Displacement of the picture by the camera's shake at frame n, pixels, before mirroring.
std::pair<double, double> shakeOf(const FilmOrder& order, std::int64_t n);

} // namespace jg
