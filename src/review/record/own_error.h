// SPDX-License-Identifier: GPL-3.0-or-later
// The coach's own click error: an exercise of repeated blind clicks, and what follows from it.
#pragma once

#include "base/date.h"
#include "base/result.h"
#include "coaching/agreement.h"
#include "kinematics/anatomy.h"
#include "kinematics/point.h"

#include <array>
#include <map>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace jg {

/// Three joints of one angle on one picture: end, vertex, end. Clicked once in each of two rounds.
struct ErrorPicture {
    std::string name; ///< the same name is the same picture, for every coach
    std::array<Landmark, 3> joints{};
    std::optional<std::array<ImagePoint, 3>> truth; ///< of generated pictures
    double heightPx = 720;                          ///< of the picture
    std::array<std::array<ImagePoint, 3>, 2> clicks{};
    bool operator==(const ErrorPicture&) const = default;
};

/// One exercise, done to its end.
struct ErrorRun {
    std::string coach;
    Date day{};
    std::vector<ErrorPicture> pictures;
    bool operator==(const ErrorRun&) const = default;
};

/// Click errors are told for a picture of this height and scaled to others.
inline constexpr double kErrorHeightPx = 720;

struct LandmarkError {
    Landmark landmark{};
    double sdPx = 0; ///< standard error on each axis, about the truth where it is known, else of repeats
    ImagePoint lean; ///< mean of click minus truth; nothing known = 0
    int clicks = 0;
};

/// What one run says.
struct OwnError {
    std::vector<LandmarkError> landmarks; ///< by landmark
    double sdPx = 0;                      ///< over all
    double leanPx = 0;                    ///< what of it is always to the same side, freed of the scatter
    std::optional<double> semDeg;         ///< of an angle, from the two rounds
    std::optional<double> smallestChangeDeg;
    std::optional<double> icc; ///< of the angles, Shrout and Fleiss (2,1)
};

/// Source: standard errors as root mean squares; the rest as coaching/agreement.h and Weir 2005. Pure.
OwnError ownErrorOf(const ErrorRun& run);

/// How two coaches agree on the angles of the pictures both clicked, from their means of two rounds: ICC
/// (2,1) and the SEM in degrees. Nothing when they share fewer than three pictures.
struct CoachAgreement {
    double icc = 0, semDeg = 0;
    int pictures = 0;
};
std::optional<CoachAgreement> agreementOf(const ErrorRun& one, const ErrorRun& other);

/// Click error for a landmark on a picture of a height, from the coach's latest run; the usual one without.
double clickSigmaPx(const std::vector<ErrorRun>& runs, const std::string& coach, Landmark landmark,
                    double heightPx);

/// Runs as JSON (docs/formats.md). Errors: Damaged.
std::string toJson(const std::vector<ErrorRun>& runs);
Result<std::vector<ErrorRun>> errorRunsFromJson(std::string_view text);

} // namespace jg
