// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/record/points_document.h"

#include "review/record/delivery_json.h"
#include "review/record/json_fields.h"

#include <cmath>

namespace jg {

using nlohmann::json;

namespace {

constexpr double kLargestFps = 100000;
constexpr int kLargestSide = 16384;

double finite(const json& row, const char* field) {
    const double value = row.at(field).get<double>();
    if (!std::isfinite(value)) throw Unfit(msg("document.not-valid", {{"what", field}}));
    return value;
}

ImagePoint at(const json& row, const char* x, const char* y) {
    return {finite(row, x), finite(row, y)};
}

std::int64_t frameIn(const json& value, const char* field) {
    const auto frame = value.get<std::int64_t>();
    if (!value.is_number_integer() || frame < 0) throw Unfit(msg("document.not-valid", {{"what", field}}));
    return frame;
}

std::optional<CameraTurn> turnIn(const json& d) {
    const json turn = d.value("turn", json());
    if (turn.is_null()) return std::nullopt;
    if (turn.is_string()) {
        if (turn.get<std::string>() != "square") throw Unfit(msg("document.not-valid", {{"what", "turn"}}));
        return kSquareTurn;
    }
    const CameraTurn said{finite(turn, "deg"), finite(turn, "sd")};
    if (said.sdDeg < 0 || std::abs(said.deg) >= 90)
        throw Unfit(msg("document.not-valid", {{"what", "turn"}}));
    return said;
}

Clip clipIn(const json& d, std::size_t number) {
    Clip clip;
    clip.id.value = "view-" + std::to_string(number);
    clip.view = need(viewFromId(d.at("view").get<std::string>()), "view");
    clip.captureFps = finite(d, "captureFps");
    clip.width = d.at("width").get<int>();
    clip.height = d.at("height").get<int>();
    clip.frames = std::numeric_limits<std::int32_t>::max();
    if (clip.captureFps < 0 || clip.captureFps > kLargestFps)
        throw Unfit(msg("document.not-valid", {{"what", "captureFps"}}));
    if (clip.width <= 0 || clip.height <= 0 || clip.width > kLargestSide || clip.height > kLargestSide)
        throw Unfit(msg("points.size"));
    return clip;
}

void readPositions(const json& d, DeliveryMarks& marks) {
    for (const auto& [id, value] : d.at("positions").items()) {
        const auto moment = momentFromId(id);
        if (!moment) throw Unfit(msg("playbook.position-unknown", {{"id", id}}));
        marks.moments[*moment] = {frameIn(value.is_array() ? value.at(0) : value, "positions"), ""};
    }
}

Landmark landmarkIn(const json& row) {
    const auto id = row.at("landmark").get<std::string>();
    if (const auto landmark = landmarkFromId(id)) return *landmark;
    throw Unfit(msg("points.landmark", {{"id", id}}));
}

void readPoints(const json& d, DeliveryMarks& marks) {
    for (const json& row : d.value("points", json::array())) {
        const PointKey key{frameIn(row.at("frame"), "frame"), landmarkIn(row)};
        const double sigma = row.contains("sigma") ? finite(row, "sigma") : kDefaultClickSigmaPx;
        if (sigma <= 0) throw Unfit(msg("points.sigma"));
        if (!marks.points.emplace(key, PointMark{{at(row, "x", "y"), sigma}, ""}).second)
            throw Unfit(msg("points.twice", {{"landmark", info(key.landmark).name()}, {"frame", key.frame}}));
    }
    for (const json& row : d.value("hidden", json::array())) {
        const PointKey key{frameIn(row.at("frame"), "frame"), landmarkIn(row)};
        marks.points[key] = {{{}, kDefaultClickSigmaPx}, row.at("reason").get<std::string>()};
    }
}

void readLines(const json& d, DeliveryMarks& marks) {
    for (const json& row : d.value("lines", json::array())) {
        FreeMark line;
        line.id = "line-" + std::to_string(marks.marks.size() + 1);
        const auto kind = row.at("kind").get<std::string>();
        if (kind != "plumb" && kind != "level") throw Unfit(msg("document.not-valid", {{"what", "kind"}}));
        line.kind = kind == "plumb" ? MarkKind::Plumb : MarkKind::Level;
        line.frame = frameIn(row.at("frame"), "frame");
        line.points = {at(row, "x1", "y1"), at(row, "x2", "y2")};
        marks.marks[line.id] = std::move(line);
    }
}

void readScales(const json& d, DeliveryMarks& marks) {
    for (const json& row : d.value("scales", json::array())) {
        const ScaleKind kind = need(scaleFromId(row.at("kind").get<std::string>()), "scale");
        const double metres = row.contains("metres") ? finite(row, "metres") : info(kind).metres;
        if (metres <= 0) throw Unfit(msg("points.metres"));
        marks.scales[kind] = {frameIn(row.at("frame"), "frame"), at(row, "x1", "y1"), at(row, "x2", "y2"),
                              metres};
    }
    // The height has no ends of its own: it stands between crown and ground at Set.
    if (const json height = d.value("heightM", json()); !height.is_null()) {
        const double metres = height.get<double>();
        if (!(metres > 0)) throw Unfit(msg("points.metres"));
        marks.scales[ScaleKind::Height] = {marks.frameOf(Moment::Set).value_or(0), {}, {}, metres};
    }
}

void addView(const json& d, PointsDocument& document) {
    DeliveryMarks marks;
    marks.number = static_cast<int>(document.clips.size()) + 1;
    document.clips.push_back(clipIn(d, document.clips.size() + 1));
    marks.clip = document.clips.back().id;
    marks.turn = turnIn(d);
    readPositions(d, marks);
    readPoints(d, marks);
    readLines(d, marks);
    readScales(d, marks);
    document.review.deliveries.push_back(std::move(marks));
}

} // namespace

Result<PointsDocument> readPointsDocument(std::string_view text) {
    return guarded<PointsDocument>(text, "points", [](const json& d) {
        if (d.value("format", "") != kPointsFormat) throw Unfit(msg("document.format"));
        PointsDocument document;
        document.hand = need(handFromId(d.at("hand").get<std::string>()), "hand");
        document.review.deliveries.clear();
        addView(d, document);
        for (json more : d.value("more", json::array())) addView(more, document);
        return document;
    });
}

} // namespace jg
