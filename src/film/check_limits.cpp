// SPDX-License-Identifier: GPL-3.0-or-later
#include "base/file_store.h"
#include "film/film_check.h"

#include <nlohmann/json.hpp>

namespace jg {

Result<CheckLimits> readCheckLimits(const std::filesystem::path& file) {
    auto bytes = readFile(file);
    if (!bytes) return bytes.error();
    const auto data = nlohmann::json::parse(*bytes, nullptr, false);
    CheckLimits limits;
    const std::pair<const char*, double*> fields[] = {{"enoughRateFps", &limits.enoughRateFps},
                                                      {"handInchesPerSecond", &limits.handInchesPerSecond},
                                                      {"darkMean", &limits.darkMean},
                                                      {"fastLeastArea", &limits.fastLeastArea},
                                                      {"fastClearLeast", &limits.fastClearLeast},
                                                      {"smallSidePx", &limits.smallSidePx},
                                                      {"athleteLeastHeight", &limits.athleteLeastHeight},
                                                      {"edgeMargin", &limits.edgeMargin},
                                                      {"edgeLeastFrames", &limits.edgeLeastFrames},
                                                      {"shakeLargest", &limits.shakeLargest},
                                                      {"tiltLargestDeg", &limits.tiltLargestDeg},
                                                      {"squareLargestDeg", &limits.squareLargestDeg},
                                                      {"startMotionLargest", &limits.startMotionLargest},
                                                      {"endMotionLargest", &limits.endMotionLargest},
                                                      {"stillMotionLargest", &limits.stillMotionLargest},
                                                      {"stillLeastS", &limits.stillLeastS},
                                                      {"travelLeast", &limits.travelLeast},
                                                      {"mostPictures", &limits.mostPictures}};
    for (const auto& [name, value] : fields) {
        if (!data.is_object() || !data.contains(name) || !data[name].is_number())
            return fail(ErrorCode::BadInput, msg("check-limits.file-lacks-the-number-name-install",
                                                 {{"file", file.filename().string()}, {"name", name}}));
        *value = data[name];
    }
    return limits;
}

} // namespace jg
