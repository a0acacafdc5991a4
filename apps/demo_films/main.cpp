// SPDX-License-Identifier: GPL-3.0-or-later
// demo-films: films of generated deliveries with exact truth, one by one or many at random.
#include "base/file_store.h"
#include "base/number.h"
#include "base/stop_on_signal.h"
#include "demo/films/exercise_pictures.h"
#include "demo/films/film_maker.h"
#include "demo/films/random_orders.h"
#include "words/words.h"

#include <cmath>
#include <cstdlib>
#include <functional>
#include <iostream>
#include <map>
#include <string>

namespace {

using jg::FilmOrder;

/// What each option does to an order.
std::map<std::string, std::function<void(FilmOrder&, double)>> numberOptions() {
    return {{"fps", [](FilmOrder& o, double v) { o.fps = static_cast<int>(v); }},
            {"width", [](FilmOrder& o, double v) { o.camera.width = static_cast<int>(v); }},
            {"height", [](FilmOrder& o, double v) { o.camera.height = static_cast<int>(v); }},
            {"yaw", [](FilmOrder& o, double v) { o.camera.yawDeg = v; }},
            {"roll", [](FilmOrder& o, double v) { o.camera.rollDeg = v; }},
            {"shake", [](FilmOrder& o, double v) { o.shakePx = v; }},
            {"blur", [](FilmOrder& o, double v) { o.shutter = v; }},
            {"noise", [](FilmOrder& o, double v) { o.noise = v; }},
            {"brightness", [](FilmOrder& o, double v) { o.brightness = v; }},
            {"start-at", [](FilmOrder& o, double v) { o.startAtS = v; }},
            {"repeat", [](FilmOrder& o, double v) { o.repeat = std::max(1, static_cast<int>(v)); }},
            {"deliveries", [](FilmOrder& o, double v) { o.deliveries = std::max(1, static_cast<int>(v)); }},
            {"lost", [](FilmOrder& o, double v) { o.lost = std::max(0, static_cast<int>(v)); }},
            {"damage", [](FilmOrder& o, double v) { o.damagedBytes = static_cast<int>(v); }},
            {"rotate", [](FilmOrder& o, double v) { o.rotationDeg = static_cast<int>(v); }},
            {"field", [](FilmOrder& o, double v) { o.camera.fieldM = v; }},
            {"cut-after", [](FilmOrder& o, double v) { o.cutAfterS = v; }},
            {"seed", [](FilmOrder& o, double v) { o.seed = static_cast<std::uint64_t>(v); }},
            {"body-height", [](FilmOrder& o, double v) { o.knobs.heightM = v; }},
            {"back-knee", [](FilmOrder& o, double v) { o.knobs.backKneeLoad = v; }},
            {"leg-spread", [](FilmOrder& o, double v) { o.knobs.legSpread = v; }},
            {"front-knee-plant", [](FilmOrder& o, double v) { o.knobs.frontKneePlant = v; }},
            {"front-knee-release", [](FilmOrder& o, double v) { o.knobs.frontKneeRelease = v; }},
            {"trunk-forward", [](FilmOrder& o, double v) { o.knobs.trunkForward = v; }},
            {"hips-open", [](FilmOrder& o, double v) { o.knobs.hipsOpenPlant = v; }},
            {"shoulders-open", [](FilmOrder& o, double v) { o.knobs.shouldersOpenPlant = v; }},
            {"elbow-height", [](FilmOrder& o, double v) { o.knobs.elbowHeight = v; }},
            {"elbow-bend", [](FilmOrder& o, double v) { o.knobs.elbowBend = v; }},
            {"hand-early", [](FilmOrder& o, double v) { o.knobs.handEarlyS = v; }},
            {"back-foot-lift", [](FilmOrder& o, double v) { o.knobs.backFootLift = v; }},
            {"glove-reach", [](FilmOrder& o, double v) { o.knobs.gloveReach = v; }},
            {"early-travel", [](FilmOrder& o, double v) { o.knobs.earlyTravel = v; }}};
}

void sayUse(std::ostream& out) {
    out << "  demo-films FILM.mp4 [--truth TRUTH.json] [--view open|closed|front|rear] [--hand R|L] "
           "[--flat] [--windup] [--numbers] [--mixed] [--lost-closed] [--mirrored] [--silent]\n ";
    for (const auto& [name, set] : numberOptions()) out << " [--" << name << " V]";
    out << "\n  demo-films --exercise FOLDER\n";
}

int wrongUse(const std::string& what) {
    std::cerr << "Wrong use: " << what << ".\n";
    sayUse(std::cerr);
    return 2;
}

int help() {
    std::cout << "Makes a film of a made-up delivery, and what is true of every frame of it.\n";
    sayUse(std::cout);
    std::cout
        << "--exercise writes the pictures of the click exercise, which are shipped in data/exercise.\n"
           "Faults: --repeat shows each picture V times, --mixed blends neighbours, --lost leaves V out "
           "(--lost-closed closes the gap),\n  --damage changes V bytes, --cut-after and --start-at "
           "shorten, --blur is the open part of the shutter,\n  --shake in pixels, --brightness 0..1, "
           "--rotate 90|180|270, --yaw and --roll in degrees, --mirrored, --silent.\n";
    return 0;
}

int ended(const jg::Status& how) {
    if (!how) std::cerr << jg::english()(how.error().text) << "\n";
    return how ? 0 : 1;
}

} // namespace

int main(int argc, char** argv) {
    const std::stop_token interrupted = jg::stopOnSignals();
    FilmOrder order;
    std::string file, truthFile, exerciseFolder;
    const auto numbers = numberOptions();
    for (int i = 1; i < argc; ++i) {
        const std::string word = argv[i];
        if (word == "--help") return help();
        if (word.rfind("--", 0) != 0) {
            file = word;
            continue;
        }
        const std::string name = word.substr(2);
        if (name == "flat") {
            order.knobs.mound = false;
        } else if (name == "windup") {
            order.knobs.stretch = false;
        } else if (name == "mixed") {
            order.mixed = true;
        } else if (name == "lost-closed") {
            order.lostClosed = true;
        } else if (name == "mirrored") {
            order.mirrored = true;
        } else if (name == "silent") {
            order.sound = false;
        } else if (name == "numbers") {
            order.frameNumbers = true;
        } else if (i + 1 >= argc) {
            return wrongUse(word + " wants a value");
        } else if (const std::string value = argv[++i]; name == "truth") {
            truthFile = value;
        } else if (name == "exercise") {
            exerciseFolder = value;
        } else if (name == "view" && jg::viewFromId(value)) {
            order.camera.view = *jg::viewFromId(value);
        } else if (name == "hand" && jg::handFromId(value)) {
            order.hand = *jg::handFromId(value);
        } else if (const auto option = numbers.find(name); option != numbers.end()) {
            const auto v = jg::parseNumber(value);
            if (!v) return wrongUse(word + " wants a number with a point");
            option->second(order, *v);
        } else {
            return wrongUse(word + " " + value + " is not understood");
        }
    }
    if (!exerciseFolder.empty()) return ended(jg::makeExercisePictures(exerciseFolder, interrupted));
    if (file.empty()) return wrongUse("the film's name is missing");
    if (order.fps < 1 || order.fps > 1000 || order.camera.width < 64 || order.camera.height < 36 ||
        order.camera.width > 7680 || order.camera.height > 4320)
        return wrongUse("the rate must be 1 to 1000 and the size 64x36 to 7680x4320");
    const auto truth = jg::makeFilm(order, file, interrupted);
    if (!truth) return ended(truth.error());
    jg::FileStore files;
    return ended(truthFile.empty() ? jg::Status(jg::Done{}) : files.write(truthFile, *truth));
}
