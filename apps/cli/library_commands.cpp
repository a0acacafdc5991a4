// SPDX-License-Identifier: GPL-3.0-or-later
#include "apps/cli/command.h"
#include "apps/cli/open_library.h"

#include "base/clock.h"
#include "demo/library/demo_library.h"
#include "desk/keeping/places.h"
#include "desk/pages/desk_list.h"
#include "desk/sending/letter_files.h"
#include "desk/sending/outgoing.h"
#include "letter/csv.h"
#include "letter/fonts.h"
#include "letter/narrated_film.h"
#include "library/bundle.h"
#include "review/record/review_json.h"
#include "review/tell/send_check.h"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <cstdlib>
#include <iostream>

namespace jg::cli {

using nlohmann::json;
namespace fs = std::filesystem;

namespace {

/// A review of a library with everything round it.
struct Opened {
    std::unique_ptr<Library> library;
    Playbook playbook;
    SystemClock clock;
    IdSource ids;
    std::unique_ptr<ReviewSession> session;
};

std::unique_ptr<Opened> openReview(const Arguments& a) {
    auto o = std::make_unique<Opened>();
    o->library = openLibrary(a.word(0, "LIB"));
    o->playbook = playbookOf(*o->library);
    o->session =
        orRefuse(ReviewSession::open(*o->library, o->playbook, o->clock, o->ids, ReviewId{a.word(1, "ID")}));
    if (!loadFonts(dataFolder() / "fonts")) throw Refusal(msg("library-commands.no-fonts"));
    return o;
}

std::uint64_t seedOf(const Arguments& a) {
    const double seed = a.number("seed").value_or(1);
    if (seed < 0 || seed != static_cast<double>(static_cast<std::uint64_t>(seed)))
        throw WrongUse(msg("library-commands.seed-wants-a-whole-number"));
    return static_cast<std::uint64_t>(seed);
}

void demo(const Arguments& a, std::stop_token stop) {
    if (const auto films = a.value("films")) {
        const double count = a.number("count").value_or(1);
        if (!(count >= 1 && count <= 10000))
            throw WrongUse(msg("library-commands.count-wants-a-number-from-1"));
        const std::string truth = a.value("truth").value_or(*films + "/truth.json");
        orRefuse(makeDemoFilms(*films, static_cast<int>(count), seedOf(a), truth, stop,
                               [](double part) { showProgress(part, msg("cli.films")); }));
        return;
    }
    Date today = SystemClock().today();
    if (const auto text = a.value("date")) {
        const auto date = parseIsoDate(*text);
        if (!date) throw WrongUse(msg("library-commands.date-wants-a-day-as-2026"));
        today = *date;
    }
    orRefuse(makeDemoLibrary(a.word(0, "DIR"), seedOf(a), today, stop, showProgress));
    showProgress(1, msg("library-commands.demo-library-is-ready"));
}

json countsAsJson(const Counts& c) {
    return {{"positions", {c.positions, c.positionsAll}},
            {"measures", {c.measures, c.measuresAll}},
            {"measuresNotVisible", c.measuresNotVisible},
            {"judged", {c.judged, c.judgedAll}},
            {"said", {c.said, c.saidAll}},
            {"corrections", c.corrections},
            {"drills", c.drills},
            {"drillsWithoutDose", c.drillsWithoutDose}};
}

void reviewList(const Arguments& a, std::stop_token) {
    const auto library = openLibrary(a.word(0, "LIB"));
    const Playbook book = playbookOf(*library);
    json all = json::array();
    for (const ReviewSummary& r : orRefuse(library->reviews()))
        all.push_back({{"id", r.id.value},
                       {"athlete", orRefuse(library->athlete(r.athlete)).fullName()},
                       {"date", isoDate(r.date)},
                       {"stage", idOf(r.stage)},
                       {"counts", countsAsJson(orRefuse(countsOf(*library, book, r)))}});
    std::cout << all.dump(2) << "\n";
}

void reviewShow(const Arguments& a, std::stop_token) {
    const auto o = openReview(a);
    json out = json::parse(toJson(o->session->review()));
    out["athleteName"] = o->session->athlete().fullName();
    // What most ask for, of the delivery that the letter tells, without a way through the document.
    for (const json& d : out["deliveries"])
        if (d["number"] == o->session->told().delivery) {
            out["positions"] = out["moments"] = d["moments"];
            out["points"] = d["points"];
            out["marks"] = d["marks"];
        }
    out["grades"] = json::object();
    for (const ItemRow& item : o->session->told().items)
        if (item.grade)
            out["grades"][item.id] = {{"state", idOf(item.grade->state)},
                                      {"step", item.grade->step},
                                      {"reason", item.grade->reason},
                                      {"delivery", item.delivery}};
    out["measures"] = json::array();
    for (const MeasureRow& m : o->session->told().measures) {
        json row = {{"id", m.id},
                    {"value", m.value.value ? json(*m.value.value) : json(nullptr)},
                    {"unit", m.value.unit},
                    {"sd", m.value.sd},
                    {"state", idOf(m.value.state)}};
        row["verdict"] = m.judgement.verdict ? json(idOf(*m.judgement.verdict)) : json(nullptr);
        row["judgement"] = idOf(m.judgement.state);
        row["text"] = m.judgement.text;
        if (m.spread)
            row["pitches"] = {{"count", m.spread->pitches},
                              {"mean", m.spread->mean},
                              {"half95", m.spread->half95},
                              {"spread", m.spread->sd}};
        out["measures"].push_back(row);
    }
    out["counts"] = countsAsJson(o->session->told().counts);
    std::cout << out.dump(2) << "\n";
}

void reviewExport(const Arguments& a, std::stop_token stop) {
    const auto o = openReview(a);
    const fs::path folder = a.need("out");
    const auto wanted = {"film", "letter", "html", "captions", "csv", "ics", "sheet", "coach", "bundle"};
    const bool any = std::any_of(wanted.begin(), wanted.end(), [&](const char* what) { return a.has(what); });
    const DispatchRecipe recipe = previewRecipe(*o->session);
    const std::string stem = stemOf(recipe);
    FileStore& files = o->library->files();
    if (a.has("letter") || !any) orRefuse(exportLetter(recipe, folder / (stem + ".pdf"), files));
    if (a.has("html")) orRefuse(exportLetterHtml(recipe, folder / (stem + ".html"), files));
    if (a.has("captions")) orRefuse(exportCaptions(recipe, folder / (stem + ".vtt"), files));
    if (a.has("csv") || !any)
        orRefuse(
            files.write(folder / (stem + ".csv"), measuresAsCsv(o->session->playbook(), o->session->told())));
    if (a.has("ics")) orRefuse(exportCalendar(recipe, folder / (stem + "-week.ics"), files));
    if (a.has("sheet")) orRefuse(exportWeekSheet(recipe, recipe.paper, folder / (stem + "-week.pdf"), files));
    if (a.has("coach")) orRefuse(exportCoachSheet(recipe, folder / (stem + "-coach.pdf"), files));
    if (a.has("bundle"))
        orRefuse(exportBundle(*o->library, {o->session->athlete().id, o->session->review().id},
                              folder / (stem + ".zip"), stop));
    if (a.has("film"))
        orRefuse(renderNarratedFilm(recipe.film, folder / (stem + ".mp4"), files, stop,
                                    [](double part) { showProgress(part, msg("cli.narrated-film")); }));
}

void send(const Arguments& a, std::stop_token stop) {
    const auto o = openReview(a);
    MailServer server;
    server.url = a.need("smtp");
    server.user = a.value("user").value_or("");
    // A password on the command line is seen by every process: it comes through the environment.
    if (const char* password = std::getenv("JUXTAGRAPH_SMTP_PASSWORD")) server.password = password;
    server.requireTls = !isLoopback(server.url);
    server.caFile = a.value("ca").value_or("");
    const DispatchRecipe recipe = orRefuse(dispatchRecipe(*o->session));
    if (a.has("dry-run")) {
        std::cout << msg(recipe.film.review.takes.empty() ? "cli.would-send" : "cli.would-send-film",
                         {{"name", recipe.toName},
                          {"address", recipe.toAddress},
                          {"subject", recipe.film.letter.greeting}})
                  << "\n";
        return;
    }
    orRefuse(sendLetter(
        *o->library, recipe,
        {server, recipe.house.coachEmail, 0,
         [](const Message& what) {
             std::cerr << msg("outgoing.made-anew", {{"what", what}}) << "\n";
         }},
        o->clock, o->ids, stop,
        [](SendStep step, double part) {
            showProgress(part, step == SendStep::Making ? msg("cli.narrated-film") : msg("cli.handing-over"));
        },
        a.has("again") ? Repeat::Always : Repeat::Never));
}

/// Says what each repair would do; does it when it was agreed to.
void repairAll(Library& library, const std::vector<Problem>& problems, bool agreed) {
    for (const Problem& p : problems) {
        std::cout << joined(ListStyle::Sentences, {p.text, repairOf(p)}) << "\n";
        if (!agreed || p.repair == Repair::None) continue;
        const Status done = library.repair(p);
        std::cout << "  " << (done ? msg("cli.repaired") : done.error().text) << "\n";
    }
    if (!agreed) throw Refusal(msg("cli.repair-agree", {{"count", problems.size()}}));
    const auto left = orRefuse(library.examine());
    if (!left.empty()) throw Refusal(msg("cli.repair-left", {{"count", left.size()}}));
    std::cout << msg("cli.whole") << "\n";
}

void verify(const Arguments& a, std::stop_token stop) {
    const auto library = openLibrary(a.word(0, "LIB"));
    const auto problems =
        orRefuse(library->examine(stop, [](double part) { showProgress(part, msg("cli.looking-over")); }));
    std::vector<Message> texts;
    for (const Problem& p : problems) texts.push_back(p.text);
    if (a.has("json")) {
        std::cout << json{{"ok", problems.empty()}, {"problems", texts}}.dump(2) << "\n";
        if (!problems.empty()) throw Told{};
    } else if (problems.empty()) {
        std::cout << msg("cli.whole") << "\n";
    } else if (a.has("repair")) {
        repairAll(*library, problems, a.has("yes"));
    } else {
        throw Refusal(msg("cli.problems",
                          {{"count", problems.size()}, {"problems", joined(ListStyle::Sentences, texts)}}));
    }
}

} // namespace

std::vector<Command> libraryCommands() {
    return {
        {"demo",
         "demo DIR [--seed S] [--date YYYY-MM-DD]  |  demo --films DIR --count N --seed S --truth truth.json",
         {"films", "count", "seed", "truth", "date"},
         {},
         0,
         1,
         demo},
        {"review list", "review list LIB [--json]", {}, {"json"}, 1, 1, reviewList},
        {"review show", "review show LIB ID [--json]", {}, {"json"}, 2, 2, reviewShow},
        {"review export",
         "review export LIB ID --out DIR [--film] [--captions] [--letter] [--html] [--csv] [--ics] "
         "[--sheet] [--coach] [--bundle]",
         {"out"},
         {"film", "captions", "letter", "html", "csv", "ics", "sheet", "coach", "bundle"},
         2,
         2,
         reviewExport},
        {"send",
         "send LIB ID --smtp smtp://127.0.0.1:2525 [--user NAME] [--ca FILE] [--dry-run] [--again]  "
         "(password in "
         "JUXTAGRAPH_SMTP_PASSWORD; --again sends one that was sent, or may have been)",
         {"smtp", "user", "ca"},
         {"dry-run", "again"},
         2,
         2,
         send},
        {"verify",
         "verify LIB [--json] [--repair [--yes]]  (--repair says what it would do, --yes does it)",
         {},
         {"json", "repair", "yes"},
         1,
         1,
         verify}};
}

} // namespace jg::cli
