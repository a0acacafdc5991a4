// SPDX-License-Identifier: GPL-3.0-or-later
#include "film/true_time.h"

#include <cmath>

namespace jg {

bool runsAtTrueSpeed(const FilmInfo& info, double captureFps) {
    const double play = info.playRate.toDouble();
    return captureFps <= 0 || play <= 0 || std::abs(play - captureFps) < 0.02 * captureFps;
}

std::vector<double> trueSeconds(const FilmInfo& info, double captureFps) {
    const double play = info.playRate.toDouble();
    const double stretch = runsAtTrueSpeed(info, captureFps) ? 1 : play / captureFps;
    std::vector<double> seconds;
    for (const Pts pts : info.pts)
        seconds.push_back(secondsOf(Pts{pts.value - info.pts.front().value}, info.timeBase) * stretch);
    return seconds;
}

} // namespace jg
