// SPDX-License-Identifier: GPL-3.0-or-later
// Deliveries under each other, and an athlete over time.
#include "apps/cli/command.h"
#include "apps/cli/open_library.h"
#include "base/clock.h"
#include "base/number.h"
#include "desk/keeping/places.h"
#include "desk/pages/log.h"
#include "desk/pages/season.h"
#include "desk/session/juxta.h"
#include "letter/fonts.h"
#include "letter/juxta_tables.h"

#include <iostream>

namespace jg::cli {

using nlohmann::json;
namespace fs = std::filesystem;

namespace {

std::vector<JuxtaAt> columnsOf(const Arguments& a) {
    std::vector<JuxtaAt> all;
    for (const char* option : {"positions", "columns"})
        for (const std::string& id : split(a.value(option).value_or(""), ',')) {
            const auto at = juxtaColumnFromId(id);
            if (!at) throw WrongUse(msg("library-commands.position-unknown", {{"id", id}}));
            all.push_back(*at);
        }
    return all;
}

/// "ID" or "ID:3" for its third delivery.
JuxtaKey juxtaKeyOf(const std::string& word) {
    const auto colon = word.rfind(':');
    if (colon == word.npos) return {{word}};
    const auto number = parseNumber(word.substr(colon + 1));
    if (!number || *number < 1 || *number > 1e6)
        throw WrongUse(msg("library-commands.delivery-number", {{"word", word}}));
    return {{word.substr(0, colon)}, static_cast<int>(*number)};
}

/// Rows as words are put by date; those of --rows stand as they are given.
std::vector<JuxtaKey> rowsOf(const Arguments& a) {
    std::vector<JuxtaKey> keys;
    for (std::size_t i = 1; i < a.words.size(); ++i) keys.push_back(juxtaKeyOf(a.words[i]));
    for (const std::string& word : split(a.value("rows").value_or(""), ',')) keys.push_back(juxtaKeyOf(word));
    return keys;
}

/// Every file that is asked for: --out by its ending, and one for each of --png, --pdf and --csv.
std::vector<fs::path> filesAskedFor(const Arguments& a) {
    std::vector<fs::path> files;
    if (const auto out = a.value("out")) files.emplace_back(*out);
    for (const char* ending : {"png", "pdf", "csv"})
        if (const auto file = a.value(ending)) {
            if (fs::path(*file).extension() != "." + std::string(ending))
                throw WrongUse(msg("cli.juxta-ending", {{"ending", ending}, {"file", *file}}));
            files.emplace_back(*file);
        }
    return files;
}

void juxta(const Arguments& a, std::stop_token stop) {
    const std::vector<fs::path> files = filesAskedFor(a);
    if (files.empty() && !a.has("json")) throw WrongUse(msg("cli.juxta-no-file"));
    const auto library = openLibrary(a.word(0, "LIB"));
    const Playbook book = playbookOf(*library);
    const JuxtaSheet sheet =
        orRefuse(layOutJuxta(orRefuse(juxtaEntries(*library, book, rowsOf(a))), book,
                             {.columns = columnsOf(a), .asGiven = a.value("rows").has_value()}));
    orRefuse(mayLeave(*library, sheet, SystemClock().today()));
    if (a.has("json")) std::cout << juxtaAsJson(sheet, book);
    std::optional<QImage> picture;
    const auto drawn = [&]() -> const QImage& {
        if (picture) return *picture;
        if (!loadFonts(dataFolder() / "fonts")) throw Refusal(msg("library-commands.no-fonts"));
        picture = orRefuse(juxtaPicture(*library, sheet, book, english(), stop,
                                        [](double part) { showProgress(part, msg("cli.juxta")); }));
        return *picture;
    };
    for (const fs::path& out : files) {
        const auto write = [&](const std::string& text) { orRefuse(library->files().write(out, text)); };
        const std::string ending = out.extension().string();
        if (ending == ".csv")
            write(juxtaAsCsv(sheet, book));
        else if (ending == ".json")
            write(juxtaAsJson(sheet, book));
        else if (ending == ".html")
            write(juxtaAsHtml(sheet, drawn(), book, english()));
        else
            orRefuse(writeJuxta(drawn(), out, library->files()));
    }
}

json followedAsJson(const Playbook& book, const FindingSince& f) {
    return {{"finding", f.finding},
            {"name", book.nameOfFinding(f.finding)},
            {"was", f.wasKept ? "kept" : "worked on"},
            {"became", english()(nameOf(f.became))},
            {"why", english()(f.why)}};
}

json lineAsJson(const AthleteLog& log, const MeasureLine& line) {
    json row = {{"measure", line.measure}, {"unit", line.unit},    {"points", json::array()},
                {"change", nullptr},       {"sureSince", nullptr}, {"perDay", nullptr}};
    for (const TrendPoint& p : line.points)
        row["points"].push_back({{"date", isoDate(p.when)}, {"value", p.value}, {"half95", p.half95}});
    if (line.trend) row["change"] = english()(nameOf(*line.trend));
    if (const auto sure = log.sureSince.find(line.measure); sure != log.sureSince.end())
        row["sureSince"] = isoDate(sure->second);
    if (const auto robust = log.trends.find(line.measure); robust != log.trends.end())
        row["perDay"] = {{"slope", robust->second.perDay},
                         {"low95", robust->second.low95},
                         {"high95", robust->second.high95}};
    return row;
}

json logAsJson(const AthleteLog& log, const Playbook& book) {
    json all = {
        {"athlete", {{"id", log.page.athlete.id.value}, {"name", log.page.athlete.fullName()}}},
        {"measures", json::array()},
        {"findings", json::array()},
        {"since", nullptr},
        {"before",
         {{"lastTime", log.before.lastTime}, {"kept", log.before.kept}, {"toFilm", log.before.toFilm}}}};
    for (const MeasureLine& line : log.page.measures) all["measures"].push_back(lineAsJson(log, line));
    for (const LogLine& line : log.lines) {
        json dots = json::array();
        for (const LogDot& d : line.dots)
            dots.push_back({{"date", isoDate(d.when)},
                            {"review", d.review.value},
                            {"fate", idOf(d.fate)},
                            {"delivery", d.delivery},
                            {"frame", d.frame ? json(*d.frame) : json(nullptr)}});
        all["findings"].push_back(
            {{"finding", line.finding}, {"name", book.nameOfFinding(line.finding)}, {"dots", dots}});
    }
    for (const Promise& p : log.before.owed)
        all["before"]["owed"].push_back({{"what", english()(p.text)},
                                         {"due", p.due ? json(isoDate(*p.due)) : json(nullptr)},
                                         {"owes", idOf(p.owes)}});
    if (!log.since) return all;
    all["since"] = {{"name", log.since->name},
                    {"date", isoDate(log.since->when)},
                    {"review", log.since->review.value},
                    {"findings", json::array()}};
    for (const FindingSince& f : log.since->followed)
        all["since"]["findings"].push_back(followedAsJson(book, f));
    return all;
}

void log(const Arguments& a, std::stop_token) {
    const auto library = openLibrary(a.word(0, "LIB"));
    const Playbook book = playbookOf(*library);
    const AthleteId athlete = athleteCalled(*library, a.word(1, "ATHLETE"));
    if (const auto table = a.value("csv"))
        return void(orRefuse(library->files().write(
            *table, numbersAsCsv(orRefuse(allDeliveries(*library, book, athlete)), book))));
    if (const auto page = a.value("pdf")) {
        if (!loadFonts(dataFolder() / "fonts")) throw Refusal(msg("library-commands.no-fonts"));
        return void(orRefuse(writeSeason(*library, book, athlete, SystemClock().today(), english(), *page)));
    }
    const AthleteLog log = orRefuse(readLog(*library, book, athlete));
    if (a.has("json")) {
        std::cout << logAsJson(log, book).dump(2) << "\n";
        return;
    }
    const auto measureName = [&](const std::string& id) { return book.nameOfFinding(id); };
    for (const MeasureLine& line : log.page.measures) {
        std::cout << measureName(line.measure) << ":";
        for (const TrendPoint& p : line.points)
            std::cout << "  " << isoDate(p.when) << " " << fixed(p.value, 1) << " +-" << fixed(p.half95, 1);
        std::cout << " " << line.unit;
        if (line.trend) std::cout << "  " << english()(nameOf(*line.trend));
        std::cout << "\n";
    }
    if (!log.since) return;
    for (const FindingSince& f : log.since->followed)
        std::cout << measureName(f.finding) << ": " << english()(nameOf(f.became)) << "\n";
}

} // namespace

std::vector<Command> logCommands() {
    return {{"juxta",
             "juxta LIB ID[:DELIVERY] ID[:DELIVERY]... | --rows ID[:DELIVERY],ID[:DELIVERY]  [--columns "
             "plant,release,front-knee]\n        --out sheet.pdf|.png|.csv|.json|.html [--png FILE] "
             "[--pdf FILE] [--csv FILE] [--json]  (--rows keeps the order given; --positions is --columns)",
             {"out", "positions", "rows", "columns", "png", "pdf", "csv"},
             {"json"},
             1,
             1 + kMostJuxtaRows,
             juxta},
            {"log",
             "log LIB ATHLETE [--json | --csv FILE | --pdf FILE]  (ATHLETE is an id or a name)",
             {"csv", "pdf"},
             {"json"},
             2,
             2,
             log}};
}

} // namespace jg::cli
