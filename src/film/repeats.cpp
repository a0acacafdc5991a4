#include "film/repeats.h"

#include "film/median.h"

#include <algorithm>
#include <array>

namespace jg {

namespace {
constexpr double kMoved = 3.0; // own choice, grey levels: coding noise of a held picture stays below it

} // namespace

int heldTimes(const FilmSurvey& survey) {
    std::vector<std::size_t> moved;
    for (std::size_t i = 1; i < survey.frames.size(); ++i)
        if (survey.frames[i].largestChange > kMoved) moved.push_back(i);
    if (moved.size() < 8) return 1;
    for (const std::size_t k : {8U, 5U, 4U, 3U, 2U}) {
        for (std::size_t phase = 0; phase < k; ++phase) {
            const auto onBeat = static_cast<std::size_t>(
                std::count_if(moved.begin(), moved.end(), [&](std::size_t i) { return i % k == phase; }));
            // Within the moving stretch most beats must bring a change, else it is only a slow film.
            const std::size_t beats = (moved.back() - moved.front()) / k + 1;
            if (onBeat == moved.size() && onBeat * 10 >= beats * 6) return static_cast<int>(k);
        }
    }
    return 1;
}

bool isBlended(const FilmSurvey& survey) {
    std::array<std::vector<double>, 2> byParity;
    for (std::size_t i = 0; i < survey.frames.size(); ++i)
        if (survey.frames[i].blend < 1) byParity[i % 2].push_back(survey.frames[i].blend);
    if (byParity[0].size() < 8 || byParity[1].size() < 8) return false;
    const auto [mixed, own] = std::minmax({medianOf(byParity[0]), medianOf(byParity[1])});
    return mixed < 0.12 && mixed < own * 0.4; // own choice: a mix is never exact after coding
}

} // namespace jg
