// SPDX-License-Identifier: GPL-3.0-or-later
#include "apps/cli/command.h"

#include "base/file_store.h"
#include "base/number.h"
#include "coaching/approach_json.h"
#include "desk/keeping/places.h"
#include "kinematics/answers.h"
#include "kinematics/measure.h"
#include "kinematics/roll.h"
#include "review/assess/assess.h"
#include "review/record/deliveries.h"
#include "review/record/points_document.h"
#include "review/record/tried.h"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <cmath>
#include <cstdlib>
#include <iostream>
#include <sstream>

namespace jg::cli {

using nlohmann::json;

namespace {

json measureAsJson(const MeasureDefinition& m) {
    json positions = json::array(), views = json::array(), landmarks = json::array();
    for (const Moment p : m.moments) positions.push_back(info(p).id);
    for (const View v : m.views) views.push_back(idOf(v));
    for (const Slot& s : m.slots) landmarks.push_back(s.name);
    return {{"id", m.id},
            {"name", m.name},
            {"unit", m.unit},
            {"group", m.group},
            {"positions", positions},
            {"views", views},
            {"landmarks", landmarks},
            {"formula", m.formula},
            {"needsScale", m.needsHeight()},
            {"unreliable", m.unreliable},
            {"options", m.options},
            {"numbers", m.numbers},
            {"source", m.source}};
}

void measures(const Arguments& a, std::stop_token) {
    json all = json::array();
    for (const MeasureDefinition& m : playbook().measures) all.push_back(measureAsJson(m));
    if (a.has("json"))
        std::cout << all.dump(2) << "\n";
    else
        for (const auto& m : all)
            std::cout << m["id"].get<std::string>() << "\t" << m["name"].get<std::string>() << "\n";
}

double numberIn(const std::string& text, const std::string& where) {
    const auto v = parseNumber(text);
    if (!v) throw WrongUse(msg("measure-commands.where-wants-numbers-as-in-knee", {{"where", where}}));
    return *v;
}

/// A slot by its name, or by its landmark's id; with @frame the slots of that landmark in order.
const Slot* slotFor(const MeasureDefinition& m, const std::string& name,
                    const std::map<std::string, ClickedPoint>& taken) {
    for (const Slot& s : m.slots)
        if (s.name == name && !taken.contains(s.name)) return &s;
    for (const Slot& s : m.slots)
        if (info(s.landmark).id == name && !taken.contains(s.name)) return &s;
    return nullptr;
}

void readPoints(const std::string& text, double sigma, const MeasureDefinition& m, MeasureInput& in) {
    std::map<std::string, ClickedPoint> extra; // crown and ground
    for (const std::string& part : split(text, ';')) {
        const auto equals = part.find('=');
        const auto comma = part.find(',', equals == std::string::npos ? 0 : equals);
        if (equals == std::string::npos || comma == std::string::npos)
            throw WrongUse(msg("measure-commands.part-is-not-a-point-write", {{"part", part}}));
        std::string name = part.substr(0, equals);
        name = name.substr(0, name.find('@'));
        const ClickedPoint point{{numberIn(part.substr(equals + 1, comma - equals - 1), part),
                                  numberIn(part.substr(comma + 1), part)},
                                 sigma};
        if (m.needsHeight() && (name == "crown" || name == "ground")) {
            extra[name] = point;
            continue;
        }
        const Slot* slot = slotFor(m, name, in.points);
        if (!slot)
            throw Refusal(msg("measure-commands.the-measure-m-has-no-point", {{"m", m.id}, {"name", name}}));
        in.points[slot->name] = point;
    }
    if (extra.size() == 2) {
        const ImagePoint c = extra["crown"].at, g = extra["ground"].at;
        in.heightPx = {std::hypot(c.x - g.x, c.y - g.y), std::sqrt(2.0) * sigma};
    }
}

/// Frames by position id, or in order: 'a=12,b=18'.
void readFrames(const std::string& text, const MeasureDefinition& m, MeasureInput& in) {
    std::size_t next = 0;
    for (const std::string& part : split(text, ',')) {
        const auto equals = part.find('=');
        if (equals == std::string::npos)
            throw WrongUse(msg("measure-commands.part-is-not-a-frame-write", {{"part", part}}));
        const double frame = numberIn(part.substr(equals + 1), part);
        const auto moment = momentFromId(part.substr(0, equals));
        if (moment)
            in.frames[*moment] = std::llround(frame);
        else if (next < m.moments.size())
            in.frames[m.moments[next]] = std::llround(frame);
        ++next;
    }
}

void readConditions(const Arguments& a, MeasureInput& in, double sigma) {
    if (const auto hand = a.value("hand")) {
        const auto found = handFromId(*hand);
        if (!found) throw WrongUse(msg("measure-commands.hand-is-r-or-l"));
        in.hand = *found;
    }
    if (const auto view = a.value("view")) {
        const auto found = viewFromId(*view);
        if (!found) throw WrongUse(msg("measure-commands.views"));
        in.view = *found;
    }
    if (const auto level = a.value("level")) {
        const auto parts = split(*level, ',');
        if (parts.size() != 2) throw WrongUse(msg("measure-commands.level-wants"));
        in.rollDeg =
            rollFromLine({{0, 0}, sigma}, {{numberIn(parts[0], *level), numberIn(parts[1], *level)}, sigma});
    }
    in.pxPerM = {a.number("scale-px-per-m").value_or(0), a.number("scale-sd").value_or(0)};
    if (const auto height = a.number("height-px")) in.heightPx = {*height, a.number("height-sd").value_or(0)};
    in.yawDeg = {a.number("yaw").value_or(0), a.number("yaw-sd").value_or(0)};
    in.captureFps = a.number("rate").value_or(0);
    if (std::abs(in.yawDeg.value) >= 80) throw Refusal(msg("measure-commands.a-camera-turned-by-80-degrees"));
}

/// Numbers the coach types in: 'turns=3,speed=85'.
void readNumbers(const std::string& text, const MeasureDefinition& m, MeasureInput& in) {
    for (const std::string& part : split(text, ',')) {
        const auto equals = part.find('=');
        if (equals == std::string::npos)
            throw WrongUse(msg("measure-commands.part-is-not-a-number-write", {{"part", part}}));
        const std::string name = part.substr(0, equals);
        if (std::find(m.numbers.begin(), m.numbers.end(), name) == m.numbers.end())
            throw Refusal(msg("measure-commands.the-measure-m-has-no-number", {{"m", m.id}, {"name", name}}));
        in.numbers[name] = numberIn(part.substr(equals + 1), part);
    }
}

json numberOrNull(std::optional<double> v) {
    return v ? json(*v) : json(nullptr);
}

/// A measure's value as the command line gives it.
json valueAsJson(const MeasureValue& v) {
    json warnings = v.warnings;
    if (!v.reason.empty()) warnings.push_back(v.reason);
    const auto known = [&](double number) {
        return numberOrNull(v.value ? std::optional(number) : std::nullopt);
    };
    return {{"id", v.id},        {"value", numberOrNull(v.value)}, {"unit", v.unit},
            {"sd", known(v.sd)}, {"low95", known(v.low95)},        {"high95", known(v.high95)},
            {"words", v.words},  {"state", idOf(v.state)},         {"warnings", warnings}};
}

void measure(const Arguments& a, std::stop_token) {
    const Playbook book = playbook();
    const MeasureDefinition* m = book.measure(a.words[0]);
    if (!m) throw Refusal(msg("measure-commands.there-is-no-measure-a-see", {{"a", a.words[0]}}));
    const double sigma = a.number("sigma").value_or(kDefaultClickSigmaPx);
    if (sigma < 0) throw WrongUse(msg("measure-commands.sigma-cant-be-negative"));
    MeasureInput in;
    if (!m->seenFrom(in.view)) in.view = m->views.front();
    readConditions(a, in, sigma);
    if (const auto points = a.value("points")) readPoints(*points, sigma, *m, in);
    if (const auto frames = a.value("frames")) readFrames(*frames, *m, in);
    if (const auto numbers = a.value("numbers")) readNumbers(*numbers, *m, in);
    in.seen = a.value("seen").value_or("");
    const MeasureValue v = evaluate(*m, in);
    if (v.state == MeasureState::NotLookedAt)
        throw Refusal(msg("cli.not-computed", {{"measure", m->name}, {"why", v.reason}}));
    if (a.has("json"))
        std::cout << valueAsJson(v).dump(2) << "\n";
    else if (v.value)
        std::cout << msg("cli.measured", {{"measure", m->name},
                                          {"value", trimmed(*v.value)},
                                          {"unit", v.unit},
                                          {"low", trimmed(v.low95)},
                                          {"high", trimmed(v.high95)}})
                  << "\n";
    else
        std::cout << msg("cli.not-measured",
                         {{"measure", m->name}, {"why", v.reason.empty() ? v.words : v.reason}})
                  << "\n";
}

void approaches(const Arguments&, std::stop_token) {
    json all = json::array();
    for (const Approach& p : playbook().approaches) {
        all.push_back(approachAsJson(p));
    }
    std::cout << all.dump(2) << "\n";
}

/// With a word where approach or target are meant for other ages.
void sayJudgement(const Arguments& a, const Approach& approach, const Target& target, Judgement j) {
    const auto age = a.number("age");
    const auto outside = [&](int from, int to) { return age && (*age < from || *age > to); };
    if (outside(approach.ageFrom, approach.ageTo))
        j.text = msg("cli.ages", {{"text", j.text}, {"from", approach.ageFrom}, {"to", approach.ageTo}});
    else if (outside(target.ageFrom, target.ageTo))
        j.text = msg("cli.target-ages", {{"text", j.text}, {"from", target.ageFrom}, {"to", target.ageTo}});
    std::cout << json{{"verdict", j.verdict ? json(idOf(*j.verdict)) : json(nullptr)},
                      {"state", idOf(j.state)},
                      {"side", j.verdict && j.gap != 0 && target.type != TargetType::Options
                                   ? json(j.gap < 0 ? kBelow : kAbove)
                                   : json(nullptr)},
                      {"gap", j.gap},
                      {"gapInSds", j.gapInSds},
                      {"text", j.text}}
                     .dump(2)
              << "\n";
}

Judgement judgedBySight(const Arguments& a, const MeasureDefinition& m, const Target& target) {
    const std::string seen = a.need("seen");
    if (!isAmong(m.options, seen))
        throw Refusal(msg("cli.no-such-answer", {{"measure", m.name}, {"options", eitherOf(m.options)}}));
    return judgeSeen(target, seen, m.protectsArm);
}

void judgeOne(const Arguments& a, std::stop_token) {
    const Playbook book = playbook();
    const Approach* approach = book.approach(a.need("approach"));
    if (!approach) throw Refusal(msg("cli.no-approach", {{"approach", a.need("approach")}}));
    const std::string id = a.need("measure");
    const MeasureDefinition* m = book.measure(id);
    if (!m) throw Refusal(msg("measure-commands.there-is-no-measure-id-see", {{"id", id}}));
    const Target* target = approach->targetOf(id);
    if (!target)
        throw Refusal(msg("measure-commands.the-approach-approach-sets-no-target",
                          {{"approach", approach->name}, {"m", m->name}}));
    if (m->kind == MeasureKind::Seen)
        return sayJudgement(a, *approach, *target, judgedBySight(a, *m, *target));
    const auto value = a.number("value"), sd = a.number("sd");
    if (!value || !sd) throw WrongUse(msg("measure-commands.value-and-sd-are-needed"));
    if (*sd < 0) throw WrongUse(msg("measure-commands.sd-cant-be-negative"));
    const std::string unit = a.value("unit").value_or(target->unit);
    const auto comparable = targetIn(*target, unit);
    if (!comparable) throw Refusal(msg("cli.other-unit", {{"unit", unit}, {"wanted", target->unit}}));
    sayJudgement(
        a, *approach, *target,
        judge(*comparable, {*value, *value - kSdsOf95 * *sd, *value + kSdsOf95 * *sd}, m->protectsArm));
}

/// A file's text, or what comes on standard input for "-".
std::string bytesOf(const std::string& file) {
    if (file != "-") return orRefuse(readFile(file));
    return {std::istreambuf_iterator<char>(std::cin), std::istreambuf_iterator<char>()};
}

/// All measures of given points, by the very code behind the window.
void assessPoints(const Arguments& a, std::stop_token) {
    const Playbook book = playbook();
    PointsDocument document = orRefuse(readPointsDocument(bytesOf(a.word(0, "FILE"))));
    for (const MeasureDefinition& m : book.measures) document.review.extras.push_back(m.id);
    const Assessment told = assess(document.review, book, document.clips, document.hand);
    json all = json::array();
    for (const MeasureRow& row : told.measures) {
        all.push_back(valueAsJson(row.value));
        const DeliveryMarks& marks = document.review.deliveryOr(row.delivery);
        const Trial* trial = row.value.value
                                 ? trialOf(book, row.id, marks, filmOf(marks, document.clips).captureFps)
                                 : nullptr;
        all.back()["trial"] = trial ? json{{"tried", trial->tried},
                                           {"held", trial->heldPercent},
                                           {"lean", {trial->leastLean, trial->mostLean}}}
                                    : json(nullptr);
    }
    if (a.has("json")) {
        std::cout << all.dump(2) << "\n";
        return;
    }
    for (const MeasureRow& row : told.measures)
        if (row.value.value)
            std::cout << row.id << "\t" << number(*row.value.value, 1) << "\t"
                      << number(row.value.half95(), 1) << "\t" << row.value.unit << "\n";
}

} // namespace

std::vector<Command> measureCommands() {
    return {{"measures", "measures [--json]", {}, {"json"}, 0, 0, measures},
            {"measure",
             "measure ID --points 'hip=310,402;knee=352,498;ankle=330,610' [--sigma 2.0] [--hand R|L] "
             "[--view open|closed|front|rear] [--level DX,DY]\n"
             "        [--scale-px-per-m V --scale-sd V] [--height-px V --height-sd V] [--frames "
             "'plant=48,release=57' --rate 60] [--yaw DEG --yaw-sd DEG]\n"
             "        [--numbers 'turns=3'] [--seen 'whole foot'] [--json]",
             {"points", "sigma", "hand", "view", "level", "scale-px-per-m", "scale-sd", "height-px",
              "height-sd", "frames", "rate", "yaw", "yaw-sd", "numbers", "seen"},
             {"json"},
             1,
             1,
             measure},
            {"assess", "assess FILE|- [--json]", {}, {"json"}, 1, 1, assessPoints},
            {"approaches", "approaches [--json]", {}, {"json"}, 0, 0, approaches},
            {"judge",
             "judge --approach ID --measure ID (--value V --sd S [--unit in|cm] | --seen ANSWER) [--age N] "
             "[--json]",
             {"approach", "measure", "value", "sd", "unit", "seen", "age"},
             {"json"},
             0,
             0,
             judgeOne}};
}

} // namespace jg::cli
