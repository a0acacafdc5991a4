// SPDX-License-Identifier: GPL-3.0-or-later
#include "film/place_lines.h"

#include <opencv2/imgproc.hpp>

#include <algorithm>
#include <cmath>
#include <vector>

namespace jg {

namespace {

constexpr double kNearDeg = 14;  // a line farther off is no upright or level one
constexpr double kShortest = 26; // pixels of a line that counts
constexpr std::size_t kFewest = 8;

struct Edge {
    double offDeg; ///< from upright or level, clockwise
    double y;      ///< from the middle, part of the width
    double weight; ///< its length
};

double weightedMedian(std::vector<Edge> edges) {
    std::sort(edges.begin(), edges.end(), [](const Edge& a, const Edge& b) { return a.offDeg < b.offDeg; });
    double whole = 0, sum = 0;
    for (const Edge& e : edges) whole += e.weight;
    for (const Edge& e : edges)
        if ((sum += e.weight) >= whole / 2) return e.offDeg;
    return 0;
}

void collect(const cv::Mat& grey, std::vector<Edge>& upright, std::vector<Edge>& level) {
    std::vector<cv::Vec4f> segments;
    cv::createLineSegmentDetector()->detect(grey, segments);
    for (const cv::Vec4f& s : segments) {
        const double dx = s[2] - s[0], dy = s[3] - s[1], length = std::hypot(dx, dy);
        if (length < kShortest) continue;
        const double height = ((s[1] + s[3]) / 2 - grey.rows / 2.0) / grey.cols;
        const double offUpright = -std::atan(dx / (dy == 0 ? 1e-9 : dy)) * 180 / M_PI;
        const double offLevel = std::atan(dy / (dx == 0 ? 1e-9 : dx)) * 180 / M_PI;
        if (std::abs(offUpright) < kNearDeg) upright.push_back({offUpright, height, length});
        if (std::abs(offLevel) < kNearDeg) level.push_back({offLevel, height, length});
    }
}

/// Slope of offDeg over y by least squares, after throwing out what lies far from a first line.
std::optional<double> runTogether(std::vector<Edge> edges, double tiltDeg) {
    double slope = 0;
    for (int round = 0; round < 6; ++round) {
        double w = 0, sy = 0, so = 0, syy = 0, syo = 0;
        for (const Edge& e : edges) {
            const double off = e.offDeg - tiltDeg;
            const double residual = off - slope * e.y;
            const double weight = e.weight / (1 + residual * residual / 2);
            w += weight, sy += weight * e.y, so += weight * off;
            syy += weight * e.y * e.y, syo += weight * e.y * off;
        }
        const double spread = syy - sy * sy / w;
        if (w <= 0 || spread / w < 0.002) return std::nullopt; // all at one height
        slope = (syo - sy * so / w) / spread;
    }
    return slope;
}

} // namespace

PlaceLines placeLines(const cv::Mat& grey) {
    std::vector<Edge> upright, level;
    collect(grey, upright, level);
    PlaceLines lines;
    if (upright.size() > kFewest) lines.tiltDeg = weightedMedian(upright);
    if (level.size() > kFewest)
        if (const auto slope = runTogether(level, lines.tiltDeg.value_or(0)))
            lines.turnedDeg = std::atan(*slope * M_PI / 180) * 180 / M_PI;
    return lines;
}

} // namespace jg
