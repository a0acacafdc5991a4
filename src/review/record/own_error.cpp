// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/record/own_error.h"

#include "base/document.h"
#include "coaching/change.h"
#include "kinematics/geometry.h"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <cmath>

namespace jg {

using nlohmann::json;

namespace {

/// Sums for one landmark, at the common height.
struct Sums {
    double squares = 0; ///< of both axes, already as of one click
    ImagePoint lean;
    int clicks = 0, known = 0;

    void add(const Sums& s) {
        squares += s.squares;
        lean = lean + s.lean;
        clicks += s.clicks;
        known += s.known;
    }
    double sdPx() const { return clicks == 0 ? 0 : std::sqrt(squares / (2.0 * clicks)); }
};

Sums sumsOf(const ErrorPicture& p, std::size_t joint) {
    const double scale = kErrorHeightPx / p.heightPx;
    Sums s;
    if (p.truth) {
        for (const auto& round : p.clicks) {
            const ImagePoint off = round[joint] - (*p.truth)[joint];
            s.squares += (off.x * off.x + off.y * off.y) * scale * scale;
            s.lean = s.lean + ImagePoint{off.x * scale, off.y * scale};
            ++s.clicks, ++s.known;
        }
        return s;
    }
    // Two clicks differ by twice the variance of one.
    const ImagePoint apart = p.clicks[0][joint] - p.clicks[1][joint];
    s.squares = (apart.x * apart.x + apart.y * apart.y) / 2 * scale * scale;
    s.clicks = 1;
    return s;
}

double angleOf(const std::array<ImagePoint, 3>& joints) {
    return jointAngleDeg(joints[0], joints[1], joints[2]);
}

json pointsAsJson(const std::array<ImagePoint, 3>& points) {
    json rows = json::array();
    for (const ImagePoint p : points) rows.push_back({p.x, p.y});
    return rows;
}

std::array<ImagePoint, 3> pointsIn(const json& rows) {
    std::array<ImagePoint, 3> points;
    for (std::size_t i = 0; i < points.size(); ++i) points[i] = {rows.at(i).at(0), rows.at(i).at(1)};
    return points;
}

json pictureAsJson(const ErrorPicture& p) {
    json joints = json::array();
    for (const Landmark l : p.joints) joints.push_back(info(l).id);
    json row = {{"name", p.name},
                {"joints", joints},
                {"heightPx", p.heightPx},
                {"clicks", {pointsAsJson(p.clicks[0]), pointsAsJson(p.clicks[1])}}};
    if (p.truth) row["truth"] = pointsAsJson(*p.truth);
    return row;
}

ErrorPicture pictureIn(const json& row) {
    ErrorPicture p;
    p.name = row.at("name");
    for (std::size_t i = 0; i < p.joints.size(); ++i)
        p.joints[i] = landmarkFromId(row.at("joints").at(i).get<std::string>()).value();
    p.heightPx = row.at("heightPx");
    for (std::size_t i = 0; i < p.clicks.size(); ++i) p.clicks[i] = pointsIn(row.at("clicks").at(i));
    if (row.contains("truth")) p.truth = pointsIn(row["truth"]);
    return p;
}

} // namespace

namespace {

/// Root mean square on each axis of where joints are always clicked, without what scatter adds to a mean.
double leanOf(const std::vector<LandmarkError>& landmarks) {
    double sum = 0;
    int clicks = 0;
    for (const LandmarkError& l : landmarks) {
        const double mean = (l.lean.x * l.lean.x + l.lean.y * l.lean.y) / 2;
        const double scatter = std::max(0.0, l.sdPx * l.sdPx - mean);
        sum += l.clicks * (mean - scatter / std::max(1, l.clicks - 1));
        clicks += l.clicks;
    }
    return clicks == 0 ? 0 : std::sqrt(std::max(0.0, sum / clicks));
}

} // namespace

OwnError ownErrorOf(const ErrorRun& run) {
    std::map<Landmark, Sums> byLandmark;
    Sums all;
    RepeatTable angles;
    for (const ErrorPicture& p : run.pictures) {
        for (std::size_t i = 0; i < p.joints.size(); ++i) {
            const Sums s = sumsOf(p, i);
            byLandmark[p.joints[i]].add(s);
            all.add(s);
        }
        angles.push_back({angleOf(p.clicks[0]), angleOf(p.clicks[1])});
    }
    OwnError e;
    for (const auto& [landmark, s] : byLandmark) {
        const double n = std::max(1, s.known);
        e.landmarks.push_back({landmark, s.sdPx(), {s.lean.x / n, s.lean.y / n}, s.clicks});
    }
    e.sdPx = all.sdPx();
    e.leanPx = leanOf(e.landmarks);
    e.semDeg = standardErrorOfMeasurement(angles);
    if (e.semDeg) e.smallestChangeDeg = smallestRealChange(*e.semDeg, *e.semDeg);
    e.icc = icc(angles, IccModel::Two);
    return e;
}

std::optional<CoachAgreement> agreementOf(const ErrorRun& one, const ErrorRun& other) {
    const auto mean = [](const ErrorPicture& p) { return (angleOf(p.clicks[0]) + angleOf(p.clicks[1])) / 2; };
    RepeatTable table;
    for (const ErrorPicture& p : one.pictures) {
        const auto same =
            std::find_if(other.pictures.begin(), other.pictures.end(),
                         [&](const ErrorPicture& q) { return q.name == p.name && q.joints == p.joints; });
        if (same != other.pictures.end()) table.push_back({mean(p), mean(*same)});
    }
    const auto agreement = icc(table, IccModel::Two), sem = standardErrorOfMeasurement(table);
    if (table.size() < 3 || !agreement || !sem) return std::nullopt;
    return CoachAgreement{*agreement, *sem, static_cast<int>(table.size())};
}

double clickSigmaPx(const std::vector<ErrorRun>& runs, const std::string& coach, Landmark landmark,
                    double heightPx) {
    const auto run =
        std::find_if(runs.rbegin(), runs.rend(), [&](const ErrorRun& r) { return r.coach == coach; });
    if (run == runs.rend()) return kDefaultClickSigmaPx;
    const OwnError e = ownErrorOf(*run);
    // A few clicks on one joint tell little: they count beside those on all the others.
    constexpr double kPooled = 8; // own choice, clicks
    double sd = e.sdPx;
    for (const LandmarkError& l : e.landmarks)
        if (l.landmark == landmark)
            sd = std::sqrt((l.clicks * l.sdPx * l.sdPx + kPooled * sd * sd) / (l.clicks + kPooled));
    constexpr double kLeastPx = 0.5; // nobody clicks finer than the nudge
    return std::max(kLeastPx, sd * heightPx / kErrorHeightPx);
}

std::string toJson(const std::vector<ErrorRun>& runs) {
    json rows = json::array();
    for (const ErrorRun& r : runs) {
        json pictures = json::array();
        for (const ErrorPicture& p : r.pictures) pictures.push_back(pictureAsJson(p));
        rows.push_back({{"coach", r.coach}, {"day", isoDate(r.day)}, {"pictures", pictures}});
    }
    return rows.dump();
}

Result<std::vector<ErrorRun>> errorRunsFromJson(std::string_view text) {
    std::vector<ErrorRun> runs;
    if (text.empty()) return runs;
    try {
        for (const json document = parseDocument(text); const json& row : document) {
            ErrorRun r{row.at("coach"), parseIsoDate(row.at("day").get<std::string>()).value(), {}};
            for (const json& p : row.at("pictures")) r.pictures.push_back(pictureIn(p));
            runs.push_back(std::move(r));
        }
    } catch (const std::exception&) {
        return fail(ErrorCode::Damaged, msg("own-error.the-record-of-your-own-error"));
    }
    return runs;
}

} // namespace jg
