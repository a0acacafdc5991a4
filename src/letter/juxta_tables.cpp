// SPDX-License-Identifier: GPL-3.0-or-later
#include "letter/juxta_tables.h"

#include "base/number.h"
#include "letter/csv.h"
#include "letter/encoded.h"
#include "letter/juxta_sheet.h"
#include "review/assess/number_words.h"
#include "review/tell/letter_model.h"

#include <nlohmann/json.hpp>

#include <algorithm>

namespace jg {

using nlohmann::json;

namespace {

/// Safe within a page.
std::string escaped(const std::string& text) {
    return QString::fromStdString(text).toHtmlEscaped().toStdString();
}

std::string cellOfTable(const char* tag, const std::string& text) {
    return std::string("<") + tag + ">" + escaped(text) + "</" + tag + ">";
}

json changeAsJson(const JuxtaChange& change, const Playbook& playbook) {
    json values = json::array();
    for (const auto& v : change.values)
        values.push_back(v ? json{{"value", *v->value}, {"half95", v->half95()}, {"unit", v->unit}}
                           : json(nullptr));
    return {{"measure", change.measure},
            {"name", english()(fullNameOf(change, playbook))},
            {"values", values},
            {"first", change.first},
            {"last", change.last},
            {"difference", change.difference ? json{{"value", change.difference->value},
                                                    {"half95", change.difference->half95()}}
                                             : json(nullptr)},
            {"change", change.trend ? json(english()(nameOf(*change.trend))) : json(nullptr)},
            {"notComparable", english()(change.notComparable)},
            {"overruled", change.overruled}};
}

} // namespace

std::string juxtaAsCsv(const JuxtaSheet& sheet, const Playbook& playbook) {
    std::string out = "position,measure,name,unit";
    for (const JuxtaRow& row : sheet.rows)
        out += "," + csvField(row.entry.name + " " + isoDate(row.entry.when)) + ",error";
    out += ",difference,error,change\r\n";
    for (const JuxtaColumn& column : sheet.columns)
        for (const JuxtaChange& change : column.changes) {
            const auto known = std::find_if(change.values.begin(), change.values.end(),
                                            [](const auto& v) { return v.has_value(); });
            out += std::string(idOf(column.at)) + "," + change.measure + "," +
                   csvField(english()(fullNameOf(change, playbook))) + "," + (*known)->unit;
            for (const auto& v : change.values)
                out += v ? "," + fixed(*v->value, 3) + "," + fixed(v->half95(), 3) : ",,";
            out += change.difference ? "," + fixed(change.difference->value, 3) + "," +
                                           fixed(change.difference->half95(), 3)
                                     : ",,";
            out += "," + csvField(english()(change.trend ? nameOf(*change.trend) : change.notComparable)) +
                   "\r\n";
        }
    return out;
}

namespace {

/// Comma after each field; the last gets the line's end.
std::string lineOf(const std::vector<std::string>& fields) {
    std::string line;
    for (const std::string& field : fields) line += (&field == &fields.front() ? "" : ",") + csvField(field);
    return line + "\r\n";
}

std::vector<std::string> deliveryFields(const JuxtaEntry& e) {
    const Conditions& c = e.marks.conditions;
    return {isoDate(e.when),
            e.name,
            std::to_string(e.age),
            e.key.review.value,
            std::to_string(e.marks.number),
            std::string(idOf(e.clip.view)),
            e.clip.captureFps > 0 ? fixed(e.clip.captureFps, 2) : "",
            std::string(idOf(c.start)),
            std::string(idOf(c.surface)),
            std::string(idOf(c.pitch)),
            c.numberInOuting ? std::to_string(*c.numberInOuting) : "",
            c.speedMps ? fixed(*c.speedMps, 2) : "",
            std::string(idOf(c.went)),
            e.marks.turn ? fixed(e.marks.turn->deg, 1) : ""};
}

std::vector<std::string> numberFields(const MeasureRow& row, const Playbook& playbook) {
    const MeasureValue& v = row.value;
    const auto number = [&](double value) { return v.value ? fixed(value, 3) : std::string(); };
    return {row.id,
            playbook.nameOfFinding(row.id),
            number(v.value.value_or(0)),
            v.unit,
            number(v.sd),
            number(v.low95),
            number(v.high95),
            std::string(idOf(v.state)),
            english()(wordsOf(row.target)),
            std::string(row.judgement.verdict ? idOf(*row.judgement.verdict) : idOf(row.judgement.state))};
}

} // namespace

std::string numbersAsCsv(const std::vector<JuxtaEntry>& entries, const Playbook& playbook) {
    std::string out = lineOf({"date",      "athlete",       "age",     "review", "delivery", "view",
                              "captured",  "start",         "surface", "pitch",  "number",   "metresASecond",
                              "went",      "cameraTurnDeg", "measure", "name",   "value",    "unit",
                              "sd",        "low95",         "high95",  "state",  "target",   "verdict",
                              "definition"});
    for (const JuxtaEntry& e : entries)
        for (const MeasureRow& row : e.results.measures) {
            std::vector<std::string> fields = deliveryFields(e);
            for (std::string& field : numberFields(row, playbook)) fields.push_back(std::move(field));
            const auto meant = e.definitions.find(row.id);
            fields.push_back(meant == e.definitions.end() ? "" : meant->second);
            out += lineOf(fields);
        }
    return out;
}

std::string juxtaAsJson(const JuxtaSheet& sheet, const Playbook& playbook) {
    json d = {{"format", "juxtagraph-sheet-1"}, {"rows", json::array()},
              {"columns", json::array()},       {"compared", sheet.compared()},
              {"changed", sheet.changed()},     {"changedByChance", changedByChance(sheet.compared())}};
    for (const JuxtaRow& row : sheet.rows)
        d["rows"].push_back({{"review", row.entry.key.review.value},
                             {"delivery", row.entry.marks.number},
                             {"athlete", row.entry.athlete.value},
                             {"name", row.entry.name},
                             {"baseline", row.entry.baseline},
                             {"date", isoDate(row.entry.when)},
                             {"age", row.entry.age},
                             {"view", idOf(row.entry.clip.view)},
                             {"captureFps", row.entry.clip.captureFps},
                             {"mirrored", row.fit && row.fit->mirrored},
                             {"oneHeight", row.fit.has_value()}});
    for (const JuxtaColumn& column : sheet.columns) {
        json cells = json::array(), changes = json::array();
        for (const JuxtaCell& cell : column.cells)
            cells.push_back(
                {{"frame", cell.frame ? json(*cell.frame) : json(nullptr)}, {"why", english()(cell.why)}});
        for (const JuxtaChange& change : column.changes) changes.push_back(changeAsJson(change, playbook));
        d["columns"].push_back({{"position", idOf(column.at)}, {"cells", cells}, {"changes", changes}});
    }
    return d.dump(2) + "\n";
}

std::string juxtaAsHtml(const JuxtaSheet& sheet, const QImage& picture, const Playbook& playbook,
                        const Words& words) {
    std::string out =
        "<!doctype html>\n<html lang=\"" + words.tag() + "\"><head><meta charset=\"utf-8\">" +
        kNothingFetched +
        "<title>Juxtagraph</title><style>body{font:15px "
        "sans-serif;margin:24px;background:#F4EFE6;color:#23201C}img{max-width:100%}td,th{padding:4px "
        "12px;border-bottom:1px solid #D9D0C1;text-align:left}</style></head><body>\n<img alt=\"\" "
        "src=\"" +
        dataUri(picture) + "\">\n<table>\n<tr><th></th><th></th>";
    for (const JuxtaRow& row : sheet.rows)
        out += cellOfTable("th", row.entry.name + ", " + words(day(row.entry.when, DateStyle::Year)));
    out += "<th></th><th></th></tr>\n";
    for (const JuxtaColumn& column : sheet.columns)
        for (const JuxtaChange& change : column.changes) {
            out += "<tr>" + cellOfTable("td", words(nameOf(column.at))) +
                   cellOfTable("td", words(fullNameOf(change, playbook)));
            for (const auto& v : change.values) out += cellOfTable("td", v ? words(labelOf(*v)) : "");
            out += cellOfTable("td", change.difference ? words(differenceOf(change)) : "") +
                   cellOfTable("td", words(change.trend ? nameOf(*change.trend) : change.notComparable)) +
                   "</tr>\n";
        }
    return out + "</table>\n</body></html>\n";
}

} // namespace jg
