// SPDX-License-Identifier: GPL-3.0-or-later
#include "coaching/trials.h"

#include "base/document.h"
#include "base/unfit.h"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <array>
#include <cmath>

namespace jg {

using nlohmann::json;

namespace {

struct NamedCamera {
    const char* id;
    TrialCamera camera;
};
constexpr std::array<NamedCamera, 4> kCameras = {{{"square-slow", {false, false}},
                                                  {"square-fast", {false, true}},
                                                  {"turned-slow", {true, false}},
                                                  {"turned-fast", {true, true}}}};

Trial trialFrom(const json& row) {
    Trial t{row.at(0), row.at(1), row.at(2), row.at(3), row.at(4), row.size() > 5 ? row[5].get<double>() : 0};
    if (t.tried <= 0 || t.heldPercent < 0 || t.heldPercent > 100 || t.leastLean > t.mostLean)
        throw Unfit(msg("unfit.not-understood"));
    return t;
}

/// To so many parts of one.
double rounded(double value, double parts) {
    return std::round(value * parts) / parts;
}

} // namespace

double leastShown(const std::string& unit) {
    return unit == "x" ? 0.05 : 0.5; // ratios have one decimal, all others are whole
}

bool Trial::leans() const {
    return std::max(-leastLean, mostLean) >= leastShown(unit);
}

Result<Trials> Trials::parse(std::string_view text) {
    Trials trials;
    Message at = msg("playbook.the-file");
    try {
        const json document = parseDocument(text);
        for (const auto& [id, camera] : kCameras)
            for (const auto& [measure, row] : document.at(id).items()) {
                at = asIs(std::string(id) + ", " + measure);
                trials.rows_[camera][measure] = trialFrom(row);
            }
    } catch (const std::exception& e) {
        return fail(ErrorCode::BadInput,
                    msg("playbook.trials-unreadable", {{"place", at}, {"why", whyUnfit(e)}}));
    }
    return trials;
}

std::string Trials::toJson() const {
    std::string text =
        "{\n \"about\": \"by accuracy --trials: deliveries tried, percent of 95 % intervals that "
        "held the truth, mean of value less truth (lowest and highest of makers and coaches), its unit, and "
        "how much larger it is in space; docs/accuracy.md\"";
    for (const auto& [id, camera] : kCameras) {
        text += ",\n \"" + std::string(id) + "\": {";
        const auto rows = rows_.find(camera);
        bool first = true;
        if (rows != rows_.end())
            for (const auto& [measure, t] : rows->second) {
                json row = {t.tried, rounded(t.heldPercent, 10), rounded(t.leastLean, 100),
                            rounded(t.mostLean, 100), t.unit};
                if (t.inSpace != 0) row.push_back(rounded(t.inSpace, 10));
                text += (first ? "\n  " : ",\n  ") + json(measure).dump() + ": " + row.dump();
                first = false;
            }
        text += "}";
    }
    return text + "\n}\n";
}

void Trials::set(TrialCamera camera, const std::string& measure, Trial trial) {
    rows_[camera][measure] = std::move(trial);
}

const Trial* Trials::of(TrialCamera camera, const std::string& measure) const {
    const auto rows = rows_.find(camera);
    if (rows == rows_.end()) return nullptr;
    const auto row = rows->second.find(measure);
    return row == rows->second.end() ? nullptr : &row->second;
}

} // namespace jg
