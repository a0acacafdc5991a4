// SPDX-License-Identifier: GPL-3.0-or-later
// tell: what a letter would say of given results, without a library and without a film.
#include "apps/cli/command.h"

#include "base/clock.h"
#include "base/document.h"
#include "base/file_store.h"
#include "base/unfit.h"
#include "desk/session/suggest.h"
#include "kinematics/answers.h"
#include "kinematics/measure.h"
#include "review/tell/letter_model.h"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <iostream>

namespace jg::cli {

using nlohmann::json;

namespace {

constexpr const char* kFormat = "juxtagraph-tell-1";

/// A review that has everything but points.
struct Case {
    Review review;
    Athlete athlete;
    Submission submission;
    std::vector<MeasureValue> numbers;
    Date today{};
};

const json& fieldOf(const json& d, const char* name) {
    if (!d.contains(name)) throw Refusal(msg("tell.missing", {{"field", name}}));
    return d[name];
}

void readNumbers(const json& d, const Playbook& book, const Approach& approach, Case& told) {
    for (const json& row : fieldOf(d, "results")) {
        const auto id = fieldOf(row, "measure").get<std::string>();
        const MeasureDefinition* m = book.measure(id);
        if (!m) throw Refusal(msg("measure-commands.there-is-no-measure-id-see", {{"id", id}}));
        const Target* target = approach.targetOf(id);
        if (!target) throw Refusal(msg("tell.not-asked", {{"measure", id}, {"approach", approach.name}}));
        if (row.contains("seen")) {
            MeasureValue v;
            v.id = id, v.unit = m->unit, v.state = MeasureState::Measured, v.seen = row["seen"];
            if (!isAmong(m->options, v.seen))
                throw Refusal(
                    msg("cli.no-such-answer", {{"measure", m->name}, {"options", eitherOf(m->options)}}));
            told.numbers.push_back(std::move(v));
            continue;
        }
        const double value = fieldOf(row, "value"), sd = fieldOf(row, "sd");
        if (sd < 0) throw Refusal(msg("measure-commands.sd-cant-be-negative"));
        told.numbers.push_back(
            withValue(*m, {value, sd}, row.value("unit", target->unit.empty() ? m->unit : target->unit)));
    }
}

void readGrades(const json& d, const Playbook& book, Case& told) {
    for (const json& row : d.value("grades", json::array())) {
        const auto id = fieldOf(row, "item").get<std::string>();
        if (!book.isFinding(std::string_view(id)))
            throw Refusal(msg("measure-commands.id-is-neither-a-measure-nor", {{"id", id}}));
        const int step = fieldOf(row, "step");
        if (step < 1 || step > 5) throw Refusal(msg("tell.step", {{"item", id}}));
        Grade grade{GradeState::Graded, step, "", {}};
        grade.side = row.value("side", "");
        const auto sides = book.sidesOf(id);
        std::vector<Message> names;
        for (const std::string& side : sides) names.push_back(asIs(id + ":" + side));
        if (step < 5 && !sides.empty() && !isAmong(sides, grade.side))
            throw Refusal(
                msg("plan-commands.which-side", {{"row", id}, {"sides", joined(ListStyle::Or, names)}}));
        told.review.judging().grades[{1, id}] = grade;
    }
}

Audience readerIn(const std::string& name, int age) {
    if (name == "child") return Audience::Young;
    if (name == "player") return Audience::Player;
    if (name == "parent" || name == "coach") return Audience::Parent;
    return age < GradedItem::kYoung ? Audience::Young : Audience::Player;
}

Case toldIn(const json& d, const Playbook& book) {
    if (d.value("format", "") != kFormat) throw Refusal(msg("tell.format", {{"format", kFormat}}));
    const Approach* approach = book.approach(fieldOf(d, "approach").get<std::string>());
    if (!approach) throw Refusal(msg("cli.no-approach", {{"approach", d["approach"].get<std::string>()}}));
    Case told;
    told.today = SystemClock().today();
    const int age = fieldOf(d, "age");
    if (age < 5 || age > 99) throw WrongUse(msg("measure-commands.age-wants-an-age-in-years"));
    Athlete& a = told.athlete;
    a.id = {"ath-1"};
    a.firstName = d.value("name", "Ludo");
    a.born = Date{told.today.year() - std::chrono::years{age}, std::chrono::January, std::chrono::day{1}};
    a.hand = d.value("hand", "R") == "L" ? Hand::Left : Hand::Right;
    if (const auto language = languageFromId(d.value("language", "en"))) a.language = *language;
    if (d.contains("comingBack") && d["comingBack"].is_string())
        a.comingBack = ComingBack{d["comingBack"], {}};
    Submission& s = told.submission;
    s.id = {"sub-1"};
    s.athlete = a.id;
    s.received = told.today;
    if (d.contains("pain") && d["pain"].is_string()) s.pain = d["pain"];
    Clip clip;
    clip.id = {"clip-1"};
    clip.athlete = a.id;
    clip.view = viewFromId(d.value("view", "open")).value_or(View::Open);
    s.clips = {clip};
    Review& r = told.review;
    r.id = {"rev-1"};
    r.submission = s.id;
    r.athlete = a.id;
    r.date = told.today;
    r.first().clip = clip.id;
    r.judging().approach = *approach;
    r.judging().age = age;
    r.plan.reader = readerIn(d.value("reader", ""), age);
    readNumbers(d, book, *approach, told);
    readGrades(d, book, told);
    return told;
}

/// The edge whose words stand as a reason; nothing when it is the row's own reason.
json whyAsJson(const LetterCorrection& c, const SidedRow& finding, const Playbook& book, const Words& words) {
    if (c.why.empty()) return nullptr;
    json why = {{"text", words(c.why)}, {"from", nullptr}, {"owner", nullptr}};
    const std::string english_ = english()(c.why);
    for (const Cause& cause : book.causes)
        if (english_.find(cause.why) != std::string::npos &&
            (meets(finding, cause.cause()) || meets(finding, cause.consequence()))) {
            why["from"] = {{"row", cause.from}, {"side", cause.fromSide}};
            why["owner"] = cause.says;
        }
    return why;
}

json weekAsJson(const LetterModel& letter, const Words& words) {
    json week = json::array();
    for (int day = 0; day < 7; ++day) {
        json lines = json::array();
        for (const LetterWeekRow& row : letter.week)
            if (row.on(day)) lines.push_back(words(row.what) + ", " + words(row.dose));
        if (!lines.empty()) week.push_back({{"day", words(weekdayShort(day))}, {"lines", lines}});
    }
    return week;
}

json letterAsJson(const LetterModel& letter, const Case& told, const Assessment& a, const Playbook& book) {
    const Words& words = wordsOf(idOf(told.athlete.language));
    json keeps = json::array(), corrections = json::array(), open = json::array(), cautions = json::array();
    for (std::size_t i = 0; i < letter.keeps.size(); ++i)
        keeps.push_back({{"row", letter.kept[i]},
                         {"title", words(asIs(book.nameOfFinding(letter.kept[i])))},
                         {"text", words(letter.keeps[i])}});
    for (const LetterCorrection& c : letter.corrections) {
        const SidedRow finding = a.sided(c.finding);
        json drills = json::array();
        for (const PlannedDrill& d : told.review.plan.drills)
            if (d.finding == c.finding) drills.push_back(d.drill);
        const auto at = book.shownAt(c.finding);
        corrections.push_back({{"row", c.finding},
                               {"side", finding.side},
                               {"title", words(c.title)},
                               {"told", words(c.number)},
                               {"why", whyAsJson(c, finding, book, words)},
                               {"cue", words(c.feel)},
                               {"drills", drills},
                               {"shownAt", at ? json(info(*at).id) : json(nullptr)}});
    }
    for (const Judged& j : a.findings)
        if (j.cannotTell) {
            const MeasureRow* row = a.measure(j.finding.id);
            open.push_back(
                {{"row", j.finding.id}, {"text", row ? words(row->judgement.text) : std::string()}});
        }
    for (const Message& caution : letter.cautions) cautions.push_back(words(caution));
    return {{"greeting", words(letter.greeting)}, {"keeps", keeps},
            {"corrections", corrections},         {"cannotTell", open},
            {"week", weekAsJson(letter, words)},  {"cautions", cautions},
            {"nextLook", words(letter.nextLook)}, {"closing", words(letter.closing)}};
}

std::string textIn(const std::string& file) {
    if (file != "-") return orRefuse(readFile(file));
    return {std::istreambuf_iterator<char>(std::cin), std::istreambuf_iterator<char>()};
}

void tell(const Arguments& a, std::stop_token) {
    const Playbook book = playbook();
    try {
        Case told = toldIn(parseDocument(textIn(a.word(0, "FILE"))), book);
        const Assessment results = assessGiven(told.review, book, told.submission.clips, told.numbers);
        const CauseReport causes = causesOf(book, results, told.review.plan);
        const Proposal proposal =
            proposePriorities(book, told.review, results, causes, told.review.judging().age);
        std::vector<std::string> corrections;
        for (const Proposed& p : proposal.work) corrections.push_back(p.finding);
        for (const Proposed& p : proposal.keep) told.review.plan.keeps.push_back(p.finding);
        told.review.plan = proposePlan({book, told.review, results, told.athlete, told.submission,
                                        told.submission.clips.front(), told.today},
                                       corrections, wordsOf(idOf(told.athlete.language)));
        const LetterModel letter =
            writeLetter(told.review, book, results, told.athlete, told.submission, {"", "", "", ""});
        std::cout << letterAsJson(letter, told, results, book).dump(2) << "\n";
    } catch (const json::exception& e) {
        throw Refusal(msg("tell.unreadable", {{"why", whyUnfit(e)}}));
    } catch (const Unfit& e) {
        throw Refusal(msg("tell.unreadable", {{"why", whyUnfit(e)}}));
    }
}

} // namespace

std::vector<Command> tellCommands() {
    return {{"tell",
             "tell FILE|- [--json]  (what a letter would say of given results: docs/formats.md)",
             {},
             {"json"},
             1,
             1,
             tell}};
}

} // namespace jg::cli
