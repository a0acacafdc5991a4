// Films of generated deliveries, with their exact truth.
#pragma once

#include "base/result.h"
#include "demo/camera.h"
#include "demo/delivery.h"
#include "demo/figure.h"

#include <cstdint>
#include <filesystem>
#include <functional>
#include <stop_token>
#include <string>

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

/// Writes the film; returns its truth as JSON text (docs/formats.md). Deterministic from the order.
/// Errors: DiskFull, WriteFailed, Cancelled.
Result<std::string> makeFilm(const FilmOrder& order, const std::filesystem::path& path,
                             std::stop_token stop = {}, const std::function<void(double)>& progress = {});

/// When the film begins, seconds after first touch.
double filmStartS(const FilmOrder& order, const Delivery& delivery);

/// Pictures of one delivery of the film.
std::int64_t picturesOfOne(const FilmOrder& order, const Delivery& delivery);
/// When picture n is taken, seconds after the first touch of its own delivery.
double timeOfPicture(const FilmOrder& order, const Delivery& delivery, double n);

/// The frame number burned into row 0..7 of a picture by `frameNumbers`: 16 blocks, bright = 1. -1 when there
/// is none. `bgrx` as in Picture.
int burnedNumber(const std::uint8_t* bgrx, int stride, int width);

/// The picture points of all joints of one moment, as the film shows them.
std::map<Landmark, ImagePoint> projectJoints(const FilmOrder& order, const Pose& pose);

} // namespace jg
