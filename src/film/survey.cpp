// SPDX-License-Identifier: GPL-3.0-or-later
#include "film/survey.h"

#include "film/convert.h"
#include "film/decoded.h"
#include "film/fast_part.h"
#include "film/median.h"
#include "film/median_picture.h"
#include "film/place_lines.h"
#include "film/turn.h"

#include <opencv2/imgproc.hpp>
#include <opencv2/video/tracking.hpp>

#include <algorithm>
#include <cmath>

namespace jg {

namespace {

constexpr int kWidth = 256;      // of the small pictures
constexpr int kChangeWidth = 96; // width at which changes are judged: coding noise averages out
constexpr int kCell = 8;         // of its pixels
constexpr int kSamples = 31;     // frames the background is the median of
constexpr int kForeground = 18;  // grey levels away from the background
constexpr int kChanged = 14;     // grey levels between two frames
constexpr double kGround = 0.16; // lowest part of the body that counts as feet

/// The size at which changes are judged.
cv::Mat averaged(const cv::Mat& picture) {
    cv::Mat small;
    cv::resize(picture, small, {kChangeWidth, std::max(kCell, kChangeWidth * picture.rows / picture.cols)}, 0,
               0, cv::INTER_AREA);
    return small;
}

/// Mean difference in the cell that changed most: an arm moves little of the whole picture.
double largestCellChange(const cv::Mat& now, const cv::Mat& before) {
    cv::Mat difference;
    cv::absdiff(now, before, difference);
    double most = 0;
    for (int y = 0; y + kCell <= difference.rows; y += kCell)
        for (int x = 0; x + kCell <= difference.cols; x += kCell)
            most = std::max(most, cv::mean(difference(cv::Rect(x, y, kCell, kCell)))[0]);
    return most;
}

cv::Mat backgroundOf(const std::vector<cv::Mat>& all) {
    std::vector<cv::Mat> chosen;
    for (int i = 0; i < kSamples; ++i) {
        const auto at = static_cast<std::size_t>(i) * all.size() / kSamples;
        if (!all[at].empty()) chosen.push_back(all[at]);
    }
    return medianPicture(chosen);
}

/// Takes the camera's shift out of a picture.
cv::Mat steadied(const cv::Mat& picture, cv::Point2d shift) {
    if (std::hypot(shift.x, shift.y) < 0.1) return picture;
    const cv::Mat move = (cv::Mat_<double>(2, 3) << 1, 0, -shift.x, 0, 1, -shift.y);
    cv::Mat out;
    cv::warpAffine(picture, out, move, picture.size(), cv::INTER_LINEAR, cv::BORDER_REPLICATE);
    return out;
}

/// The background's shift against the first picture: the median of many corners followed. The athlete covers
/// the smaller part of the picture.
std::vector<cv::Point2d> shiftsOf(const std::vector<cv::Mat>& all) {
    std::vector<cv::Point2d> shifts(all.size());
    cv::Mat first;
    std::vector<cv::Point2f> corners, found;
    std::vector<std::uint8_t> ok;
    std::vector<float> error;
    for (std::size_t i = 0; i < all.size(); ++i) {
        if (i > 0) shifts[i] = shifts[i - 1];
        if (all[i].empty()) continue;
        if (first.empty()) {
            first = all[i];
            cv::goodFeaturesToTrack(first, corners, 160, 0.01, 5);
            continue;
        }
        if (corners.size() < 12) continue;
        found.clear();
        for (const cv::Point2f c : corners) found.push_back(c + cv::Point2f(shifts[i]));
        cv::calcOpticalFlowPyrLK(first, all[i], corners, found, ok, error, {11, 11}, 2,
                                 {cv::TermCriteria::COUNT | cv::TermCriteria::EPS, 20, 0.01},
                                 cv::OPTFLOW_USE_INITIAL_FLOW);
        std::vector<double> dx, dy;
        for (std::size_t k = 0; k < corners.size(); ++k)
            if (ok[k]) dx.push_back(found[k].x - corners[k].x), dy.push_back(found[k].y - corners[k].y);
        if (dx.size() >= 8) shifts[i] = {medianOf(dx), medianOf(dy)};
    }
    return shifts;
}

/// The largest piece of what differs from the background, with pieces near it joined.
cv::Mat bodyMask(const cv::Mat& picture, const cv::Mat& background) {
    cv::Mat mask;
    cv::absdiff(picture, background, mask);
    mask = mask > kForeground;
    static const cv::Mat small = cv::getStructuringElement(cv::MORPH_ELLIPSE, {3, 3});
    static const cv::Mat wide = cv::getStructuringElement(cv::MORPH_ELLIPSE, {7, 7});
    cv::Mat joined;
    cv::morphologyEx(mask, mask, cv::MORPH_OPEN, small);
    cv::dilate(mask, joined, wide);
    cv::Mat labels, stats, centres;
    const int pieces = cv::connectedComponentsWithStats(joined, labels, stats, centres);
    int best = 0;
    for (int i = 1; i < pieces; ++i)
        if (best == 0 || stats.at<int>(i, cv::CC_STAT_AREA) > stats.at<int>(best, cv::CC_STAT_AREA)) best = i;
    if (best == 0) return {};
    return mask & (labels == best);
}

void placeBody(FrameFacts& f, const cv::Mat& mask) {
    const cv::Rect box = cv::boundingRect(mask);
    const double w = mask.cols, h = mask.rows;
    f.athlete = box.height > h * 0.08 && cv::countNonZero(mask) > w * h * 0.002;
    f.left = box.x / w, f.right = (box.x + box.width) / w;
    f.top = box.y / h, f.bottom = (box.y + box.height) / h;
    const int feet = std::max(1, static_cast<int>(box.height * kGround));
    const cv::Rect low = cv::boundingRect(mask(cv::Rect(0, box.y + box.height - feet, mask.cols, feet)));
    f.feetLeft = low.x / w, f.feetRight = (low.x + low.width) / w;
}

/// Distance from the mean of both neighbours, relative to how much those differ, where they differ.
double blendOf(const cv::Mat& before, const cv::Mat& now, const cv::Mat& after) {
    double apart = 0, off = 0;
    for (int y = 0; y < now.rows; ++y)
        for (int x = 0; x < now.cols; ++x) {
            const int a = before.at<std::uint8_t>(y, x), b = after.at<std::uint8_t>(y, x);
            if (std::abs(a - b) < 24) continue;
            apart += std::abs(a - b);
            off += std::abs(2.0 * now.at<std::uint8_t>(y, x) - a - b) / 2;
        }
    return apart < 600 ? 1 : off / apart;
}

void compareFrames(FilmSurvey& survey, const std::vector<cv::Mat>& all,
                   const std::vector<cv::Point2d>& shifts) {
    const cv::Mat background = backgroundOf(all);
    cv::Mat last, lastAveraged, lastAway, awayBefore;
    for (std::size_t i = 0; i < all.size(); ++i) {
        FrameFacts& f = survey.frames[i];
        if (all[i].empty()) {
            lastAveraged.release();
            continue;
        }
        const cv::Mat averagedNow = averaged(all[i]);
        if (!lastAveraged.empty()) f.largestChange = largestCellChange(averagedNow, lastAveraged);
        lastAveraged = averagedNow;
        f.brightness = cv::mean(all[i])[0] / 255;
        const cv::Mat steady = steadied(all[i], shifts[i]);
        const cv::Mat mask = bodyMask(steady, background);
        if (!mask.empty()) placeBody(f, mask);
        if (!last.empty()) {
            cv::Mat difference;
            cv::absdiff(steady, last, difference);
            const cv::Mat changed = difference > kChanged;
            f.motion = cv::countNonZero(changed) / static_cast<double>(changed.total());
        }
        if (i > 0 && i + 1 < all.size() && !all[i - 1].empty() && !all[i + 1].empty())
            f.blend = blendOf(all[i - 1], all[i], all[i + 1]);
        f.shiftX = shifts[i].x / all[i].cols;
        f.shiftY = shifts[i].y / all[i].rows;
        const cv::Mat away = awayFrom(background, steady);
        if (!awayBefore.empty())
            if (const auto fast = fastPart(awayBefore, lastAway, away)) {
                survey.frames[i - 1].fastArea = fast->area;
                survey.frames[i - 1].fastClear = fast->clear;
            }
        awayBefore = lastAway;
        lastAway = away;
        last = steady;
    }
}

} // namespace

Result<FilmSurvey> surveyFilm(Reader& reader, std::int64_t most, std::stop_token stop,
                              const std::function<void(double)>& progress) {
    cv::setNumThreads(1); // the same result on every machine
    const FilmInfo& info = reader.info();
    const auto frames = static_cast<std::size_t>(std::min(info.frames(), most));
    FilmSurvey survey;
    survey.frames.resize(frames);
    std::vector<cv::Mat> all(frames);
    std::size_t readable = 0;
    for (std::size_t n = 0; n < frames; ++n) {
        if (progress) progress(static_cast<double>(n) / static_cast<double>(frames));
        reader.setTravel(FrameNumber{static_cast<std::int64_t>(n)}, 1);
        auto frame = reader.frame(FrameNumber{static_cast<std::int64_t>(n)}, whenStopped(stop));
        if (!frame && frame.error().code == ErrorCode::Cancelled) return frame.error();
        survey.frames[n].readable = static_cast<bool>(frame);
        if (!frame) continue;
        survey.frames[n].damaged = isDamaged(**frame);
        auto grey = toGrey(**frame, info, kWidth);
        if (!grey) return grey.error();
        all[n] = turned(*grey, info);
        if (readable++ == 0)
            if (auto large = toGrey(**frame, info, 960)) survey.lines = placeLines(turned(*large, info));
    }
    if (readable == 0) return fail(ErrorCode::Damaged, msg("survey.nothing-decodes"));
    compareFrames(survey, all, shiftsOf(all));
    return survey;
}

} // namespace jg
