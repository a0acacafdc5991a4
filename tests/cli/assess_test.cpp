// SPDX-License-Identifier: GPL-3.0-or-later
// assess: points of other programs, answered by the code behind the window.
#include "tests/support/fixtures.h"

#include "demo/films/film_maker.h"
#include "demo/films/truth.h"

#include <nlohmann/json.hpp>

#include <cmath>
#include <fstream>
#include <map>

namespace jg {
namespace {

using nlohmann::json;
using test::TempFolder;

struct Answer {
    int code = -1;
    std::string out, err;
    json rows;

    const json& row(const std::string& id) const {
        static const json none;
        for (const json& r : rows)
            if (r["id"] == id) return r;
        return none;
    }
};

Answer assess(const std::string& text, bool onStandardInput = false) {
    const TempFolder folder;
    const auto file = folder / "points.json", err = folder / "err";
    std::ofstream(file) << text;
    const std::string program = "'" + (test::binFolder() / "juxtagraph-cli").string() + "' assess ";
    Answer a;
    a.out =
        test::shell(onStandardInput ? program + "- --json < '" + file.string() + "' 2>'" + err.string() + "'"
                                    : program + "'" + file.string() + "' --json 2>'" + err.string() + "'",
                    &a.code);
    a.err = *readFile(err);
    if (a.code == 0) a.rows = json::parse(a.out);
    return a;
}

/// Hip, knee and ankle of a back leg bent to 110 degrees in the picture, seen from the open side.
json bentLeg() {
    json d = {{"format", "juxtagraph-points-1"},
              {"hand", "R"},
              {"view", "open"},
              {"captureFps", 120},
              {"width", 1280},
              {"height", 720},
              {"turn", "square"},
              {"positions", {{"load", 40}, {"release", {95, 96}}}}};
    const double bend = 110 * M_PI / 180;
    const auto point = [&](const char* landmark, double x, double y) {
        d["points"].push_back({{"frame", 40}, {"landmark", landmark}, {"x", x}, {"y", y}});
    };
    point("back-knee", 400, 500);
    point("back-hip", 400, 400);
    point("back-ankle", 400 + 100 * std::sin(bend), 500 - 100 * std::cos(bend));
    return d;
}

TEST(Assess, ASquareCameraGivesThePicturesOwnAngle) {
    const Answer a = assess(bentLeg().dump());
    ASSERT_EQ(a.code, 0) << a.err;
    const json& knee = a.row("back-knee");
    EXPECT_EQ(knee["state"], "measured");
    EXPECT_NEAR(knee["value"].get<double>(), 110, 1e-6);
    // Two rays of 100 px, ends and vertex clicked to 2 px: by hand sqrt(2 (2/100)^2 + |vertex's part|^2).
    EXPECT_GT(knee["sd"].get<double>(), 1.6);
    EXPECT_LT(knee["sd"].get<double>(), 3.5);
    EXPECT_NEAR(knee["high95"].get<double>() - knee["low95"].get<double>(),
                2 * 1.96 * knee["sd"].get<double>(), 0.2);
    EXPECT_EQ(a.row("leg-spread")["state"], "notLookedAt");
    EXPECT_TRUE(a.row("leg-spread")["value"].is_null());
    EXPECT_GE(a.rows.size(), 100U); // all measures answer, each with a state
}

TEST(Assess, StandardInputIsReadAlike) {
    EXPECT_EQ(assess(bentLeg().dump(), true).rows, assess(bentLeg().dump()).rows);
}

TEST(Assess, TheSingleMeasureAgrees) {
    const Answer a = assess(bentLeg().dump());
    const json d = bentLeg();
    std::string points;
    for (const json& p : d["points"]) {
        const std::string name = p["landmark"];
        points += name.substr(5) + "=" + p["x"].dump() + "," + p["y"].dump() + ";";
    }
    points.pop_back();
    const json one = json::parse(test::shell("'" + (test::binFolder() / "juxtagraph-cli").string() +
                                             "' measure back-knee --points '" + points +
                                             "' --view open --yaw 0 --yaw-sd 2 --json 2>/dev/null"));
    EXPECT_NEAR(one["value"].get<double>(), a.row("back-knee")["value"].get<double>(), 1e-9);
    EXPECT_NEAR(one["sd"].get<double>(), a.row("back-knee")["sd"].get<double>(), 1e-9);
}

TEST(Assess, ATurnNotSaidWidensWhatATurnChanges) {
    json d = bentLeg();
    d["positions"]["set"] = 10;
    d["points"].push_back({{"frame", 10}, {"landmark", "crown"}, {"x", 500}, {"y", 150}});
    d["points"].push_back({{"frame", 10}, {"landmark", "ground"}, {"x", 500}, {"y", 620}});
    d["heightM"] = 1.75;
    const double square = assess(d.dump()).row("back-knee")["sd"];
    d["turn"] = nullptr;
    const Answer unsaid = assess(d.dump());
    ASSERT_EQ(unsaid.code, 0) << unsaid.err;
    EXPECT_GT(unsaid.row("back-knee")["sd"].get<double>(), square);
    d["turn"] = {{"deg", 20}, {"sd", 1}};
    const Answer turned = assess(d.dump());
    EXPECT_NE(turned.row("back-knee")["value"], unsaid.row("back-knee")["value"]);
}

TEST(Assess, AnotherViewOfThePitchAnswersWhatTheFirstCannot) {
    json d = bentLeg();
    ASSERT_EQ(assess(d.dump()).row("knee-in")["state"], "notVisible");
    json front = {{"view", "front"}, {"captureFps", 60}, {"width", 1280},
                  {"height", 720},   {"turn", "square"}, {"positions", {{"plant", 30}}}};
    for (const auto& [landmark, x, y] :
         {std::tuple{"lead-knee", 610, 480}, {"lead-ankle", 640, 580}, {"lead-hip", 640, 380}})
        front["points"].push_back({{"frame", 30}, {"landmark", landmark}, {"x", x}, {"y", y}});
    d["more"] = {front};
    const Answer a = assess(d.dump());
    ASSERT_EQ(a.code, 0) << a.err;
    EXPECT_EQ(a.row("knee-in")["state"], "measured") << a.row("knee-in").dump();
}

TEST(Assess, AHiddenPointIsSaidWithItsReason) {
    json d = bentLeg();
    d["points"].erase(2);
    d["hidden"] = {{{"frame", 40}, {"landmark", "back-ankle"}, {"reason", "behind the mound"}}};
    const json knee = assess(d.dump()).row("back-knee");
    EXPECT_EQ(knee["state"], "notVisible");
    EXPECT_NE(knee["warnings"].dump().find("behind the mound"), std::string::npos) << knee.dump();
}

TEST(Assess, WhatIsWrongIsSaidAndNothingComesOut) {
    const auto refused = [](const json& d, const std::string& words) {
        const Answer a = assess(d.dump());
        EXPECT_EQ(a.code, 1) << words;
        EXPECT_TRUE(a.out.empty());
        EXPECT_NE(a.err.find(words), std::string::npos) << a.err;
    };
    json d = bentLeg();
    d["points"][0]["landmark"] = "third-knee";
    refused(d, "is no landmark");
    d = bentLeg(), d["points"][0]["sigma"] = 0;
    refused(d, "sigma");
    d = bentLeg(), d["points"].push_back(d["points"][0]);
    refused(d, "twice");
    d = bentLeg(), d["format"] = "points";
    refused(d, "format");
    d = bentLeg(), d["width"] = -1;
    refused(d, "width and height");
    d = bentLeg(), d["positions"]["load"] = -4;
    refused(d, "not valid");
    d = bentLeg(), d["turn"] = {{"deg", 200}, {"sd", 1}};
    refused(d, "not valid");
    d = bentLeg(), d.erase("hand");
    refused(d, "hand");
    const Answer text = assess("not json");
    EXPECT_EQ(text.code, 1);
    EXPECT_TRUE(text.out.empty());
}

} // namespace
} // namespace jg
