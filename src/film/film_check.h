// SPDX-License-Identifier: GPL-3.0-or-later
// What a film can and cannot answer, said on arrival.
#pragma once

#include "film/survey.h"

#include <filesystem>
#include <functional>
#include <string>
#include <utility>
#include <vector>

namespace jg {

enum class CheckLevel { Note, Warn, Stop };
const char* idOf(CheckLevel level);

/// Frames from the first to the last, both included.
using FrameRange = std::pair<std::int64_t, std::int64_t>;

/// One finding of the check: an id for programs, a message for a parent, and what it rests on.
struct CheckLine {
    std::string id;
    CheckLevel level = CheckLevel::Note;
    Message text;
    std::optional<FrameRange> frames; ///< that show it
    std::optional<double> figure;     ///< what was measured
    std::optional<double> limit;      ///< what it was held against
};

/// Limits of the check; data/film/check-limits.json holds the shipped ones and says where they come from.
struct CheckLimits {
    double mostPictures = 0; ///< looked at, from the first
    double enoughRateFps = 0;
    double handInchesPerSecond = 0;
    double darkMean = 0;
    double fastLeastArea = 0;  ///< pixels of the survey's small picture
    double fastClearLeast = 0; ///< against the body's slow parts
    double smallSidePx = 0;
    double athleteLeastHeight = 0; ///< part of the picture's height
    double edgeMargin = 0;         ///< part of the picture
    double edgeLeastFrames = 0;    ///< part of the frames
    double shakeLargest = 0;       ///< part of the width
    double tiltLargestDeg = 0;
    double squareLargestDeg = 0;
    double startMotionLargest = 0; ///< part of the most motion
    double endMotionLargest = 0;
    double stillMotionLargest = 0;
    double stillLeastS = 0;
    double travelLeast = 0; ///< part of the width
};

/// Reads limits. Errors: NotFound, Unreadable, BadInput (a number is missing).
Result<CheckLimits> readCheckLimits(const std::filesystem::path& file);

/// What is known about a film from those who sent it.
struct CheckQuestion {
    double statedFps = 0; ///< the coach's word on the capture rate; 0 = none
    int travel = 0;       ///< which way the athlete should move in the picture: 1 right, -1 left, 0 unknown
    Message seenAs = {};  ///< "a right-hander from the open side"
    bool fromSide = true; ///< a side view: being square matters
};

struct FilmCheck {
    std::vector<CheckLine> lines; ///< gravest first
    int heldTimes = 1;            ///< how often each picture is shown
    std::int64_t distinctFrames = 0;
    std::string repeatPattern; ///< "none", or "each picture is shown 4 times"
    std::vector<FrameRange> damaged;
    FilmSurvey survey;
};

/// Looks through the whole film. `progress` gets 0..1. Errors: Cancelled, Damaged.
Result<FilmCheck> checkFilm(Reader& reader, const CheckLimits& limits, const CheckQuestion& question = {},
                            std::stop_token stop = {}, const std::function<void(double)>& progress = {});

} // namespace jg
